export {
  type Facing,
  facings,
  type GuidePart,
  type GuideZone,
  type PartShape,
  partShapes,
} from './schema/equipment'
export { differenceOnce, expandGuide, type PlacedStep } from './schema/expand'
export { fastenerPlan } from './run/fastenerPlan'
export { movesOf, type StepMove } from './schema/moves'
export type { Fault } from './prove/rule'
export { proveGuide, type Proof } from './prove/prove'
export {
  type Advice,
  isFouling,
  mendedBy,
  renewalAdvice,
  renewalPolicies,
  type RenewalPolicy,
} from './run/renewal'
export {
  type GuideRun,
  guideRun,
  type KitLine,
  nextStep,
  passedOver,
  relaxingOf,
  slotsOf,
  type StepDone,
  stepWords,
  type TrayPart,
} from './run/run'
export {
  type GuideStation,
  guideStations,
  type GuideStep,
  type InspectionVerdict,
  seatChecks,
  stepSchema,
  type Turn,
  type Verb,
  verbOf,
} from './schema/step'
export {
  type Guide,
  guideSchema,
  type GuideText,
  serves,
  type SubGuide,
  subGuideSchema,
  variantOf,
} from './schema/guide'
export { type StoredEnergy, storedEnergy } from './run/storedEnergy'
