import { type Library, testPlanOf } from '../library'
import { validOn } from '../programme'
import { valueToSi } from '../quantity'
import { judgeTest, type Judgement, type TestRun } from '../verdict'
import type { RunName } from './events'
import type { RunState, VisitState } from './state'

/** The verdict of a run as far as it has come; null when it has not been started. */
export function verdictOf(state: VisitState, name: RunName, library: Library): Judgement | null {
  const run = state.runs[name]
  if (!run || !state.plan) return null
  const { pack, test } = testPlanOf(library, state.plan.packId, state.plan.equipment.kind)
  const repairedAt = name === 'as-left' ? state.repairs.at(-1)?.at : undefined
  return judgeTest(pack, test, testRunOf(run, repairedAt))
}

function testRunOf(run: RunState, notBefore: string | undefined): TestRun {
  const { gauge } = run.started
  const inCalibration = validOn(run.date, gauge.calibratedOn, gauge.calibrationUntil)
  return {
    readings: run.readings.map((r) => ({
      item: r.item,
      dimension: r.dimension,
      value: r.value,
      unit: r.unit,
      takenAt: r.at,
      ...(r.gaugeAbovePort
        ? {
            gaugeAbovePortM: valueToSi(
              'length',
              Number(r.gaugeAbovePort.value),
              r.gaugeAbovePort.unit,
            ),
          }
        : {}),
      ...(r.deviation === undefined ? {} : { deviation: r.deviation }),
    })),
    answers: run.answers,
    order: run.order,
    gauge: {
      percent: gauge.accuracyPercent,
      of: gauge.accuracyOf,
      span: gauge.span,
      unit: gauge.spanUnit,
    },
    ...(inCalibration
      ? {}
      : { gaugeRefusal: `gauge ${gauge.tag} was out of calibration on ${run.date}` }),
    ...(notBefore ? { notBefore } : {}),
  }
}

/** Titles of what the procedure records and the run does not have yet. */
export function missingItems(state: VisitState, name: RunName, library: Library): string[] {
  const run = state.runs[name]
  if (!run || !state.plan) return []
  const { procedure } = testPlanOf(library, state.plan.packId, state.plan.equipment.kind)
  return procedure.steps.flatMap((s) =>
    s.record && !run.order.includes(s.record.item) ? [s.record.title] : [],
  )
}

/**
 * The run on which the certificate rests: as-left once anything was opened, else as-found.
 * Null while that run is not finished.
 */
export function finalRun(state: VisitState): RunName | null {
  if (state.runs['as-left']?.finished) return 'as-left'
  const opened = state.repairs.length > 0 || state.skipped.length === 0
  return !opened && state.runs['as-found']?.finished ? 'as-found' : null
}
