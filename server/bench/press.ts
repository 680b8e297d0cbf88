import { Job, shippedLibrary } from '@uvanta/core/testing'
import { v7 as uuidv7 } from 'uuid'
import type { App } from '../context'
import { readPerson } from '../service/people/people'
import { planVisit } from '../service/visit/visits'
import { percentile, signedInFetch } from './measure'
import { noted, openPhone } from './phone'

const PACK = 'larkhaven-relief-first'
const GUIDE = 'rp-relief'
/** Visits of at least so many entries. */
const ENTRIES = [0, 1_000]
/** As many as are taken at once. */
const BATCH = 100
/** With which the rebuild of this guide begins, a line each. */
const LINES = 4
const VISITS = 3

/**
 * From a press to the next line of a guide in sight, on a phone that computes four times slower, by the length of the
 * log; beside it the same on a page that has nothing but the line.
 */
export async function benchPress(app: App, base: string): Promise<object[]> {
  const figures = []
  for (const least of ENTRIES) {
    const taken: number[] = []
    const bare: number[] = []
    let longestLog = 0
    for (let n = 0; n < VISITS; n++) {
      const { id, entries } = await opened(app, base, least)
      longestLog = Math.max(longestLog, entries)
      const { page, close } = await openPhone(base, { slower: 4 })
      await page.addInitScript(NOTE_PRESS)
      await page.route('**/bare', (route) =>
        route.fulfill({ contentType: 'text/html', body: BARE_LINE }),
      )
      for (const [path, into] of [
        ['/bare', bare],
        [`/visits/${id}`, taken],
      ] as const) {
        await page.goto(base + path)
        for (let line = 0; line < LINES; line++) {
          await page.locator('.hands button.line-box:enabled').tap()
          into.push(await noted(page, 'nextAfter'))
        }
      }
      await close()
    }
    figures.push({
      name: `Press to next line, CPU ÷ 4, ${longestLog} entries`,
      p50Ms: Math.round(percentile(taken, 50)),
      longestMs: Math.round(Math.max(...taken)),
      bareP50Ms: Math.round(percentile(bare, 50)),
      aimUnderMs: 100,
    })
  }
  return figures
}

const BARE_LINE = `<meta name="viewport" content="width=device-width"><div class="hands">
  <div class="now"><p class="sentence">Line</p></div><button class="line-box" style="height: 3rem">Done</button></div>
  <script>
    const said = document.querySelector('.sentence')
    document.querySelector('button').onclick = () => (said.textContent += ' done')
  </script>`

/**
 * Notes how long after a press the browser has drawn another line as the one whose turn it is: its own measure of an
 * event, from the touch to the picture that came of it.
 */
const NOTE_PRESS = `
  let before = ''
  let changedBy = 0
  const due = () => document.querySelector('.guide-step .say, .hands .now .sentence')?.textContent ?? ''
  document.addEventListener('click', () => (before = due()), { capture: true })
  new MutationObserver(() => {
    if (before && due() !== before) {
      before = ''
      changedBy = performance.now()
    }
  }).observe(document, { childList: true, subtree: true, attributes: true, characterData: true })
  new PerformanceObserver((list) => {
    for (const { name, startTime, duration } of list.getEntries()) {
      if (name !== 'click' || !changedBy) continue
      // A line that changed only after that picture is not in it.
      if (changedBy <= startTime + duration) window.nextAfter = duration
      changedBy = 0
    }
  }).observe({ type: 'event', durationThreshold: 16 })`

/** A visit that stands at the first steps of its rebuild, with at least so many entries. */
async function opened(app: App, base: string, least: number) {
  const equipment = await app.db.equipment.findOne({ where: { kind: 'RP' } })
  const odda = await app.db.people.findOne({ where: { username: 'odda' } })
  const guide = shippedLibrary.guides.find((g) => g.id === GUIDE)
  const [variant] = guide?.variants ?? []
  if (!equipment || !odda || !guide || !variant) throw new Error('the demo has nothing to open')
  const visit = await planVisit(app, await readPerson(app, odda.id), {
    id: app.newId(),
    equipmentId: equipment.id,
    technicianId: odda.id,
    plannedOn: app.today(),
    purpose: 'overhaul',
    rulePack: PACK,
  })
  const job = new Job({
    family: equipment.family,
    kind: equipment.kind,
    packId: PACK,
    newId: () => uuidv7(),
    from: app.now().minus({ hours: 6 }).toISO(),
  })
  job.choose(guide, variant.id).toMakeSafe()
  for (const at of ['make-safe', 'open-up'] as const) job.carryOut(at).done(at)
  job.must('repair', { text: 'By the guide', parts: [] })
  while (job.drafts.length + visit.count < least)
    job.must('note', { station: 'rebuild', text: 'Vent clear, no water in the pit.' })
  // More of them than the demo has on its vans.
  const events = job.drafts.map((e) =>
    e.kind === 'kit-taken' ? { ...e, payload: { ...e.payload, departure: 'From the store' } } : e,
  )
  const send = await signedInFetch(base, 'odda')
  for (let n = 0; n < events.length; n += BATCH) {
    const body = JSON.stringify({
      expected: visit.count + n,
      events: events.slice(n, n + BATCH),
    })
    await send(`/api/v1/visits/${visit.id}/events`, { method: 'POST', body })
  }
  return { id: visit.id, entries: visit.count + events.length }
}
