export * from './corrections'
export * from './number'
export * from './payload'
