import type { EarlierRun, VisitState } from '../state'
import type { RunName } from '../words'

/** The run of a name as one that another comes after; none where it has not been started. */
export function earlierRun(state: VisitState, name: RunName, reason?: string): EarlierRun[] {
  const run = state.runs[name]
  if (!run) return []
  const asLeft = name === 'as-left'
  const repairedAt = asLeft ? state.repairs.at(-1)?.recordedAt : undefined
  const adjustedAt = asLeft ? state.adjusted.at(-1)?.recordedAt : undefined
  return [
    {
      ...run,
      name,
      ...(reason ? { reason } : {}),
      ...(repairedAt ? { repairedAt } : {}),
      ...(adjustedAt ? { adjustedAt } : {}),
    },
  ]
}
