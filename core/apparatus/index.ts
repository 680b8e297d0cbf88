export * from './condition'
export {
  isNominal,
  type Nominal,
  nominalDimension,
  nominalNames,
  type NominalName,
} from './nominal'
export { DRIP_KG_S, type Seen, type Settings, type SiteSpec, type TestSite } from './site'
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
