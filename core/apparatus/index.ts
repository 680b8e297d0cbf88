export { type Opening, openingParts, openings } from './openings'
