export * from './actions'
export * from './crossCheck'
export * from './expand'
export * from './types'
