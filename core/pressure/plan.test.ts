import { describe, expect, it } from 'vitest'
import { assemblyKinds } from '../apparatus/backflow'
import { type Guide, guideAsBuilt, guideRun, movesOf, storedEnergy } from '../guide'
import { shippedLibrary } from '../testing/library'
import { type Openings, siteOf, spaceStates } from '.'
import { moveRefusal, planIsolation } from '../pressure'

const guide = (id: string) => shippedLibrary.guides.find((g) => g.id === id) as Guide
const site = (id: string, kind: string) => {
  const found = siteOf(guide(id), kind)
  if (!found) throw new Error('no site')
  return found
}
const tower = site('tower-double-check', 'DC')
const planned = (s: typeof tower) =>
  planIsolation(s).moves.map((m) =>
    m.kind === 'prove' ? `prove ${m.zone}` : `${m.kind} ${m.valve}`,
  )

describe('the plan', () => {
  it('shuts downstream before upstream, vents downstream to upstream, then proves', () => {
    expect(planned(tower)).toEqual([
      'shut shutoff-2',
      'shut shutoff-1',
      'vent cock-4',
      'vent cock-3',
      'vent cock-2',
      'prove body',
    ])
  })
  it('leaves the cock before shutoff 1 alone: it is live', () => {
    expect(planIsolation(tower).leftAlone).toEqual([
      { valve: 'cock-1', title: 'Cock 1', why: expect.stringMatching(/live/) as string },
    ])
  })
  it('takes the outlet side of a gas regulator first', () => {
    const moves = planned(site('sleeve-regulator-actuator', 'pilot regulator'))
    expect(moves.filter((m) => /(?:outlet|inlet)-/.test(m))).toEqual([
      'shut outlet-valve',
      'shut inlet-valve',
      'vent outlet-vent',
      'vent inlet-vent',
    ])
    // Pilot and control line have supplies of their own: shut before anything is vented.
    const lines = ['shut pilot-supply-valve', 'shut control-line-valve'].map((m) =>
      moves.indexOf(m),
    )
    expect(Math.min(...lines)).toBeGreaterThan(0)
    expect(Math.max(...lines)).toBeLessThan(moves.indexOf('vent outlet-vent'))
  })
  it('leaves the order of supplies to the hands: only what leads out comes first', () => {
    const regulator = site('sleeve-regulator-actuator', 'pilot regulator')
    expect(moveRefusal(regulator, {}, 'inlet-valve', 'shut')).toMatch(/Shut Outlet valve first/)
    const outletShut = { 'outlet-valve': 'shut' } as const
    for (const valve of ['inlet-valve', 'pilot-supply-valve', 'control-line-valve'])
      expect(moveRefusal(regulator, outletShut, valve, 'shut')).toBeNull()
  })
  it.each(assemblyKinds)('of a %s without a guide leaves no inner space under pressure', (kind) => {
    const bare = siteOf(undefined, kind)
    if (!bare) throw new Error('no site')
    const openings = Object.fromEntries(
      planIsolation(bare).moves.flatMap((m) =>
        m.kind === 'prove' ? [] : [[m.valve, m.kind === 'shut' ? 'shut' : 'open'] as const],
      ),
    )
    const states = spaceStates(bare, openings)
    const inside = bare.spaces.filter((s) => !s.source).map((s) => states[s.id])
    expect(new Set(inside)).toEqual(new Set(['vented']))
  })
  it('says how fast and how far, as the guide does', () => {
    const { steps } = guideRun(guide('tower-double-check'), shippedLibrary.subGuides, 'usual', [])
    const [first] = planIsolation(tower, steps).moves
    expect(first).toMatchObject({ valve: 'shutoff-2', speed: 'slow' })
  })
  it('equipment without pressure has none', () => {
    const bare = { ...guide('spool-valve'), zones: [] }
    expect(siteOf(bare, 'spool valve')).toBeNull()
  })
})

describe('the order in the shipped guides', () => {
  it.each(
    shippedLibrary.guides.flatMap((g) => {
      const kinds = shippedLibrary.families.find((f) => f.id === g.family)?.kinds ?? []
      return kinds.flatMap((kind) => g.variants.map((v) => [g.id, v.id, kind, g] as const))
    }),
  )('%s, %s, on a %s: no move of its Make safe is refused', (_, variant, kind, g) => {
    const own = siteOf(guideAsBuilt(g, variant), kind)
    if (!own) throw new Error('the guide names no zone')
    const openings: Record<string, 'shut' | 'open'> = {}
    const jobs = g.jobs?.map((j) => j.id) ?? []
    const moves = guideRun(g, shippedLibrary.subGuides, variant, [], jobs)
      .steps.filter((s) => s.at === 'make-safe')
      .flatMap(movesOf)
    expect(moves.length).toBeGreaterThan(0)
    for (const { element, to } of moves) {
      expect(moveRefusal(own, openings, element, to)).toBeNull()
      openings[element] = to === 'shut' ? 'shut' : 'open'
    }
  })
})

describe('a wrong move', () => {
  const shut2 = { 'shutoff-2': 'shut' } as const
  const both = { ...shut2, 'shutoff-1': 'shut' } as const
  it.each([
    ['the upstream shutoff first', {}, 'shutoff-1', 'shut', /Shut Shutoff 2 first/],
    ['a cock that is still fed', shut2, 'cock-4', 'open', /still fed. Shut Shutoff 1 first/],
    ['the live cock', both, 'cock-1', 'open', /Cock 1 is live/],
    ['cocks from the wrong end', both, 'cock-2', 'open', /Open Cock 4 first/],
    ['opening what was shut', both, 'shutoff-1', 'crack', /opened again in Return/],
  ] as const)('%s is refused with the reason', (_, openings, valve, to, words) => {
    expect(moveRefusal(tower, openings, valve, to)).toMatch(words)
  })
  it('is none where the valve is not of this equipment', () => {
    expect(moveRefusal(tower, {}, 'high-bleed', 'open')).toBeNull()
  })
})

describe('the state of a space', () => {
  const shut = { 'shutoff-1': 'shut', 'shutoff-2': 'shut' } as const
  it('is live in service, from either end', () => {
    expect(spaceStates(tower, {})).toMatchObject({
      'body-1': 'live',
      zone: 'live',
      'body-2': 'live',
    })
    // The customer’s side feeds the body backwards, but not through a check.
    expect(spaceStates(tower, { 'shutoff-1': 'shut' })).toMatchObject({
      'body-1': 'trapped',
      zone: 'trapped',
      'body-2': 'live',
    })
  })
  it('is trapped behind a check although the space before it is vented', () => {
    expect(spaceStates(tower, { ...shut, 'cock-2': 'open' })).toMatchObject({
      'body-1': 'vented',
      zone: 'trapped',
      'body-2': 'trapped',
    })
  })
  it('drains along the flow: the last cock empties what is before it', () => {
    expect(spaceStates(tower, { ...shut, 'cock-4': 'open' })).toMatchObject({
      'body-1': 'vented',
      'body-2': 'vented',
    })
  })
  it('is proved only where it is vented', () => {
    const proved = (openings: Openings) => spaceStates(tower, openings, ['body'])['zone']
    expect(proved({ ...shut, 'cock-4': 'open' })).toBe('proved')
    expect(proved(shut)).toBe('trapped')
    expect(proved({})).toBe('live')
  })
})

describe('stored energy', () => {
  const of = (id: string, variant: string) => {
    const { steps } = guideRun(guide(id), shippedLibrary.subGuides, variant, [])
    return storedEnergy(guide(id), steps)
  }
  it('names what comes out first: the adjusting screw of a spring cylinder', () => {
    expect(of('spring-cylinder', 'to-closed')).toEqual([
      expect.objectContaining({ id: 'main-spring', controlled: false }),
    ])
    expect(of('spring-cylinder', 'to-closed')[0]?.says).toMatch(/Adjusting screw out first/)
  })
  it('or the cover that comes off evenly where nothing relieves it', () => {
    expect(of('sleeve-regulator-actuator', 'spring-to-close')[0]).toMatchObject({
      controlled: true,
    })
  })
  it('is named for every part under a spring that a way through a guide takes off', () => {
    let met = 0
    for (const g of shippedLibrary.guides) {
      for (const v of g.variants) {
        const { steps } = guideRun(g, shippedLibrary.subGuides, v.id, [])
        const named = of(g.id, v.id).map((e) => e.id)
        for (const part of g.parts) {
          if (!part.spring || !steps.some((s) => s.remove === part.id)) continue
          expect(named).toContain(part.spring)
          met++
        }
      }
    }
    expect(met).toBeGreaterThan(10)
  })
})
