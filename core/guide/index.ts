export {
  type Facing,
  facings,
  type GuidePart,
  type GuideZone,
  type PartShape,
  partShapes,
} from './equipment'
export { differenceOnce, expandGuide, type PlacedStep } from './expand'
export { fastenerPlan } from './fastenerPlan'
export { movesOf, type StepMove } from './moves'
export { type Fault, proveGuide, type Proof } from './prove'
export {
  type Advice,
  isFouling,
  mendedBy,
  renewalAdvice,
  renewalPolicies,
  type RenewalPolicy,
} from './renewal'
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
} from './run'
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
} from './step'
export {
  type Guide,
  guideSchema,
  type GuideText,
  serves,
  type SubGuide,
  subGuideSchema,
  variantOf,
} from './types'
