export { barsLeft, buildsOf, partsOf } from './build'
export { machineFaults } from './faults'
export { BALLOON } from './layout/balloons'
export {
  type DrawnPart,
  layOut,
  numbersOf,
  type Sheet,
  type TakenOff,
  type View,
} from './layout/layout'
export { carriedBy, enteredBlind, liesOver, placeOf, waysOut } from './passage/passage'
export type { Point, Shape } from './layout/shapes'
export {
  type Machine,
  machineSchema,
  type MachinePart,
  type Material,
  materials,
  partKinds,
} from './schema'
