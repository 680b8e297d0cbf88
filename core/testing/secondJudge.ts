/**
 * A second judge, for tests: written from the rules of the trade and of the pack files, and sharing nothing with the
 * judge under test, so that both are wrong in the same way only by chance. It says what no test may pass with; it
 * does not say how sure a verdict is.
 */
export interface Value {
  readonly value: string
  readonly unit: string
}
export interface RawItem {
  readonly id: string
  readonly basis: string
  readonly requirement: string
  readonly condition?: boolean
  readonly accept?: readonly string[]
  readonly invalidates?: readonly string[]
  readonly after?: readonly string[]
  readonly atLeast?: Value
  readonly atMost?: Value
  readonly above?: number
  readonly below?: number
  readonly aboveClass?: string
  readonly belowClass?: string
  readonly of?: string
  readonly percent?: number
  readonly from?: string
  readonly over?: Value
  readonly temperatures?: readonly string[]
  readonly reading?: string
  readonly since?: string
  readonly minuend?: string
  readonly subtrahend?: string
  readonly ascending?: readonly string[]
  readonly apart?: Value
  readonly andAtMost?: string
  readonly tiers?: readonly { from: Value; percent?: number; add?: Value }[]
  readonly points?: readonly { item: string; ideal: string }[]
  readonly pairs?: readonly (readonly [string, string])[]
  readonly inlet?: string
  readonly inletRead?: string
  readonly start?: string
  readonly fullAbove?: number
}
export interface RawTest {
  readonly kind: string
  readonly items: readonly RawItem[]
  readonly contradictions?: readonly { item: string; mayNotExceed: string; orEqual?: boolean }[]
}
export interface RawRun {
  readonly readings: readonly (Value & {
    readonly item: string
    /** When it was taken, s since anything. */
    readonly atS?: number
    readonly heldS?: number | undefined
    readonly driftPerMinute?: number | undefined
  })[]
  readonly answers: readonly { readonly item: string; readonly answer: string }[]
  readonly order: readonly string[]
  readonly nominals: Readonly<Record<string, Value>>
}

/** How much of kPa, s, m, of one and so on a unit is; temperatures are read in K by themselves. */
const FACTOR: Readonly<Record<string, number>> = {
  psi: 6.894757293168,
  kPa: 1,
  bar: 100,
  mbar: 0.1,
  inH2O: 0.24908891,
  '%': 0.01,
  '1': 1,
  s: 1,
  min: 60,
  ms: 0.001,
  '/min': 1 / 60,
  '/s': 1,
  mm: 0.001,
  in: 0.0254,
  mL: 1e-6,
  L: 1e-3,
  Cv: 1,
  'N·m': 1,
  'lbf·in': 0.1129848290276167,
}
const si = ({ value, unit }: Value): number => {
  if (unit === '°C') return Number(value) + 273.15
  const factor = FACTOR[unit]
  if (factor === undefined) throw new Error(`the second judge does not know the unit ${unit}`)
  return Number(value) * factor
}
/** What rounding in another order of arithmetic may make of two equal numbers. */
const SAME = 1e-9
const over = (a: number, b: number) => a > b + SAME * Math.max(1, Math.abs(b))

/** The worst class that equipment can be sold in, by class. */
const WORST_CLASS: Readonly<Record<string, number>> = {
  'accuracy-class': 0.3,
  'lock-up-class': 0.5,
}
const COUNTED_IN = ['°C', '%']

/** Says why a test may not pass; empty where nothing stands against it. */
export function reasonsAgainst(test: RawTest, run: RawRun): string[] {
  const reading = (id: string) => run.readings.findLast((r) => r.item === id)
  const answer = (id: string) => run.answers.findLast((a) => a.item === id)?.answer
  const at = (id: string | undefined) => {
    const r = id === undefined ? undefined : (reading(id) ?? run.nominals[id])
    return r ? si(r) : undefined
  }
  /** What a limit is a part of: the plate of the equipment before a reading of the same name. */
  const baseAt = (name = '') => {
    const base = run.nominals[name] ?? reading(name)
    return base ? si(base) : undefined
  }
  const against: string[] = []
  const meaningless = new Set<string>()
  for (const item of test.items) {
    const out =
      item.basis === 'answer'
        ? !item.accept?.includes(answer(item.id) ?? '')
        : item.condition === true && (!reading(item.id) || isOutside(item))
    if (item.invalidates && out) for (const id of item.invalidates) meaningless.add(id)
  }
  for (const c of test.contradictions ?? []) {
    const [a, b] = [at(c.item), at(c.mayNotExceed)]
    if (a === undefined || b === undefined) continue
    if (over(a, b) || (c.orEqual && !over(b, a))) {
      meaningless.add(c.item)
      meaningless.add(c.mayNotExceed)
    }
  }
  for (const item of test.items) {
    if (item.requirement !== 'required') continue
    const say = (why: string) => against.push(`${item.id}: ${why}`)
    const seenToFail =
      item.basis === 'answer' &&
      answer(item.id) !== undefined &&
      !item.accept?.includes(answer(item.id) ?? '')
    if (meaningless.has(item.id) || restsOn(item).some((id) => meaningless.has(id)))
      say('it has no meaning')
    for (const id of [item.id, ...restsOn(item)]) {
      const r = reading(id)
      if (r && impossible(r)) say(`${id} reads ${r.value} ${r.unit}`)
    }
    for (const before of item.after ?? []) {
      const [first, then] = [run.order.lastIndexOf(before), run.order.lastIndexOf(item.id)]
      if (first > then && then >= 0) say(`it was taken before ${before}`)
    }
    if (seenToFail) say('it was seen to fail')
    const why = missed(item)
    if (why) say(why)
  }
  return against

  function impossible(r: Value): boolean {
    const n = Number(r.value)
    if (r.unit === '%') return n < -25 || n > 150
    return (n < 0 && !COUNTED_IN.includes(r.unit)) || (n === 0 && ['s', 'min'].includes(r.unit))
  }

  /** What a worked-out item is worked out of. */
  function restsOn(i: RawItem): string[] {
    return [
      i.basis === 'creep' ? i.from : undefined,
      i.reading,
      i.since,
      i.minuend,
      i.subtrahend,
      i.start,
      i.inletRead,
      ...(i.ascending ?? []),
      ...(i.points ?? []).map((p) => p.item),
      ...(i.pairs ?? []).flat(),
      ...(i.temperatures ?? []),
    ].flatMap((id) => id ?? [])
  }

  function classOf(name: string | undefined, percent: number | undefined): number | undefined {
    const given = name ? run.nominals[name] : undefined
    if (!given) return percent === undefined ? undefined : percent / 100
    const fraction = si(given)
    return fraction > (WORST_CLASS[name ?? ''] ?? 1) ? Number.NaN : fraction
  }

  function isOutside(i: RawItem): boolean {
    return missed(i) !== null
  }

  function limitByTiers(i: RawItem): number | undefined {
    const of = baseAt(i.of)
    if (of === undefined) return undefined
    const tier = [...(i.tiers ?? [])]
      .sort((a, b) => si(b.from) - si(a.from))
      .find((t) => of >= si(t.from) - SAME)
    if (!tier) return undefined
    const high = tier.add ? of + si(tier.add) : of * (1 + (tier.percent ?? 0) / 100)
    const also = i.andAtMost ? baseAt(i.andAtMost) : undefined
    return also === undefined ? high : Math.min(high, also)
  }

  function missed(i: RawItem): string | null {
    switch (i.basis) {
      case 'answer':
        return answer(i.id) === undefined ? 'no answer' : null
      case 'limit': {
        const v = at(reading(i.id) ? i.id : undefined)
        if (v === undefined) return 'not read'
        if (i.atLeast && over(si(i.atLeast), v)) return 'under its limit'
        if (i.atMost && over(v, si(i.atMost))) return 'over its limit'
        return null
      }
      case 'difference': {
        const [a, b] = [at(i.minuend), at(i.subtrahend)]
        if (a === undefined || b === undefined) return 'not read'
        if (i.atLeast && over(si(i.atLeast), a - b)) return 'under its limit'
        if (i.atMost && over(a - b, si(i.atMost))) return 'over its limit'
        return null
      }
      case 'percent': {
        const [v, of] = [reading(i.id) ? at(i.id) : undefined, baseAt(i.of)]
        if (v === undefined || of === undefined) return 'not read, or nothing to hold it against'
        const [up, down] = [classOf(i.aboveClass, i.above), classOf(i.belowClass, i.below)]
        if (Number.isNaN(up) || Number.isNaN(down)) return 'no class is so wide'
        if (up !== undefined && over(v, of + Math.abs(of) * up)) return 'over its limit'
        if (down !== undefined && over(of - Math.abs(of) * down, v)) return 'under its limit'
        return null
      }
      case 'creep': {
        const [a, b, of] = [at(i.from), reading(i.id) ? at(i.id) : undefined, baseAt(i.of)]
        if (a === undefined || b === undefined || of === undefined) return 'not read'
        const held = heldS(i.from ?? '', i.id)
        if (held === undefined || held + 1 < si(i.over ?? { value: '0', unit: 's' }))
          return 'not held long enough'
        const [t1, t2] = [at(i.temperatures?.[0]), at(i.temperatures?.[1])]
        if (i.temperatures && (t1 === undefined || t2 === undefined)) return 'no temperature'
        const end = t1 && t2 ? ((b + 101.325) * t1) / t2 - 101.325 : b
        return over(Math.abs(end - a), (Math.abs(of) * (i.percent ?? 0)) / 100) ? 'it moved' : null
      }
      case 'rate': {
        const last = reading(i.reading ?? i.id)
        const [a, b, of] = [at(i.since), at(i.reading ?? i.id), baseAt(i.of)]
        if (!last || a === undefined || b === undefined) return 'not read'
        const limit = i.atMost ? si(i.atMost) : (Math.abs(of ?? 0) * (i.percent ?? 0)) / 100
        const held = heldS(i.since ?? '', i.reading ?? i.id)
        if (held === undefined || held <= 0) return 'not held'
        return over(Math.abs(b - a) / (held / 60), limit) ? 'it still moves' : null
      }
      case 'order': {
        const values = (i.ascending ?? []).map((id) => at(id))
        if (values.includes(undefined)) return 'not read'
        const apart = i.apart ? si(i.apart) : 0
        return values.some((v, n) => n > 0 && over((values[n - 1] ?? 0) + apart, v ?? 0))
          ? 'out of order'
          : null
      }
      case 'tiers': {
        const [v, high] = [at(i.reading), limitByTiers(i)]
        if (v === undefined || high === undefined) return 'not read, or no limit'
        return over(v, high) ? 'over its limit' : null
      }
      case 'capacity':
        return relievesEnough(i) ? null : 'the relief does not pass enough'
      case 'curve': {
        const off = (i.points ?? []).map((p) => {
          const v = at(p.item)
          return v === undefined ? Infinity : Math.abs(v - Number(p.ideal) / 100)
        })
        return over(Math.max(...off), si(i.atMost ?? { value: '0', unit: '%' })) ? 'off' : null
      }
      case 'spread': {
        const off = (i.pairs ?? []).map(([a, b]) => Math.abs((at(a) ?? Infinity) - (at(b) ?? 0)))
        return over(Math.max(...off), si(i.atMost ?? { value: '0', unit: '%' })) ? 'apart' : null
      }
      case 'swing':
      case 'band':
        return null
      default:
        throw new Error(`the second judge does not know the basis ${i.basis}`)
    }
  }

  /** By the stamps, of which nobody’s word makes more. */
  function heldS(from: string, to: string): number | undefined {
    const [a, b] = [reading(from), reading(to)]
    if (a?.atS === undefined || b?.atS === undefined) return b?.heldS
    const stamped = b.atS - a.atS
    return b.heldS === undefined ? stamped : Math.min(stamped, b.heldS)
  }

  /** Whether the relief, at the limit of the system, passes what the failed regulator passes (IEC 60534-2-1). */
  function relievesEnough(i: RawItem): boolean {
    const cv = (of: string) => (run.nominals[of] ? si(run.nominals[of]) : undefined)
    const [regulator, relief, start] = [cv('regulator-cv'), cv('relief-cv'), at(i.start)]
    const limit = limitByTiers(i)
    const inlet = Math.max(baseAt(i.inlet) ?? Number.NaN, at(i.inletRead) ?? Number.NaN)
    if (regulator === undefined || relief === undefined || start === undefined) return false
    if (limit === undefined || Number.isNaN(inlet)) return false
    const flow = (c: number, p1: number, p2: number) => {
      const [up, down] = [p1 + 101.325, p2 + 101.325]
      if (down >= up) return 0
      const choked = (1.31 / 1.4) * 0.7
      const x = Math.min((up - down) / up, choked)
      return c * up * (1 - x / (3 * choked)) * Math.sqrt(x)
    }
    const full = start * (1 + (i.fullAbove ?? 0) / 100)
    const lift = Math.min(1, Math.max(0, (limit - start) / (full - start)))
    return !over(flow(regulator, inlet, limit), flow(relief * lift, limit, 0))
  }
}
