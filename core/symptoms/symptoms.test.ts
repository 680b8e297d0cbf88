import { describe, expect, it } from 'vitest'
import { shippedLibrary } from '../testing/library'
import { symptomFinder } from '.'

const find = symptomFinder(shippedLibrary)
const machines = shippedLibrary.machines.filter((m) => m.symptoms)

describe('the symptom finder', () => {
  it.each(machines.map((m) => [m.id, m] as const))(
    '%s: finds every symptom by its own words, first of its family',
    (_, machine) => {
      for (const { sign } of machine.symptoms ?? [])
        for (const family of machine.families)
          expect(
            find(sign, family)
              .slice(0, 3)
              .map((f) => f.sign),
            sign,
          ).toContain(sign)
    },
  )
  // As people say it, with a symptom that is meant, among the first three.
  it.each([
    ['weep hole wet', 'high-pressure-water-valve', 'Upper hole wet'],
    ['tell-tale hole dripping', 'high-pressure-water-valve', 'Lower hole wet'],
    ['drips after downstream stops', 'spring-cover-check', 'Relief drips only when nothing flows'],
    [
      'relief spits when there is no demand',
      'spring-cover-check',
      'Relief drips only when nothing flows',
    ],
    ['hunting', 'dome-regulator', 'Hunts'],
    ['pressure surges', 'sleeve-regulator', 'Hunts'],
    ['oscillates under load', 'spring-regulator', 'Hunts'],
    [
      'outlet pressure keeps rising with no flow',
      'spring-regulator',
      'Outlet creeps on with nothing drawn',
    ],
    ['pressure droops under load', 'spring-regulator', 'Outlet sinks under flow'],
    ['set point wandered', 'spring-regulator', 'Set has drifted'],
    ['continuous exhaust', 'spool-valve', 'Continuous exhaust'],
    ['air keeps blowing from the exhaust', 'cycling-valve', 'Continuous exhaust'],
    ['will not close', 'air-blow-check', 'Does not close'],
    ["won't shut", 'dome-regulator', 'Creeps, does not shut'],
    ['passing when closed', 'motor-control-valve', 'Passes when shut'],
    ['nozzle leaking when closed', 'high-pressure-water-valve', 'Nozzle drips when shut'],
    ['bonnet leaking', 'vacuum-breaker', 'Wet round the bonnet'],
    ['spilling all the time', 'vacuum-breaker', 'Spills all the time'],
    ["doesn't open", 'vacuum-breaker', 'Does not open at all'],
    [
      'goes the wrong way on air failure',
      'spring-cylinder',
      'Moves the wrong way when the air goes',
    ],
    ['slow return stroke', 'threaded-lid-cylinder', 'Slow return'],
    ['air hissing at the breather', 'threaded-lid-cylinder', 'Air at the breather'],
    ['unequal throws', 'shuttle-valve', 'Throws are not equal'],
    ['product in the air hose', 'air-blow-check', 'Product in the air line'],
    ['meter stands still', 'double-check-detector', 'Meter never turns'],
    ['slamming', 'double-check-detector', 'Chatters, slams'],
    ['handle stiff', 'cartridge-coupler', 'Stiff, binds'],
    ['opens uncoupled', 'nose-seal-coupler', 'Will not latch, or opens uncoupled'],
    ['dosing too much', 'proportional-injector', 'Draws too much'],
    ['chemical drum fills with water', 'proportional-injector', 'Water comes back into the drum'],
    ['sampler outlet dribbles', 'captive-sampler', 'Outlet drips between strokes'],
    ['fuel leaking to the air side', 'pulse-valve', 'Fuel on the air side'],
  ])('“%s” on %s: %s', (seen, id, sign) => {
    const machine = machines.find((m) => m.id === id)
    const found = find(seen, machine?.families[0])
    expect(found.slice(0, 3).map((f) => f.sign)).toContain(sign)
  })
  it('finds over all machines what is seen, with parts, what is done first, checks and guides', () => {
    const [found] = find('relief drips when nothing flows')
    expect(found).toMatchObject({
      sign: 'Relief drips only when nothing flows',
      machine: { id: 'spring-cover-check' },
    })
    expect(found?.parts.map((p) => p.element)).toContain('check-2')
    expect(found?.checks.map((c) => c.item)).toContain('check-2')
    expect(found?.guides.length).toBeGreaterThan(0)
  })
  it('finds by what people call a part', () => {
    const [machine, part] =
      machines.flatMap((m) =>
        m.parts
          .filter((p) => p.also && m.symptoms?.some((s) => s.look.includes(p.id)))
          .map((p) => [m, p] as const),
      )[0] ?? []
    const found = find(part?.also?.[0] ?? '', machine?.families[0])
    expect(found.flatMap((f) => f.parts.map((p) => p.id))).toContain(part?.id)
  })
  it('finds nothing for nothing', () => {
    expect(find('')).toEqual([])
    expect(find('the of and')).toEqual([])
  })
  it('knows parts for every symptom', () => {
    for (const m of machines)
      for (const s of m.symptoms ?? [])
        expect(find(s.sign, m.families[0])[0]?.parts.length).toBeGreaterThan(0)
  })
})
