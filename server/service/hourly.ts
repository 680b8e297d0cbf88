import type { App } from '../context'
import { makeDailyHead } from './integrity/dailyHead'
import { forgetOldAttempts } from './people/wrongPasswords'
import { forgetOldCounts } from './requestCounts'

const HOUR_MS = 3_600_000

/** What is seen to every hour, as long as the server runs: the head of the day, and what is kept for a while only. */
export function seeToHourly(app: App, failed: (error: unknown) => void): void {
  const round = () => {
    for (const work of [makeDailyHead, forgetOldAttempts, forgetOldCounts])
      void work(app).catch(failed)
  }
  round()
  setInterval(round, HOUR_MS).unref()
}
