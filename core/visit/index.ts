export * from './log/canonical'
export * from './log/current'
export {
  CLOCK_OFF_S,
  type ClockDoubt,
  clockDoubt,
  clockDoubts,
  isBeforePlanned,
  legalDate,
} from './log/clock'
export {
  draftSchema,
  type EventDraft,
  type EventKind,
  eventKinds,
  type PayloadOf,
  traitsOf,
  type VisitEvent,
} from './log/events'
export { checkDraft } from './log/checkDraft'
export { draftOf } from './log/draft'
export { appended, emptyLog, type FoldedLog, foldVisit } from './log/fold'
export type { Recorded } from './log/recorded'
export { isDrawnLine } from './log/drawnLine'
export { timesToAttest } from './rules/times'
export { signedText } from './log/signedText'
export { newestForm, upcast } from './log/upcast'
export {
  type CheckOutcome,
  checkOutcomes,
  type Purpose,
  purposes,
  purposeTitles,
  type RunName,
  runNames,
} from './log/words'
export * from './log/snapshots'
export * from './log/state'
export * from './log/stations'
export { type Adjusting, adjustingOf } from './derived/adjusting'
export { correctionEffect, type Effect } from './derived/correctionEffect'
export { type DiagnosisQuestion, diagnosisQuestion } from './derived/diagnosisQuestion'
export * from './derived/guide'
export { piecesWanted } from './derived/pieces'
export { renewalAdviceAt, renewalRuleAt } from './derived/renewal'
export { type Moved, movedSince } from './derived/moved'
export { planOfRun, planOfVisit, policyOfVisit } from './derived/pinned'
export { restsOnEarlier } from './derived/restsOnEarlier'
export * from './derived/standing'
export { type PressureStack, type StackRow, stackOf } from './derived/stack'
export * from './derived/stock'
export { type Response, responsesOf } from './derived/responses'
export { type StrokeOfRun, strokeOfRun } from './derived/strokeOf'
export { isStreamed } from './derived/streamed'
export * from './derived/verdicts'
export * from './derived/workDone'
export { doubtOf, needsGauge } from './rules/fieldTest'
export { type Command, decide, type Decision } from './rules/decide'
export { guard } from './rules/guard'
export { MOST_PHOTOS, photoRefusal } from './rules/photos'
export { kitDoubts } from './rules/kit'
export {
  type GuardContext,
  type Notice,
  type Refusal,
  type RefusalCode,
  refusalCodes,
  stationRefusal,
} from './rules/refusal'
export { shutOff } from './rules/safe'
