export { machines } from './machines'
export { MachineSite } from './site'
export { works } from './works'
