export { type Facing, facings, type GuidePart, type PartShape, partShapes } from './equipment'
export { expandGuide, type PlacedStep } from './expand'
export { movesOf, type StepMove } from './moves'
export { type Fault, proveGuide, type Proof } from './prove'
export {
  type Advice,
  isFouling,
  renewalAdvice,
  renewalPolicies,
  type RenewalPolicy,
} from './renewal'
export {
  type GuideRun,
  guideRun,
  type KitLine,
  nextStep,
  relaxingOf,
  slotsOf,
  type StepDone,
  stepWords,
  type TrayPart,
} from './run'
export {
  type Guide,
  guideSchema,
  type GuideStation,
  guideStations,
  type GuideStep,
  type GuideText,
  type InspectionVerdict,
  serves,
  stepSchema,
  type SubGuide,
  subGuideSchema,
  type Verb,
  verbOf,
} from './types'
