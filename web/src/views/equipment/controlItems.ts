import { type Equipment, nominalsOf, type VisitSummary } from '@uvanta/contract'
import type { Library } from '@uvanta/core/library'
import { convertValue, type Dimension } from '@uvanta/core/quantity'
import { basisOf, type PackItem, type TestRun } from '@uvanta/core/rules'

/** One item of the equipment’s tests over the years, in one unit. */
export interface ControlItem {
  readonly id: string
  readonly title: string
  readonly dimension: Dimension
  readonly unit: string
  readonly low?: number | undefined
  readonly high?: number | undefined
  /** Oldest first. */
  readonly tests: readonly {
    readonly date: string
    readonly asFound?: number | undefined
    readonly asLeft?: number | undefined
  }[]
}

/** Every item that was read and has limits, in the order of the pack; what decides comes first. */
export function controlItems(
  library: Library,
  equipment: Equipment,
  history: readonly VisitSummary[],
): ControlItem[] {
  const oldestFirst = [...history].reverse()
  const packItems = library.rulePacks
    .flatMap((p) => p.tests)
    .filter((t) => t.kind === equipment.kind)
    .flatMap((t) => t.items)
  const first = packItems.filter((i, n) => packItems.findIndex((k) => k.id === i.id) === n)
  const drawn = first.flatMap((item) => itemOf(item, equipment, oldestFirst) ?? [])
  const decides = (i: ControlItem) => first.find((k) => k.id === i.id)?.requirement === 'required'
  return [...drawn.filter(decides), ...drawn.filter((i) => !decides(i))]
}

function itemOf(
  item: PackItem,
  equipment: Equipment,
  oldestFirst: readonly VisitSummary[],
): ControlItem | null {
  if (item.basis === 'answer' || !basisOf(item).recorded || item.basis === 'creep') return null
  const all = oldestFirst.flatMap((v) => v.readings.filter((r) => r.item === item.id))
  const last = all.at(-1)
  if (!last) return null
  const dimension = last.dimension as Dimension
  const { unit } = last
  const nominals: TestRun['nominals'] = Object.fromEntries(
    nominalsOf(equipment).map((n) => [n.name, n.value]),
  )
  const ends = basisOf(item).ends(item, { readings: [], answers: [], order: [], nominals }, unit)
  if ('missing' in ends) return null
  const at = (visit: VisitSummary, run: string) => {
    const reading = visit.readings.find((r) => r.item === item.id && r.run === run)
    return reading && convertValue(dimension, Number(reading.value), reading.unit, unit)
  }
  return {
    id: item.id,
    title: item.title,
    dimension,
    unit,
    low: ends.low,
    high: ends.high,
    tests: oldestFirst.map((v) => ({
      date: v.plannedOn,
      asFound: at(v, 'as-found'),
      asLeft: at(v, 'as-left'),
    })),
  }
}
