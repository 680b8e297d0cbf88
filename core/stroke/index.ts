export { judgeStroke, type StrokeAsked, type StrokeJudgement, type StrokePoint } from './strokeTest'

export { type BenchSet, benchSet, type BenchSetRead } from './benchSet'
