import { apparatusOf } from '../apparatus'
import { describe, expect, it } from 'vitest'
import {
  apparatusSite,
  connectedWith,
  type PressureZone,
  roundZones,
  shutFor,
  siteOf,
  spaceStates,
  zoneSite,
} from '.'

const zone = (id: string, more: Partial<PressureZone> = {}): PressureZone => ({
  id,
  title: id,
  ventedBy: [`${id}-vent`],
  ...more,
})
/** A pilot-operated regulator, and a bypass of its own beside it. */
const regulator = [
  zone('outlet', { shutBy: ['outlet-valve'] }),
  zone('loading'),
  zone('inlet', { shutBy: ['inlet-valve'], feeds: ['loading', 'outlet'] }),
  zone('bypass', { shutBy: ['bypass-valve'] }),
]

const connected = (id: string) => {
  const site = zoneSite(regulator)
  const found = site.zones.find((z) => z.id === id)
  if (!found) throw new Error(id)
  return connectedWith(site, found)
}

const inside = (kind: string) => apparatusSite(apparatusOf(kind)!)

describe('the spaces of a guide', () => {
  it('are shut off by their own valves and by those of what feeds them', () => {
    expect(shutFor(zoneSite(regulator), 'inlet')).toEqual(['inlet-valve'])
    expect(shutFor(zoneSite(regulator), 'loading')).toEqual(['inlet-valve'])
    expect(new Set(shutFor(zoneSite(regulator), 'outlet'))).toEqual(
      new Set(['outlet-valve', 'inlet-valve']),
    )
  })
  it('stand in connection along the chain, from whichever end it is seen', () => {
    for (const id of ['outlet', 'loading', 'inlet']) {
      expect(connected(id).map((z) => z.id)).toEqual(['outlet', 'loading', 'inlet'])
    }
    expect(connected('bypass').map((z) => z.id)).toEqual(['bypass'])
  })
  it('that feed themselves are found, however long the round', () => {
    const round = [
      zone('a', { feeds: ['b'] }),
      zone('b', { feeds: ['c'] }),
      zone('c', { feeds: ['a'] }),
      zone('d', { feeds: ['a'] }),
    ]
    expect(roundZones(round)).toEqual(['a', 'b', 'c'])
    expect(roundZones(regulator)).toEqual([])
  })
})

describe('the spaces of an assembly', () => {
  const shut = { 'shutoff-1': 'shut', 'shutoff-2': 'shut' } as const
  it('all live in service', () => {
    expect(new Set(Object.values(spaceStates(inside('RP'), {})))).toEqual(new Set(['live']))
  })
  it('two shut valves trap what stands between them, checks or not', () => {
    const zones = spaceStates(inside('DC'), shut)
    expect(zones).toMatchObject({
      inlet: 'live',
      'body-1': 'trapped',
      zone: 'trapped',
      'body-2': 'trapped',
    })
  })
  it('an open cock vents its own space and what flows towards it, not what a check holds behind it', () => {
    const open3 = spaceStates(inside('DC'), { ...shut, 'cock-3': 'open' })
    expect(open3).toMatchObject({ 'body-1': 'vented', zone: 'vented', 'body-2': 'trapped' })
    const open4 = spaceStates(inside('DC'), { ...shut, 'cock-4': 'open' })
    expect(open4).toMatchObject({ 'body-1': 'vented', zone: 'vented', 'body-2': 'vented' })
  })
  it('a cock with a hose on it vents nothing', () => {
    const zones = spaceStates(inside('DC'), { ...shut, 'cock-3': 'open' }, [], ['cock-3'])
    expect(zones.zone).toBe('trapped')
  })
  it('the customer’s side is a source: open to it, a body is live though its supply is shut', () => {
    const openings = { 'shutoff-1': 'shut', 'cock-4': 'open' } as const
    const states = spaceStates(inside('DC'), openings)
    expect(states).toMatchObject({ 'body-2': 'live', outlet: 'live', 'body-1': 'vented' })
    const guided = siteOf(
      { zones: [zone('body', { shutBy: ['shutoff-1', 'shutoff-2'], ventedBy: ['cock-4'] })] },
      'DC',
    )
    expect(guided && spaceStates(guided, openings)).toEqual(states)
  })
  it('the bypass of a detector keeps the body behind the main checks live', () => {
    const zones = spaceStates(inside('DCDA'), { 'shutoff-2': 'shut' })
    expect(zones['body-2']).toBe('live')
  })
})
