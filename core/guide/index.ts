export { expandGuide, type PlacedStep } from './expand'
export { type Fault, proveGuide, type Proof } from './prove'
export {
  type GuideRun,
  guideRun,
  type KitLine,
  nextStep,
  slotsOf,
  type StepDone,
  stepWords,
  type TrayPart,
} from './run'
export {
  type Guide,
  type GuidePart,
  guideSchema,
  type GuideStation,
  guideStations,
  type GuideStep,
  type InspectionVerdict,
  type SubGuide,
  subGuideSchema,
  type Verb,
  verbOf,
} from './types'
