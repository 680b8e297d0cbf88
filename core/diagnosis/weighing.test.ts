import { describe, expect, it } from 'vitest'
import type { FaultKind } from '../apparatus'
import { answerOf, readingOf } from '../testing/readings'
import { chances } from './chances'
import { foundOf } from './foundOf'
import { grouped } from './grouped'
import type { Cause, Prediction } from './hypotheses'
import {
  ANSWER_ERRORS,
  badItems,
  expectedOf,
  type Found,
  halfway,
  likenessOf,
  showsBad,
  spreadsOf,
} from './likeness'
import { pairsOf } from './pairs'
import { rank } from './rank'
import { tellingOf } from './telling'
import { weigh } from './weigh'

/** What a made-up piece of equipment reads: by hand, so that every weight can be worked out. */
const made = (
  cause: Cause,
  degree: number,
  readings: Readonly<Record<string, number>>,
  answers: Readonly<Record<string, string>> = {},
): Prediction => ({
  cause,
  degree,
  test: {
    readings: Object.entries(readings).map(([item, kpa]) => kpaOf(item, kpa)),
    answers: Object.entries(answers).map(([item, answer]) => answerOf(item, answer)),
    order: [],
  },
})
const kpaOf = (item: string, kpa: number, swing?: number) =>
  readingOf(item, String(kpa), { unit: 'kPa', ...(swing === undefined ? {} : { swing }) })
const of = (element: string, fault: FaultKind): Cause => ({ element, fault })
const found = (
  readings: Readonly<Record<string, number>>,
  answers: Readonly<Record<string, string>> = {},
  failed: readonly string[] = [],
): Found => ({
  readings: Object.entries(readings).map(([item, kpa]) => kpaOf(item, kpa)),
  answers: Object.entries(answers).map(([item, answer]) => answerOf(item, answer)),
  failed,
})
const nothing = found({})
const weightsOf = (of: ReturnType<typeof weigh>) =>
  Object.fromEntries(of.causes.map((c) => [c.cause?.element ?? 'sound', c.weight]))
/** A reading this many spreads from what is expected, against one that is right on it. */
const likelihood = (off: number) => Math.exp((-off * off) / 2) + 0.002

describe('how far sound pieces are apart', () => {
  const at = (kpa: number) => expectedOf(made(null, 1, { a: kpa }))
  it('is half of what lies between them, and two percent of the largest reading besides', () => {
    expect(spreadsOf([at(47), at(50), at(53)], [at(47), at(200)])('a')).toBeCloseTo(
      Math.hypot(3, 4),
    )
  })
  it('leaves out pieces that do not read it', () => {
    const silent = expectedOf(made(null, 1, {}))
    expect(spreadsOf([at(47), silent, at(53)], [silent, at(200)])('a')).toBeCloseTo(5)
  })
  it('is two percent alone where one is known, and one where nothing is read', () => {
    expect(spreadsOf([at(50)], [at(-100)])('a')).toBeCloseTo(2)
    expect(spreadsOf([at(50)], [at(50)])('b')).toBe(1)
  })
  it('is that of the reading for its swing', () => {
    expect(spreadsOf([at(47), at(53)], [at(200)])('a swing')).toBeCloseTo(5)
  })
})

describe('how well a result agrees', () => {
  const expected = expectedOf(made(null, 1, { a: 50, b: 10 }, { seen: 'dry', shut: 'tight' }))
  const spread = () => 2
  const like = (of: Found, bad: readonly string[] = []) =>
    likenessOf(of, expected, spread, new Set(bad))
  it('goes by the normal law of each reading, and never to nothing', () => {
    expect(like(found({ a: 54 })).likelihood).toBeCloseTo(likelihood(2))
    expect(like(found({ a: 46, b: 12 })).likelihood).toBeCloseTo(likelihood(2) * likelihood(1))
    expect(like(found({ a: 500 })).likelihood).toBeCloseTo(0.002)
    expect(like(nothing)).toMatchObject({ likelihood: 1, agrees: true })
  })
  it('ends where a reading lies more than three spreads off', () => {
    expect(like(found({ a: 56 })).agrees).toBe(true)
    expect(like(found({ a: 56.1 })).agrees).toBe(false)
    expect(like(found({ a: 43.9 })).agrees).toBe(false)
  })
  it('gives an answer that differs the chance of a mistake: less where something is seen', () => {
    expect(like(found({}, { seen: 'dry' }))).toMatchObject({ likelihood: 1, agrees: true })
    const missed = like(found({}, { seen: 'drips' }))
    expect(missed.likelihood).toBeCloseTo(ANSWER_ERRORS.missed)
    expect(missed.agrees).toBe(false)
    expect(like(found({}, { seen: 'drips' }), ['seen']).likelihood).toBeCloseTo(
      ANSWER_ERRORS.seenByMistake,
    )
  })
  it('counts what is in order for less than what failed', () => {
    expect(like(found({ a: 54, b: 14 }), ['a']).likelihood).toBeCloseTo(
      likelihood(2) * likelihood(2) ** 0.7,
    )
    expect(like(found({}, { shut: 'leaked' }), ['a']).likelihood).toBeCloseTo(
      ANSWER_ERRORS.missed ** 0.7,
    )
  })
  it('says nothing of what either is silent about', () => {
    const strange = found({ other: 3 }, { unknown: 'x' })
    expect(like(strange)).toMatchObject({ likelihood: 1, agrees: true })
    expect(like(strange).byItem.size).toBe(0)
  })
  it('weighs the swing of a needle, which alone contradicts nothing', () => {
    const still = likenessOf(
      { readings: [kpaOf('a', 50, 17)], answers: [] },
      expectedOf({ test: { readings: [kpaOf('a', 50, 1)], answers: [], order: [] } }),
      spread,
      new Set(),
    )
    expect(still.byItem.get('a swing')).toBeCloseTo(likelihood(8))
    expect(still.agrees).toBe(true)
  })
})

describe('what is expected', () => {
  it('names every item, and reads in SI', () => {
    const expected = expectedOf(made(null, 1, { a: 50 }, { seen: 'dry' }))
    expect(expected.items).toEqual(['a', 'seen'])
    expect(expected.reading('a')).toBe(50)
    expect(expected.answer('seen')).toBe('dry')
    expect([expected.reading('seen'), expected.answer('a')]).toEqual([undefined, undefined])
  })
  it('lies halfway between two degrees where both read, and is seen as the worse of them', () => {
    const [slight, worse] = [
      made(null, 0.1, { a: 50 }, { s: 'dry' }),
      made(null, 1, { a: 20, b: 4 }, { s: 'wet' }),
    ]
    const between = halfway(expectedOf(slight), expectedOf(worse))
    expect(between.reading('a')).toBe(35)
    expect(between.reading('b')).toBe(4)
    expect(between.answer('s')).toBe('wet')
    expect(between.items).toEqual(['a', 'b', 's'])
    expect(halfway(expectedOf(worse), expectedOf(slight)).reading('b')).toBeUndefined()
  })
})

describe('what is out of order', () => {
  const sound = [expectedOf(made(null, 1, { a: 50 }, { seen: 'dry' }))]
  it('is what failed, and an answer that sound equipment does not give', () => {
    expect(badItems(found({}, { seen: 'drips' }, ['a']), sound)).toEqual(new Set(['a', 'seen']))
    expect(badItems(found({}, { seen: 'dry', unknown: 'x' }), sound)).toEqual(new Set())
    expect(badItems({ readings: [], answers: [answerOf('seen', 'drips')] }, [])).toEqual(new Set())
  })
  it('is shown by a fault that answers otherwise, or reads more than two spreads off', () => {
    const shows = (p: Prediction, item: string) => showsBad(expectedOf(p), item, sound, () => 2)
    expect(shows(made(null, 1, {}, { seen: 'drips' }), 'seen')).toBe(true)
    expect(shows(made(null, 1, {}, { seen: 'dry' }), 'seen')).toBe(false)
    expect(shows(made(null, 1, { a: 54 }), 'a')).toBe(false)
    expect(shows(made(null, 1, { a: 54.1 }), 'a')).toBe(true)
    expect(shows(made(null, 1, { a: 45.9 }), 'a')).toBe(true)
    expect(shows(made(null, 1, { b: 54.1 }), 'a')).toBe(false)
    const two = [...sound, expectedOf(made(null, 1.1, { a: 60 }, { seen: 'damp' }))]
    // As one of two sound pieces is, though not as the other.
    expect(showsBad(expectedOf(made(null, 1, {}, { seen: 'damp' })), 'seen', two, () => 2)).toBe(
      false,
    )
    expect(showsBad(expectedOf(made(null, 1, { a: 60 })), 'a', two, () => 2)).toBe(false)
    // Of what no sound piece reads nothing can be said.
    expect(shows(made(null, 1, { b: 900 }), 'b')).toBe(false)
  })
})

describe('weighing', () => {
  const sound = [0.9, 1, 1.1].map((degree) => made(null, degree, { a: Math.round(50 * degree) }))
  it('goes by Bayes’ rule: the chance of the fault times the mean of its degrees', () => {
    // Spread: half of 45 … 55 and two percent of 100.
    const spread = Math.hypot(5, 2)
    const predictions = [
      ...sound,
      made(of('check-1', 'fouled'), 0.2, { a: 100 }),
      made(of('check-1', 'fouled'), 0.8, { a: 20 }),
      made(of('relief', 'spring-weak'), 0.5, { a: 20 }),
    ]
    const seen = weigh(found({ a: 20 }, {}, ['a']), predictions)
    // Between the two degrees lies a third: 60.
    const fouled = (likelihood(80 / spread) + likelihood(0) + likelihood(40 / spread)) / 3
    const one = chances.fouled * fouled
    const other = chances['spring-weak'] * likelihood(0)
    expect(weightsOf(seen)).toMatchObject({ sound: 0 })
    expect(weightsOf(seen)['check-1']).toBeCloseTo(one / (one + other), 5)
    expect(weightsOf(seen).relief).toBeCloseTo(other / (one + other), 5)
    expect(seen.causes.map((c) => c.cause?.element)).toEqual(['check-1', 'relief', undefined])
    expect(seen.causes[0]?.agrees).toBe(true)
    expect(seen.causes[0]?.best.reading('a')).toBe(20)
    expect([...seen.bad]).toEqual(['a'])
    expect(seen.unexplained).toEqual([])
  })
  it('takes degrees in their order, whichever they come in', () => {
    const [slight, half, whole] = [0.2, 0.5, 0.9].map((degree) =>
      made(of('check-1', 'fouled'), degree, { a: Math.round(100 * degree) }),
    )
    const seen = weigh(found({ a: 70 }, {}, ['a']), [...sound, whole!, slight!, half!])
    // Halfway between 50 and 90; no two others lie about 70.
    expect(seen.causes[0]?.best.reading('a')).toBe(70)
    expect(seen.causes[0]?.likenesses.map(({ byItem }) => byItem.size)).toEqual([1, 1, 1, 1, 1])
  })
  it('finds an item explained that one degree shows', () => {
    const seen = weigh(found({ a: 50 }, {}, ['a']), [
      ...sound,
      made(of('check-1', 'fouled'), 0.1, { a: 50 }),
      made(of('check-1', 'fouled'), 1, { a: 500 }),
    ])
    expect(seen.unexplained).toEqual([])
  })
  it('goes by answers of sound equipment, wherever it stands in the list', () => {
    const seen = weigh(found({}, { seen: 'drips' }), [
      made(of('check-1', 'fouled'), 1, {}, { seen: 'drips' }),
      made(null, 1, {}, { seen: 'dry' }),
    ])
    expect([...seen.bad]).toEqual(['seen'])
    expect(weightsOf(seen)).toEqual({ sound: 0, 'check-1': 1 })
  })
  it('takes sound for as likely as all faults together, while nothing failed', () => {
    const seen = weigh(nothing, [...sound, made(of('check-1', 'fouled'), 1, { a: 20 })])
    expect(weightsOf(seen)).toEqual({ sound: 0.5, 'check-1': 0.5 })
  })
  it('does not take for sound what failed, and names what no fault shows', () => {
    const seen = weigh(found({ a: 50 }, {}, ['other']), [
      ...sound,
      made(of('check-1', 'fouled'), 1, { a: 20 }),
    ])
    expect(weightsOf(seen)).toEqual({ sound: 0, 'check-1': 1 })
    expect(seen.unexplained).toEqual(['other'])
  })
  it('keeps two faults of one part apart', () => {
    const seen = weigh(nothing, [
      made(of('check-1', 'fouled'), 1, {}),
      made(of('check-1', 'disc-cut'), 1, {}),
    ])
    expect(seen.causes.map((c) => [c.cause?.fault, c.weight])).toEqual([
      ['fouled', 0.75],
      ['disc-cut', 0.25],
    ])
  })
  it('of nothing comes to nothing', () => {
    expect(weigh(nothing, [])).toMatchObject({ causes: [], unexplained: [] })
  })
})

describe('the next check', () => {
  /** Four parts, of which one check tells two from two, another one from three, and a third nothing. */
  const four = weigh(
    nothing,
    ['wet', 'wet', 'dry', 'dry'].map((half, n) =>
      made(of(`part-${n}`, 'fouled'), 1, { c: n === 0 ? 10 : 90, same: 5 }, { half }),
    ),
  )
  const telling = (seen = nothing, causes = four.causes) => tellingOf(seen, causes, four.spread)
  it('is the one that leaves the least doubt, in bits', () => {
    // Two bits before; the half leaves one. One of four leaves log2 3 with a chance of 3/4.
    expect(telling().map((t) => t.item)).toEqual(['half', 'c'])
    expect(telling()[0]?.bits).toBeCloseTo(1)
    expect(telling()[1]?.bits).toBeCloseTo(2 - 0.75 * Math.log2(3))
  })
  it('says what each outcome would point to', () => {
    expect(telling()[0]?.outcomes).toEqual([
      { element: 'part-0', answer: 'wet' },
      { element: 'part-2', answer: 'dry' },
    ])
    expect(telling()[1]?.outcomes).toEqual([
      { element: 'part-0', si: 10 },
      { element: 'part-1', si: 90 },
    ])
  })
  it('is none that was made, and none that tells nothing', () => {
    expect(telling(found({ c: 10 }, { half: 'wet' }))).toEqual([])
    expect(telling(nothing, four.causes.slice(0, 1))).toEqual([])
  })
  it('has at most three outcomes told, no part for sound equipment', () => {
    const { causes, spread } = weigh(nothing, [
      made(null, 1, { c: 0 }),
      ...[30, 60, 90].map((c, n) => made(of(`part-${n}`, 'fouled'), 1, { c })),
    ])
    const [first] = tellingOf(nothing, causes, spread)
    expect(first?.outcomes.map((o) => o.element)).toEqual([null, 'part-0', 'part-1'])
  })
})

describe('two faults at once', () => {
  const sound = made(null, 1, { a: 50, b: 50, c: 50 })
  const one = made(of('check-1', 'fouled'), 1, { a: 10, b: 50, c: 50 })
  const other = made(of('relief', 'spring-weak'), 1, { a: 50, b: 10, c: 50 })
  const third = made(of('check-2', 'fouled'), 1, { a: 50, b: 50, c: 10 })
  const both = found({ a: 10, b: 10, c: 50 }, {}, ['a', 'b'])
  it('are those of which each explains what the other does not', () => {
    const { causes } = weigh(both, [sound, one, other, third])
    const { pairs, gain, shares } = pairsOf(causes)
    expect(pairs[0]?.elements.toSorted()).toEqual(['check-1', 'relief'])
    expect(pairs[0]?.chance).toBeGreaterThan(0.98)
    // Each of the two alone leaves one reading that is worth next to nothing; a pair is twenty times rarer.
    const alone = chances.fouled * likelihood(0) * 0.002 * likelihood(0) ** 0.7
    const together =
      (likelihood(0) *
        likelihood(0) *
        likelihood(0) ** 0.7 *
        chances.fouled *
        chances['spring-weak']) /
      10
    expect(gain).toBeCloseTo((together * 0.05) / alone, 3)
    const shareOf = (element: string) =>
      [...shares].find(([c]) => c.cause.element === element)?.[1] ?? 0
    expect(shareOf('check-1')).toBeGreaterThan(shareOf('check-2'))
    // Of one part and each of the others.
    expect(shareOf('check-1')).toBeCloseTo(
      (chances.fouled / 10) *
        (chances['spring-weak'] * likelihood(0) ** 2.7 +
          chances.fouled * likelihood(0) ** 2 * 0.002),
      3,
    )
  })
  it('come the likeliest first, without those that are not worth saying', () => {
    const scarce = made(of('shutoff-1', 'spring-broken'), 1, { a: 50, b: 10, c: 50 })
    const { pairs } = pairsOf(weigh(both, [sound, third, scarce, other, one]).causes)
    expect(pairs.map((p) => p.elements.toSorted().join(' '))).toEqual([
      'check-1 relief',
      'check-1 shutoff-1',
    ])
    // Both read alike: what is left is how often each fault is met.
    expect((pairs[0]?.chance ?? 0) / (pairs[1]?.chance ?? 1)).toBeCloseTo(
      chances['spring-weak'] / chances['spring-broken'],
    )
  })
  it('count at the degree at which they fit best', () => {
    const degrees = [0.1, 0.5, 1].map((degree, n) =>
      made(of('check-1', 'fouled'), degree, { a: [10, 200, 300][n] ?? 0, b: 50, c: 50 }),
    )
    const { gain } = pairsOf(weigh(both, [sound, ...degrees, other]).causes)
    expect(gain).toBeCloseTo(pairsOf(weigh(both, [sound, one, other]).causes).gain)
  })
  it('of one part with several faults share its chance by how well each fits', () => {
    const cut = made(of('check-1', 'disc-cut'), 1, { a: 10, b: 50, c: 50 })
    const { suspects } = rank('RP', both, [sound, cut, one, other])
    const check = suspects.find((s) => s.element === 'check-1')
    expect(check?.faults.map((f) => f.fault)).toEqual(['fouled', 'disc-cut'])
    expect((check?.faults[0]?.chance ?? 0) / (check?.faults[1]?.chance ?? 1)).toBeCloseTo(3)
    const all = check?.faults.reduce((sum, f) => sum + f.chance, 0)
    expect(all).toBeCloseTo(check?.chance ?? 0)
    expect(suspects[0]?.chance).toBeGreaterThanOrEqual(suspects[1]?.chance ?? 1)
  })
  it('make both parts suspects, and are said where no single fault explains the whole', () => {
    const diagnosis = rank('RP', both, [sound, one, other, third])
    expect(diagnosis).toMatchObject({ explained: false, sound: 0 })
    expect(diagnosis.pairs[0]?.labels).toHaveLength(2)
    expect(diagnosis.suspects.map((s) => s.element).toSorted()).toEqual(['check-1', 'relief'])
    expect(diagnosis.suspects[0]?.faults[0]?.chance).toBeGreaterThan(0.4)
    expect(diagnosis.suspects.reduce((sum, s) => sum + s.chance, 0)).toBeCloseTo(1, 1)
  })
  it('are no matter where one fault explains the whole, or one item alone failed', () => {
    expect(
      rank('RP', found({ a: 10, b: 50, c: 50 }, {}, ['a']), [sound, one, other]).pairs,
    ).toEqual([])
    expect(rank('RP', found({ a: 30, b: 50 }, {}, ['a']), [sound, one, other]).pairs).toEqual([])
  })
  it('there are none of one part', () => {
    const { pairs, gain } = pairsOf(weigh(both, [one]).causes)
    expect([pairs, gain]).toEqual([[], 0])
    expect(pairsOf([])).toMatchObject({ pairs: [], gain: Infinity })
  })
})

describe('ranking', () => {
  const sound = made(null, 1, { 'check-1': 50 }, { 'check-2': 'held' })
  const fouled = made(of('check-1', 'fouled'), 1, { 'check-1': 10 }, { 'check-2': 'held' })
  it('counts what was taken last', () => {
    const seen: Found = {
      readings: [kpaOf('check-1', 50), kpaOf('check-1', 10)],
      answers: [answerOf('check-2', 'leaked'), answerOf('check-2', 'held')],
      failed: ['check-1'],
    }
    const { suspects, explained } = rank('RP', seen, [sound, fouled])
    expect(explained).toBe(true)
    expect(suspects.map((s) => [s.element, s.chance])).toEqual([['check-1', 1]])
    expect(suspects[0]?.faults).toMatchObject([{ fault: 'fouled', chance: 1 }])
    expect(suspects[0]?.faults[0]?.look).not.toBe('')
  })
  it('leaves out what is hardly likely', () => {
    const faint = made(of('relief', 'stuck'), 1, { 'check-1': 500 }, { 'check-2': 'held' })
    const { suspects } = rank('RP', found({ 'check-1': 10 }, {}, ['check-1']), [
      sound,
      fouled,
      faint,
    ])
    expect(suspects.map((s) => s.element)).toEqual(['check-1'])
  })
  it('names every part where something failed that neither a fault nor a symptom shows', () => {
    const { suspects, sound: none } = rank('RP', found({ 'check-1': 50 }, {}, ['strange']), [
      sound,
      fouled,
    ])
    expect(none).toBe(0)
    // Seven tenths over all parts of the assembly, the rest by the model.
    const whole = suspects.reduce((sum, s) => sum + s.chance, 0)
    expect(whole).toBeCloseTo(1, 1)
    expect(suspects.length).toBeGreaterThan(3)
    const others = suspects.filter((s) => s.element !== 'check-1').map((s) => s.chance)
    expect(new Set(others).size).toBe(1)
    expect(suspects.find((s) => s.element === 'check-1')?.chance).toBeCloseTo(
      0.3 + (others[0] ?? 0),
    )
  })
  it('adds what the tables of symptoms point to, the first of them most, where no fault shows it', () => {
    const relief = made(of('relief', 'stuck'), 1, { 'check-1': 50.5 })
    const seen = found({ 'check-1': 50 }, {}, ['relief-at-rest'])
    const { suspects } = rank('RP', seen, [made(null, 1, { 'check-1': 50 }), relief])
    // The relief valve, then check 1 and check 2: each worth half of the one before.
    expect(suspects.map((s) => s.element)).toEqual(['relief', 'check-1', 'check-2'])
    expect(suspects.map((s) => s.chance)).toEqual([
      expect.closeTo(0.3 + (0.7 * 4) / 7),
      expect.closeTo((0.7 * 2) / 7),
      expect.closeTo((0.7 * 1) / 7),
    ])
    expect(suspects.map((s) => s.faults.length)).toEqual([1, 0, 0])
    expect(suspects.map((s) => s.label)).not.toContain('check-1')
  })
  it('counts symptoms for their part of what failed', () => {
    const seen = found({ 'check-1': 10 }, {}, ['relief-at-rest', 'check-1'])
    const { suspects } = rank('RP', seen, [sound, fouled])
    // One of two failed items is not shown by the fault that explains the other: 0.35 by symptoms.
    expect(suspects.find((s) => s.element === 'relief')?.chance).toBeCloseTo((0.35 * 4) / 7)
    expect(suspects.find((s) => s.element === 'check-1')?.chance).toBeCloseTo(0.65 + (0.35 * 2) / 7)
  })
  it('counts what each failed item points to where no fault explains the whole', () => {
    const near = made(of('check-1', 'fouled'), 1, { 'check-1': 25 }, { 'check-2': 'held' })
    const { explained, suspects } = rank('RP', found({ 'check-1': 10 }, {}, ['check-1']), [
      sound,
      near,
      made(of('relief', 'stuck'), 1, { 'check-1': 24 }, { 'check-2': 'held' }),
    ])
    expect(explained).toBe(false)
    // The model has both read too high, as likely as they are met (6 and 2); the table says check 1.
    expect(suspects.find((s) => s.element === 'relief')?.chance).toBeCloseTo(0.3 * 0.25, 1)
    expect(suspects.find((s) => s.element === 'check-1')?.chance).toBeCloseTo(0.7 + 0.3 * 0.75, 1)
  })
  it('puts parts in order, and within a part its faults, without the hardly likely ones', () => {
    const at = (element: string, fault: FaultKind, reads = 10) =>
      made(of(element, fault), 1, { 'check-1': reads }, { 'check-2': 'held' })
    const { suspects } = rank('RP', found({ 'check-1': 10 }, {}, ['check-1']), [
      sound,
      at('relief', 'dry'),
      at('check-1', 'spring-stiff'),
      at('check-1', 'disc-cut'),
      at('check-1', 'spring-weak'),
      at('check-2', 'stuck', 500),
      at('check-1', 'stuck', 500),
    ])
    expect(suspects.map((s) => [s.element, s.faults.map((f) => f.fault)])).toEqual([
      ['check-1', ['disc-cut', 'spring-weak', 'spring-stiff']],
      ['relief', ['dry']],
    ])
    expect(suspects.map((s) => s.chance)).toEqual([
      expect.closeTo(5 / 9, 1),
      expect.closeTo(4 / 9, 1),
    ])
  })
  it('of nothing known explains nothing', () => {
    expect(rank('RP', found({ a: 1 }, {}, ['a']), [])).toMatchObject({
      explained: false,
      sound: 0,
      next: [],
    })
  })
  it('says how likely sound is while nothing failed', () => {
    const { sound: chance, suspects, next } = rank('RP', nothing, [sound, fouled])
    expect(chance).toBe(0.5)
    expect(suspects[0]?.chance).toBe(0.5)
    expect(next.map((n) => n.item)).toEqual(['check-1'])
  })
})

describe('what a judged test tells', () => {
  const run = {
    readings: [kpaOf('a', 50, 2)],
    answers: [answerOf('b', 'leaked'), answerOf('c', 'held')],
  }
  const item = (id: string, more: object) => ({ id, ...more }) as never
  it('is what failed, its readings, and its answers with a meaning', () => {
    expect(
      foundOf(run, [
        item('a', { outcome: 'fail', simple: 'fail' }),
        item('b', { outcome: 'not-assessed', simple: 'fail', code: 'invalidated' }),
        item('c', { outcome: 'pass', simple: 'pass' }),
      ]),
    ).toEqual({
      failed: ['a'],
      readings: [{ item: 'a', dimension: 'differential', value: '50', unit: 'kPa', swing: 2 }],
      answers: [{ item: 'c', answer: 'held' }],
    })
  })
  it('has failed as printed where the gauge’s uncertainty alone is missing', () => {
    const only = (more: object) => foundOf(run, [item('a', more)]).failed
    expect(only({ outcome: 'not-assessed', simple: 'fail', code: 'gauge-unknown' })).toEqual(['a'])
    expect(only({ outcome: 'not-assessed', simple: 'pass', code: 'gauge-unknown' })).toEqual([])
    expect(only({ outcome: 'not-assessed', simple: 'fail', code: 'base-lost' })).toEqual([])
  })
})

it('a list is put in groups in its own order', () => {
  expect(grouped(['b1', 'a1', 'b2'], ([first]) => first ?? '')).toEqual([['b1', 'b2'], ['a1']])
})
