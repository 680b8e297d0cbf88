export * from './condition'
export * from './faults'
export { type Role, SPRUNG } from './role'
export {
  isNominal,
  type Nominal,
  nominalDimension,
  nominalFault,
  nominalNames,
  nominalsInSi,
  type NominalName,
} from './nominal'
export { DRIP_KG_S, type Seen, type Settings, type SiteSpec, type TestSite } from './site'
export { type Opening, openingParts, openings } from './openings'
export { signalAt } from './signal'
export { apparatusKinds, apparatusOf } from './registry'
export {
  type Adjuster,
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
  type Source,
} from './types'
