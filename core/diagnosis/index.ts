export { foundOf } from './foundOf'
export { hasModel, hypothesesOf, type KnownSite, type Prediction, predictions } from './hypotheses'
export type { Found } from './likeness'
export { type Diagnosis, rank, type Suspect, type Suspicion } from './rank'
