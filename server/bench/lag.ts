import { monitorEventLoopDelay } from 'node:perf_hooks'
import type { CertificatePayload } from '@uvanta/core/certificate'
import type { App } from '../context'
import { atOnce, type HeavyWork, inWorkers } from '../heavy/heavyWork'

const PAPERS = 8
const MS = 1e6

/** How long the thread that answers is held up while papers are made and the library is read anew. */
export async function benchLag(app: App): Promise<object[]> {
  const row = await app.db.certificates.findOne()
  if (!row) return []
  const payload = JSON.parse(row.payload) as CertificatePayload
  const issued = { verifyUrl: app.config.publicUrl, jws: row.jws, timeZone: 'UTC' }
  const workers = inWorkers()
  const papers = async (by: HeavyWork) => {
    for (let n = 0; n < PAPERS; n++) await by.pdf(payload, issued)
  }
  const library = (by: HeavyWork) => by.library(app.config.libraryDirectory)
  const figures = []
  for (const [name, work] of [
    [`${PAPERS} certificates on paper`, papers],
    ['the library read anew', library],
  ] as const) {
    const [before, now] = [await worst(() => work(atOnce)), await worst(() => work(workers))]
    figures.push({
      name: `Longest wait of the event loop: ${name}`,
      atOnceMs: before.longest,
      besideMs: now.longest,
      besideP99Ms: now.p99,
      aimP99UnderMs: 50,
    })
  }
  await workers.close()
  return figures
}

/** The longest wait while something is done, and the 99th percentile. */
async function worst(work: () => Promise<unknown>): Promise<{ longest: number; p99: number }> {
  const delay = monitorEventLoopDelay({ resolution: 5 })
  // What holds the loop up is counted between two rounds of it: one before, one after.
  const round = () => new Promise((done) => setTimeout(done, 50))
  delay.enable()
  await round()
  await work()
  await round()
  delay.disable()
  const whole = (ns: number) => Math.round(ns / MS)
  return { longest: whole(delay.max), p99: whole(delay.percentile(99)) }
}
