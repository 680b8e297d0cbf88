export * from './analyse'
export * from './codec'
export * from './pick'
export * from './types'
