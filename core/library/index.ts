export * from './lookup'
export * from './types'
