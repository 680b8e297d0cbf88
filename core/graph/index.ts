export { spread } from './spread'
