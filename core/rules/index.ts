export type { PrescribedTest } from './blocked'
export * from './decision'
export { headCorrection } from './head'
export { judgeTest } from './judge'
export { bases, type BasisName, type PackItem } from './basis'
export { type Requirement, requirements } from './basis/fields'
export { channelFor } from './channel'
export { isNominal, nominalNames, type NominalName } from './nominal'
export {
  type DecisionRule,
  decisionRules,
  type PackTest,
  type RulePack,
  rulePackSchema,
} from './pack'
export { rulePackFaults } from './packFaults'
export { type Bounds, type Doubt, impossible } from './plausible'
export * from './types'
export * from './uncertainty'
