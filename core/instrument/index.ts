export * from './protocol'
export * from './response'
