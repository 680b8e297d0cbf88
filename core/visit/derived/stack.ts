import type { Library } from '../../library'
import { type AnyQuantity, convertValue, type Dimension } from '../../quantity'
import { basisOf, type PackItem, type TestRun } from '../../rules'
import type { RunName } from '../log/words'
import type { VisitState } from '../log/state'
import { planOfVisit } from './pinned'
import { nominalsOf } from './verdicts'

/** One pressure of a station on a common scale: between which ends it is accepted, what was found and left. */
export interface StackRow {
  readonly id: string
  readonly title: string
  readonly low?: number | undefined
  readonly high?: number | undefined
  readonly found?: number | undefined
  readonly left?: number | undefined
}

/** The pressures of a station in one unit, the highest protection first. */
export interface PressureStack {
  readonly unit: string
  readonly set: number
  readonly rows: readonly StackRow[]
  /** The outlet from no flow to the most that can be drawn. */
  readonly curve: readonly StackRow[]
}

/** From what protects down to what is set; the limit of the system stands above them. */
const ROWS = [
  'protection',
  'relief-start',
  'reseat',
  'trip-high',
  'monitor-lock-up',
  'take-over',
  'lock-up',
  'set',
  'load',
  'trip-low',
] as const
/** From no flow to the load. */
const CURVE = ['lock-up', 'set', 'half-load', 'load'] as const
const DIMENSION: Dimension = 'gaugePressure'

/**
 * Set, lock-up, relief and limit of a regulator on one scale, in the unit of its set point.
 * @returns null for equipment without a set point, or whose pack does not judge it
 */
export function stackOf(state: VisitState, library: Library, name: RunName): PressureStack | null {
  const plan = planOfVisit(state, library, name)
  const nominals = nominalsOf(state)
  const set = nominals['set-point']
  if (!plan || !set) return null
  const { unit } = set
  const rowsOf = (ids: readonly string[]) =>
    ids.flatMap((id) => {
      const item = plan.test.items.find((i) => i.id === id)
      return item ? [rowOf(item, state, nominals, unit)] : []
    })
  const rows = rowsOf(ROWS)
  return rows.length > 0 ? { unit, set: Number(set.value), rows, curve: rowsOf(CURVE) } : null
}

function rowOf(
  item: PackItem,
  state: VisitState,
  nominals: Readonly<Record<string, AnyQuantity>>,
  unit: string,
): StackRow {
  const read = (run: RunName, of = item.id) => {
    const reading = state.runs[run]?.readings.findLast((r) => r.item === of)
    return reading?.dimension === DIMENSION
      ? convertValue(DIMENSION, Number(reading.value), reading.unit, unit)
      : undefined
  }
  const ends = endsOf(item, { readings: readingsOf(state), answers: [], order: [], nominals }, unit)
  const { id, title } = item
  return { id, title, ...ends, found: read('as-found'), left: read('as-left') }
}

const readingsOf = (state: VisitState): TestRun['readings'] =>
  (state.runs['as-left'] ?? state.runs['as-found'])?.readings.map(
    ({ item, dimension, value, unit }) => ({ item, dimension, value, unit }),
  ) ?? []

function endsOf(item: PackItem, run: TestRun, unit: string) {
  if (item.basis === 'answer') return {}
  const ends = basisOf(item).ends(item, run, unit)
  return 'missing' in ends ? {} : { low: ends.low, high: ends.high }
}
