export * from './corrections'
export * from './number'
export * from './payload'
export { workOn } from './serviceRecord'
