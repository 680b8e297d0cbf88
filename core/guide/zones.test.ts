import { describe, expect, it } from 'vitest'
import type { GuideZone } from './equipment'
import { connectedZones, roundZones, shutFor } from './zones'

const zone = (id: string, more: Partial<GuideZone> = {}): GuideZone => ({
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

describe('the spaces of a guide', () => {
  it('are shut off by their own valves and by those of what feeds them', () => {
    expect(shutFor(regulator, 'inlet')).toEqual(['inlet-valve'])
    expect(shutFor(regulator, 'loading')).toEqual(['inlet-valve'])
    expect(new Set(shutFor(regulator, 'outlet'))).toEqual(new Set(['outlet-valve', 'inlet-valve']))
  })
  it('stand in connection along the chain, from whichever end it is seen', () => {
    for (const id of ['outlet', 'loading', 'inlet']) {
      expect(connectedZones(regulator, id).map((z) => z.id)).toEqual(['outlet', 'loading', 'inlet'])
    }
    expect(connectedZones(regulator, 'bypass').map((z) => z.id)).toEqual(['bypass'])
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
