export * from './elements'
export { FluidError } from './fluidError'
export * from './medium'
export { FluidModel } from './model'
