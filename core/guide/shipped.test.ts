import { describe, expect, it } from 'vitest'
import { shippedGuides, shippedSubGuides } from '../testing/guides'
import { orders } from '../testing/orders'
import { renewalRule } from '../library'
import { shippedLibrary } from '../testing'
import { expandGuide, type Guide, guideRun, mendedBy, type PlacedStep, renewalAdvice } from '.'

const guide = (id: string) => shippedGuides.find((g) => g.id === id) as Guide
/** Everything a step tells its reader, in one line. */
const told = (s: PlacedStep): string =>
  [s.say, s.differs, s.hazard, s.orient, s.never, s.why, s.tip, s.together, s.position]
    .concat(
      s.inTurn ?? [],
      (s.turns ?? []).map((t) => `${t.way}: ${t.effect}`),
    )
    .concat(s.where ?? [], s.amount ?? [], s.compound ?? [], s.verify ?? [], s.lastOnes ?? [])
    .concat(s.until ?? [], s.steps?.map(told) ?? [])
    .filter(Boolean)
    .join(' | ')
/** The verdict for a sound part under the utility’s policy for the family. */
function ofTheHouse(g: Guide, s: PlacedStep): string | undefined {
  if (!s.inspect) return s.answers?.[0]?.id
  const policy = shippedLibrary.policies.find((p) => p.family === g.family)
  const rule = renewalRule(shippedLibrary, policy, g, s.inspect)
  const offered = s.verdicts.map((v) => v.id)
  return renewalAdvice(rule.policy, offered, [], mendedBy(s), rule.soft).verdict
}
/** The steps of a variant with the given findings; everything else is found sound. */
function way(
  id: string,
  variant: string,
  findings: Readonly<Record<string, string>> = {},
  jobs: readonly string[] = [],
) {
  const g = guide(id)
  const record = expandGuide(g, shippedSubGuides).steps.flatMap((s) => {
    const usual = ofTheHouse(g, s)
    return usual ? [{ step: s.id, finding: findings[s.inspect ?? s.ask ?? ''] ?? usual }] : []
  })
  return guideRun(g, shippedSubGuides, variant, record, jobs).steps
}

describe('what the trade knows of each job', () => {
  it.each(
    orders.map(
      ([id, variant, order, findings, jobs]) =>
        [`${id}, ${variant}`, id, variant, order, findings, jobs] as const,
    ),
  )('%s', (_, id, variant, order, findings, jobs) => {
    const lines = way(id, variant, findings, jobs).map(told)
    let from = 0
    for (const words of order) {
      const found = lines.findIndex((l, n) => n >= from && words.test(l))
      const after = lines[from - 1] ?? 'the beginning'
      expect(found, `${String(words)} after “${after}”`).toBeGreaterThanOrEqual(0)
      from = found
    }
  })
  it('a sub-guide’s second turn says loudly, and once, what is different', () => {
    const lines = way('tower-double-check', 'usual', { 'disc-2': 'clean' })
    const said = lines.filter((s) => s.differs?.includes('arms down'))
    expect(said.map((s) => s.say)).toEqual([
      'Seat O-ring of check 2 and its place in the body wiped',
    ])
  })
  it('is there for every family', () => {
    expect(new Set(orders.map(([id]) => id))).toEqual(new Set(shippedGuides.map((g) => g.id)))
  })
})

describe('branches', () => {
  const says = (steps: readonly PlacedStep[]) => steps.map(told).join('\n')
  it('debris on a disc renews nothing; damage renews it', () => {
    const fouled = way('tower-double-check', 'usual', { 'disc-1': 'clean', 'disc-2': 'clean' })
    expect(says(fouled)).toMatch(/rag and water; nothing is renewed/)
    expect(fouled.filter((s) => s.renew).map((s) => s.renew)).toEqual([])
    const damaged = way('tower-double-check', 'usual', { 'disc-1': 'renew', 'disc-2': 'clean' })
    expect(damaged.filter((s) => s.renew).map((s) => s.renew)).toEqual(['disc-1'])
  })
  it('lapped seats are renewed as a set, or all go back', () => {
    const renewed = (disc: string) =>
      way('dome-regulator', 'gas', { disc }).flatMap((s) => (s.renew ? [s.renew] : []))
    expect(renewed('keep')).toEqual([])
    expect(renewed('renew').toSorted()).toEqual(['disc', 'disc-guide', 'plate'])
    const plate = way('dome-regulator', 'gas', { plate: 'renew' }).flatMap((s) => s.renew ?? [])
    expect(plate.toSorted()).toEqual(['disc', 'disc-guide', 'plate'])
  })
  it('a dented seat is not mended by a soft face, and a cartridge exchanged whole is not taken apart', () => {
    const guide = shippedGuides.find((g) => g.id === 'cartridge-check') as Guide
    const { steps } = expandGuide(guide, shippedSubGuides)
    const seat = steps.find((s) => s.inspect === 'seat-1')
    expect(seat?.verdicts?.map((v) => v.id)).toEqual(['keep', 'clean', 'renew-assembly', 'order'])
    const taken = way('cartridge-check', 'dc', {}, ['exchange-2']).flatMap((s) => s.remove ?? [])
    expect(taken).toContain('cap-1')
    expect(taken).not.toContain('cap-2')
    // A dent widens the job: the old one goes back together and away whole, the new one takes a new O-ring.
    const dented = way('cartridge-check', 'dc', { 'seat-2': 'renew-assembly' })
    expect(dented.flatMap((s) => s.discard ?? [])).toEqual(
      expect.arrayContaining(['cartridge-2', 'oring-2']),
    )
    expect(dented.flatMap((s) => s.renew ?? [])).toEqual(
      expect.arrayContaining(['cartridge-2', 'oring-2']),
    )
    expect(dented.flatMap((s) => s.inspect ?? [])).not.toContain('face-2')
  })
  it('a drive alone comes off without a drop of refrigerant being let out', () => {
    const drive = way('motor-control-valve', 'usual')
    expect(drive.filter((s) => s.isolate ?? s.vent ?? s.prove ?? s.reopen)).toEqual([])
    expect(drive.flatMap((s) => s.renew ?? [])).toEqual(['backup-ring', 'drive-ring'])
    const minor = way('motor-control-valve', 'usual', {}, ['minor'])
    expect(minor.flatMap((s) => s.renew ?? [])).toContain('drive-ring')
    expect(minor.flatMap((s) => s.fit ?? [])).toContain('top')
  })
  it('a valve on the bench is proved empty and nothing of it is isolated; a drive from stock goes on', () => {
    const bench = way('motor-control-valve', 'bench', { magnets: 'renew-assembly' }, ['minor'])
    expect(bench.filter((s) => s.isolate ?? s.reopen ?? s.locked)).toEqual([])
    expect(bench.flatMap((s) => s.prove ?? [])).toContain('line')
    expect(bench.flatMap((s) => s.discard ?? [])).toContain('drive')
    expect(bench.flatMap((s) => s.renew ?? [])).toContain('drive')
    expect(bench.flatMap((s) => s.fit ?? [])).not.toContain('drive')
    const line = way('motor-control-valve', 'usual', {}, ['minor'])
    expect(line.filter((s) => s.writes?.includes('of the line')).map((s) => s.at)).toEqual([
      'make-safe',
      'return',
    ])
  })
  it('a flange job leaves the trim together; what is seen from above widens into it', () => {
    const taken = (jobs: string[], findings = {}) =>
      way('sleeve-regulator-actuator', 'spring-to-close', findings, jobs).flatMap(
        (s) => s.remove ?? [],
      )
    expect(taken(['flange'])).toEqual(expect.arrayContaining(['lower-casing', 'flange']))
    expect(taken(['flange'])).not.toContain('disc-holder')
    expect(taken([])).not.toContain('lower-casing')
    expect(taken([], { below: 'trim' })).toEqual(
      expect.arrayContaining(['lower-casing', 'disc-holder', 'sleeve']),
    )
  })
  it('first aid of a cycling valve greases the rings of the sleeve too, where that comes by hand', () => {
    const greased = (free: string) =>
      way('cycling-valve', 'pump', { 'spool-rings': 'clean', 'sleeve-free': free }).flatMap(
        (s) => s.lubricate ?? [],
      )
    expect(greased('yes')).toContain('sleeve-rings')
    expect(greased('no')).not.toContain('sleeve-rings')
    expect(greased('no')).toContain('spool-rings')
  })
  it('the stroke of a dome regulator is seen with the cap up; loading air with the cap off is vented and proved', () => {
    const set = way('dome-regulator', 'gas', {}, ['diaphragm']).find((s) => s.set === 'stroke')
    expect(set).toMatchObject({ lying: 'cap-up', people: 2 })
    const looked = way('dome-regulator', 'gas', { 'stroke-proof': 'air' })
    const opened = looked.findIndex((s) => s.reopen === 'loading-supply')
    const proved = looked.findIndex((s, n) => n > opened && s.prove === 'loading')
    const guided = looked.findIndex((s) => (s.fit ?? s.renew) === 'disc-guide')
    expect(looked[opened]?.slot).toBe('look-pressure')
    expect(opened).toBeGreaterThan(0)
    expect(proved).toBeGreaterThan(opened)
    expect(guided).toBeGreaterThan(proved)
    // By the marks alone nothing is connected.
    const marked = way('dome-regulator', 'gas', { 'stroke-proof': 'marks' })
    expect(marked.filter((s) => s.reopen === 'loading-supply')).toHaveLength(1)
  })
  it('a bypass with one check is bled and shut at its two cocks', () => {
    const cocks = (variant: string) =>
      way('double-check-detector', variant).flatMap((s) =>
        [...(s.vent ?? []), ...(s.shut ?? [])].filter((v) => v.startsWith('bypass-cock')),
      )
    expect(new Set(cocks('one-check'))).toEqual(new Set(['bypass-cock-2', 'bypass-cock-3']))
    expect(new Set(cocks('two-checks')).size).toBe(3)
    const worn = way('double-check-detector', 'two-checks', { 'socket-1': 'renew' })
    expect(worn.flatMap((s) => s.renew ?? [])).toContain('socket-1')
  })
  it('a breaker is opened where its reading points, and no further', () => {
    const taken = (shows: string) =>
      way('vacuum-breaker', 'pvb', { shows }).flatMap((s) => s.remove ?? [])
    expect(taken('air-inlet')).not.toContain('check-retainer')
    expect(taken('check')).toContain('check-retainer')
  })
  it('a seats-only job leaves the stroke alone', () => {
    const sets = (findings: Record<string, string>, jobs: string[] = []) =>
      way('dome-regulator', 'gas', findings, jobs).some((s) => s.set === 'stroke')
    expect(sets({})).toBe(false)
    for (const job of ['diaphragm', 'stem']) expect(sets({}, [job])).toBe(true)
    // A pin that has turned, or is bent, widens the work to it.
    expect(sets({ 'pin-turned': 'turned' })).toBe(true)
    expect(sets({ 'disc-pin': 'renew' })).toBe(true)
  })
  it('dry rings that are plump are lubricated, not renewed', () => {
    const steps = way('cycling-valve', 'usual', { 'spool-rings': 'clean' })
    // The retainer was off: its seal is new; no ring of spool or sleeve is.
    expect(steps.flatMap((s) => s.renew ?? [])).toEqual(['retainer-seal'])
    expect(says(steps)).toMatch(/Lubricant on all rings.*never in a port/)
  })
  it('a water reducer is no gas job: no word of gas, no gas licence', () => {
    const water = says(way('spring-regulator', 'water'))
    expect(water).not.toMatch(/qualified|explode|purge|ignition/)
    expect(water).toMatch(/Bleed the air/)
    const gates = way('spring-regulator', 'gas').map((s) => s.gate)
    expect(gates).toContain('qualified')
  })
  it('the normally open valve has no O-ring on its stem', () => {
    expect(says(way('high-pressure-water-valve', 'normally-open'))).not.toMatch(/Stem O-ring off/)
  })
  it('a bonded seal is renewed with its cylinder', () => {
    const renewed = way('nose-seal-coupler', 'bonded').flatMap((s) => (s.renew ? [s.renew] : []))
    expect(renewed).toContain('seal-cylinder')
    expect(renewed).not.toContain('nose-seal')
  })
})

describe('an answer that leads to another guide', () => {
  const leading = shippedGuides.flatMap((g) =>
    expandGuide(g, shippedSubGuides).steps.flatMap((s, n, all) =>
      s.leadsTo ? [[g.id, s.leadsTo, s.at, all[n - 1]?.at] as const] : [],
    ),
  )
  it('is there in the guides that share their equipment with another', () => {
    expect(leading.length).toBeGreaterThanOrEqual(4)
  })
  it.each(leading)(
    '%s leads to %s, for the same equipment, before anything is opened',
    (from, to, at, before) => {
      const other = guide(to)
      const families = (g: Guide) => [g.family, ...(g.alsoFor ?? [])]
      expect(families(other).some((f) => families(guide(from)).includes(f))).toBe(true)
      // What the readings point to is asked before the first valve is turned.
      if (at === 'make-safe') expect(before).not.toBe('make-safe')
      else expect(['prepare', 'arrive', 'as-found']).toContain(at)
    },
  )
})
