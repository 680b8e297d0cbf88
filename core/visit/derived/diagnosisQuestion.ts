import { nominalsInSi } from '../../apparatus'
import { type Found, foundOf, hasModel, type KnownSite } from '../../diagnosis'
import type { Library } from '../../library'
import type { Procedure } from '../../procedure'
import { toSi, valueToSi } from '../../quantity'
import type { VisitState } from '../log/state'
import type { RunName } from '../log/words'
import { planOfVisit } from './pinned'
import { verdictOf } from './verdicts'
import { passes } from '../../rules'

/** What is asked of the model after a test: what may be wrong with it. */
export interface DiagnosisQuestion {
  readonly procedure: Procedure
  readonly site: KnownSite
  readonly found: Found
}

/** Pressure of a street main, where nobody has noted any, kPa. */
const STREET_KPA = 450
/** An inlet stands under its highest pressure most of the time. */
const USUAL_PART = 0.75

/** What a run that did not pass asks of the model; null for any other, and for a kind without a model. */
export function diagnosisQuestion(
  state: VisitState,
  library: Library,
  name: RunName,
): DiagnosisQuestion | null {
  const run = state.runs[name]
  const equipment = state.plan?.equipment
  const plan = planOfVisit(state, library, name)
  if (!run?.finished || !equipment || !plan || !hasModel(equipment.kind)) return null
  const verdict = verdictOf(state, name, library)
  if (passes(verdict?.outcome)) return null
  const nominals = nominalsInSi(equipment.nominals ?? [])
  const { linePressure } = run.started
  const above = run.readings.findLast((r) => r.gaugeAbovePort)?.gaugeAbovePort
  const highest = nominals['inlet-maximum']
  return {
    procedure: plan.procedure,
    site: {
      kind: equipment.kind,
      sizeIn: Number(equipment.sizeIn),
      nominals,
      supplyKpa: linePressure
        ? toSi(linePressure)
        : (nominals.supply ?? (highest === undefined ? STREET_KPA : highest * USUAL_PART)),
      ...(above ? { gaugeAbovePortM: valueToSi('length', Number(above.value), above.unit) } : {}),
    },
    found: foundOf(run, verdict?.items ?? []),
  }
}
