export { cycleIn } from './cycleIn'
export { spread } from './spread'
