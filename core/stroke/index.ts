export { judgeStroke, type StrokeAsked } from './strokeTest'
