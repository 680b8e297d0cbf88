export type { PrescribedTest } from './blocked'
export * from './decision'
export { headCorrection } from './head'
export { judgeTest } from './judge'
export {
  type DecisionRule,
  decisionRules,
  type PackItem,
  type PackTest,
  type Requirement,
  requirements,
  type RulePack,
  rulePackSchema,
} from './pack'
export { rulePackFaults } from './packFaults'
export { type Bounds, type Doubt, impossible } from './plausible'
export * from './types'
export * from './uncertainty'
