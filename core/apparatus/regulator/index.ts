export * from './kinds'
export { regulators } from './layout'
export { type RegulatorSpec, regulatorNetwork } from './network'
export { RegulatorSite } from './site'
