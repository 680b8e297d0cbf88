export { type Drift, drift, type DriftTest } from './drift'
