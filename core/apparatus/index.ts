export { type Opening, openingParts, openings } from './openings'
export { apparatusKinds, apparatusOf } from './registry'
export {
  type Apparatus,
  type Element,
  elementLabel,
  movableElements,
  lineOf,
  onLine,
  type Place,
  portsOf,
  restOpening,
  restOpeningOf,
  type Role,
} from './types'
