export { pointsTo } from './pointsTo'
export { type FoundSymptom, symptomFinder } from './symptomFinder'
