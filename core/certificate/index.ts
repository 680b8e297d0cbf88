export * from './corrections'
export {
  type KeyReading,
  keyReadings,
  type KeyValue,
  limitWords,
  linePressureWords,
} from './keyReadings'
export * from './meaning'
export * from './number'
export * from './payload'
export * from './typedCode'
export { workOn } from './serviceRecord'
