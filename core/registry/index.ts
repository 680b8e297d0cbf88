import { analyseTrace } from './analyseTrace'
import { benchSet } from './benchSet'
import { boltPattern } from './boltPattern'
import { cavitation } from './cavitation'
import { compressionSetOf } from './compressionSetOf'
import { CannotCompute } from '../errors'
import type { Computation } from './computation'
import { convertQuantity } from './convertQuantity'
import { decayLeak } from './decayLeak'
import { judgeBackflowTest, judgeCheckValve, judgeRegulatorRun } from './judgeField'
import { diagnoseTest } from './diagnoseTest'
import { driftOf } from './driftOf'
import { droop } from './droop'
import { dueDate } from './dueDate'
import { judgeStrokeTest } from './judgeStrokeTest'
import { isolationPlan, zones } from './isolation'
import { lubricantAdvice } from './lubricantAdvice'
import { glandFit, identifyOring } from './orings'
import { neededCv } from './neededCv'
import { overpressureLimit } from './overpressureLimit'
import { proveGuide } from './proveGuide'
import { reliefCapacity } from './reliefCapacity'
import { seatLeakage } from './seatLeakage'
import { simulateAssembly } from './simulateAssembly'
import { sizeGasFlow } from './sizeGasFlow'
import { sizeWaterFlow } from './sizeWaterFlow'
import { throwSymmetry } from './throwSymmetry'
import { torqueSetting } from './torqueSetting'

export { compute, type Computation } from './computation'

/** Everything that can be computed, by name. */
export const computations: readonly Computation[] = [
  analyseTrace,
  benchSet,
  boltPattern,
  cavitation,
  compressionSetOf,
  convertQuantity,
  decayLeak,
  diagnoseTest,
  driftOf,
  droop,
  dueDate,
  glandFit,
  identifyOring,
  isolationPlan,
  judgeBackflowTest,
  judgeCheckValve,
  judgeRegulatorRun,
  judgeStrokeTest,
  lubricantAdvice,
  neededCv,
  overpressureLimit,
  proveGuide,
  reliefCapacity,
  seatLeakage,
  simulateAssembly,
  sizeGasFlow,
  sizeWaterFlow,
  throwSymmetry,
  torqueSetting,
  zones,
]

/** @throws CannotCompute naming what there is */
export function computationNamed(name: string): Computation {
  const found = computations.find((c) => c.name === name)
  if (!found) {
    throw new CannotCompute(
      'computation-unknown',
      `There is no computation “${name.slice(0, 60)}”.`,
      `Choose one of ${computations.map((c) => c.name).join(', ')}.`,
    )
  }
  return found
}
