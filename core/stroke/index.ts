export { judgeStroke, type StrokeAsked } from './strokeTest'

export { type BenchSet, benchSet, type BenchSetRead } from './benchSet'
