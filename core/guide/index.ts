export {
  type Facing,
  facings,
  type GuidePart,
  type GuideSlot,
  type GuideZone,
  type PartShape,
  partShapes,
} from './schema/equipment'
export { differenceOnce, expandGuide } from './schema/expand'
export { atHand } from './run/atHand'
export { handsTogether } from './run/byHand'
export { type Lubrication, lubricationOf } from './run/lubrication'
export { type CountOf, movedBy, piecesAt, piecesOfPart } from './run/pieces'
export { inForceAt, type PracticePoint, practiceAt, practiceAtLarge } from './run/practice'
export { type FastenerLayout, fastenerPlan } from './run/fastenerPlan'
export { movesOf, type StepMove } from './schema/moves'
export type { Fault } from './prove/rule'
export { proveOnMachine } from './prove/onMachine'
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
  endsWork,
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
  withBrought,
} from './run/run'
export {
  type GuideStep,
  lazyStep,
  type PlacedStep,
  placedStep,
  type PlacedVerb,
  type StepOf,
  stepJsonSchema,
  type Verb,
  verbs,
} from './schema/step'
export { standsFor } from './schema/equipment'
export { combinationsOf } from './prove/combinations'
export { type GuideStation, guideStations, seatChecks, type Turn } from './schema/stepCommon'
export type { InspectionVerdict } from './schema/verbs'
export {
  type Guide,
  guideSchema,
  type GuideText,
  serves,
  type SubGuide,
  subGuideSchema,
  guideAsBuilt,
  variantOf,
} from './schema/guide'
export { needsHands, type Standing, standingOf } from './run/standing'
export { type Slip, slipsAt } from './run/slips'
export { type StoredEnergy, storedEnergy } from './run/storedEnergy'
