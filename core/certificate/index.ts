export * from './number'
export * from './payload'
