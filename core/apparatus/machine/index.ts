export { machines } from './machines'
