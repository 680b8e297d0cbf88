export { type AssemblySpec, assemblyNetwork } from './build'
export * from './kinds'
export { backflow, kitValves, type KitValve, layoutOf } from './layout'
export * from './site'
