import { foldVisit, type VisitEvent } from '@uvanta/core/visit'
import { aNote } from './append'
import { percentile, times } from './measure'

const RUNS = 9
const [SHORT, LONG] = [500, 4_000]
const DAY_MS = 86_400_000

/** What an entry of a long log costs to fold, against one of a short log: where that grows, folding is not linear. */
export async function benchFold(): Promise<object[]> {
  const figures = []
  for (const [clock, aheadDays] of [
    ['right', 0],
    ['wrong by a week', 7],
  ] as const) {
    const perEntry = async (entries: number) => {
      const log = Array.from({ length: entries }, (_, n) => arrived(n + 1, aheadDays))
      const taken = await times(RUNS, () => Promise.resolve(foldVisit(log)))
      return percentile(taken, 50) / entries
    }
    await perEntry(LONG)
    const [long, short] = [await perEntry(LONG), await perEntry(SHORT)]
    figures.push({
      name: `folding an entry, log of ${LONG} against ${SHORT}, the device’s clock ${clock}`,
      ratio: Number((long / short).toFixed(2)),
      microseconds: Number((long * 1_000).toFixed(1)),
    })
  }
  return figures
}

function arrived(seq: number, aheadDays: number): VisitEvent {
  const note = aNote()
  return {
    ...note,
    serverTime: new Date(Date.parse(note.deviceTime) + aheadDays * DAY_MS).toISOString(),
    personName: 'Odda Marrin',
    seq,
    hash: '',
  } as unknown as VisitEvent
}
