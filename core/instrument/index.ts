export * from './protocol'
export * from './response'
export * from './shown'
