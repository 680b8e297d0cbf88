import type { Library } from '../../library'
import { fromSi, toSi, valueToSi } from '../../quantity'
import { CannotCompute } from '../../errors'
import { judgeStroke, type StrokeJudgement, type StrokePoint } from '../../stroke'
import type { VisitState } from '../log/state'
import type { RunName } from '../log/words'
import { planOfVisit } from './pinned'

/** A stroke as far as it has been read: signal and travel, and how it is judged. */
export interface StrokeOfRun {
  /** ± percent of span. */
  readonly tolerance: number
  readonly points: readonly StrokePoint[]
  /** Null while there is nothing to judge. */
  readonly judged: StrokeJudgement | null
}

const percent = (q: Parameters<typeof toSi>[0]) => fromSi('fraction', toSi(q), '%')

/** The stroke test of a run; null for a procedure that strokes nothing. */
export function strokeOfRun(
  state: VisitState,
  library: Library,
  name: RunName,
): StrokeOfRun | null {
  const plan = planOfVisit(state, library, name)
  const curve = plan?.test.items.find((i) => i.basis === 'curve')
  if (!plan || curve?.basis !== 'curve') return null
  const onCurve = new Set(curve.points.map((p) => p.item))
  const points: StrokePoint[] = []
  let before = -Infinity
  for (const { apply, record } of plan.procedure.steps) {
    // What is read again for its repeatability is no further point of the curve.
    if (apply?.to.dimension !== 'fraction' || !record || !onCurve.has(record.item)) continue
    const signal = percent(apply.to)
    // The top is read twice: the second time it is the first point of the way down.
    const way = signal > before ? 'up' : 'down'
    before = signal
    const read = state.runs[name]?.readings.findLast((r) => r.item === record.item)
    if (!read || read.dimension !== 'fraction') continue
    const travel = fromSi('fraction', valueToSi('fraction', Number(read.value), read.unit), '%')
    points.push({ way, signal, travel })
  }
  return {
    tolerance: percent(curve.atMost),
    points,
    judged: judgedOf(points, percent(curve.atMost)),
  }
}

function judgedOf(points: readonly StrokePoint[], tolerance: number): StrokeJudgement | null {
  if (points.length === 0) return null
  try {
    return judgeStroke({ points, action: 'direct', tolerance })
  } catch (error) {
    if (error instanceof CannotCompute) return null
    throw error
  }
}
