import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { type BrowserContext, chromium, expect, type Page, test } from '@playwright/test'
import { inDays } from './job'
import { DEMO_PASSWORD, settledAtOnce, signIn } from './people'

/** So often a day is broken off; a long run says more: UVANTA_INTERRUPTIONS=200. */
const TIMES = Number(process.env.UVANTA_INTERRUPTIONS ?? 10)
const PIN = '274913'
const HOUR = 3_600_000

/** Numbers that look like chance and are the same in every run (a linear congruential generator). */
function chance(seed: number) {
  let state = seed
  const next = () => (state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296) / 4_294_967_296
  return (n: number) => Math.floor(next() * n)
}

/** A device of hers: a browser with its own profile, which outlives the browser. */
class Device {
  private readonly profile = mkdtempSync(join(tmpdir(), 'uvdevice-'))
  private context!: BrowserContext
  page!: Page
  online = true

  constructor(
    private readonly options: Parameters<typeof chromium.launchPersistentContext>[1],
    private readonly visit: string,
  ) {}

  async open(): Promise<void> {
    this.context = await chromium.launchPersistentContext(this.profile, this.options)
    // Its clock may be wrong by so much; nothing may depend on it.
    await this.context.addInitScript(() => {
      const off = Number(localStorage.getItem('test-clock-off') ?? 0)
      const Real = Date
      window.Date = class extends Real {
        constructor(...args: [] | [number]) {
          super(...((args.length > 0 ? args : ([Real.now() + off] as const)) as [number]))
        }
        static override now = () => Real.now() + off
      } as DateConstructor
    })
    this.page = this.context.pages()[0] ?? (await this.context.newPage())
    await settledAtOnce(this.page)
    await this.line(this.online)
  }
  async line(online: boolean): Promise<void> {
    this.online = online
    await this.context.setOffline(!online)
  }
  async killTab(): Promise<void> {
    const dead = this.page
    this.page = await this.context.newPage()
    await dead.close()
  }
  /** The whole browser, without warning. */
  async kill(): Promise<void> {
    const gone = this.context.waitForEvent('close')
    const ids = execFileSync('pgrep', ['-f', '--', `--user-data-dir=${this.profile}`], {
      encoding: 'utf8',
    })
    for (const id of ids.split('\n').filter(Boolean)) {
      try {
        process.kill(Number(id), 'SIGKILL')
      } catch {
        // It went with the one before.
      }
    }
    await gone
    await this.open()
  }
  /** Brings the visit on the screen, whatever stands before it. */
  async ready(): Promise<void> {
    const { page } = this
    const note = page.getByRole('textbox', { name: 'Note' })
    const pin = page.locator('input').and(page.getByLabel('PIN of this device'))
    const name = page.getByLabel('Name', { exact: true })
    await page.goto(`/visits/${this.visit}`)
    for (let tries = 0; tries < 5; tries++) {
      await expect(note.or(pin).or(name).first()).toBeVisible({ timeout: 30_000 })
      if (await pin.isVisible()) {
        await pin.fill(PIN)
        await expect(pin).toHaveCount(0)
      } else if (await name.isVisible()) {
        await signIn(page, 'odda')
        await page.goto(`/visits/${this.visit}`)
      } else return
    }
    throw new Error('the visit does not come up')
  }
  async setPin(): Promise<void> {
    const { page } = this
    await signIn(page, 'odda')
    await page.goto('/account')
    await page.getByLabel('New PIN').fill(PIN)
    await page.getByLabel('The same again').fill(PIN)
    await page.getByLabel('Password', { exact: true }).fill(DEMO_PASSWORD)
    await page.getByRole('button', { name: 'Set the PIN' }).click()
    await expect(page.getByText('This device has a PIN of yours.')).toBeVisible()
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
    await this.ready()
  }
  async note(text: string): Promise<void> {
    await this.page.getByRole('textbox', { name: 'Note' }).fill(text)
    await this.page.getByRole('button', { name: 'Keep the note' }).click()
    const kept = this.page.locator('.notes li').filter({ hasText: new RegExp(`^\\s*${text}\\s`) })
    await expect(kept).toBeVisible()
    await expect(this.page.getByRole('textbox', { name: 'Note' })).toHaveValue('')
    await this.page.waitForTimeout(150)
  }
  async signOut(name: string): Promise<void> {
    const { page } = this
    await page.getByRole('button', { name }).click()
    await page.getByLabel(name).getByText('Sign out').click()
    const allTheSame = page.getByRole('button', { name: 'Sign out all the same' })
    await expect(allTheSame.or(page.getByLabel('Name', { exact: true })).first()).toBeVisible()
    if (await allTheSame.isVisible()) await allTheSame.click()
    await page.waitForURL(/sign-in/)
  }
  async close(): Promise<void> {
    await this.context.close()
    rmSync(this.profile, { recursive: true, force: true })
  }
}

test(`a visit broken off ${TIMES} times, by chance: nothing is lost, nothing doubled, nothing under another name`, async ({
  page,
  baseURL,
  launchOptions,
}) => {
  test.setTimeout(120_000 + TIMES * 20_000)
  await signIn(page, 'sula')
  const found = await (await page.request.get('/api/v1/equipment?q=RP-110')).json()
  const people = await (await page.request.get('/api/v1/people')).json()
  const visit = crypto.randomUUID()
  const planned = await page.request.post('/api/v1/visits', {
    headers: { Origin: baseURL ?? '' },
    data: {
      id: visit,
      equipmentId: found.items[0].id,
      technicianId: people.items.find((p: { name: string }) => p.name === 'Odda Marrin').id,
      plannedOn: inDays(0),
      purpose: 'periodic-test',
      rulePack: 'larkhaven-relief-first',
    },
  })
  expect(planned.status(), await planned.text()).toBe(200)

  const dice = chance(TIMES)
  const options = { ...launchOptions, baseURL: baseURL ?? '', serviceWorkers: 'allow' } as const
  const devices = [new Device(options, visit), new Device(options, visit)]
  for (const d of devices) {
    await d.open()
    await d.setPin()
  }
  const happenings: ((d: Device) => Promise<unknown>)[] = [
    (d) => d.line(!d.online),
    (d) => d.page.reload(),
    (d) => d.killTab(),
    (d) => d.kill(),
    // The clock of the device jumps, at the next start.
    (d) =>
      d.page.evaluate(
        (off) => localStorage.setItem('test-clock-off', String(off)),
        (dice(5) - 2) * HOUR,
      ),
    // Somebody else has the device for a while.
    async (d) => {
      await d.line(true)
      await d.ready()
      await d.signOut('Odda Marrin')
      await signIn(d.page, 'teo')
      await d.page.goto(`/visits/${visit}`)
      await expect(d.page.getByRole('heading', { level: 1, name: 'RP-110' })).toBeVisible()
      await d.signOut('Teo Branwick')
    },
    // There is no room: what cannot be kept is sent at once.
    async (d) => {
      await d.line(true)
      await d.ready()
      await d.page.evaluate(() => {
        const refuse = () => {
          throw new DOMException('no room', 'QuotaExceededError')
        }
        IDBObjectStore.prototype.put = refuse
        IDBObjectStore.prototype.add = refuse
      })
      const taken = d.page.waitForResponse(
        (r) => r.url().endsWith(`/visits/${visit}/events`) && r.status() === 200,
      )
      await d.note(`note ${++made}`)
      await taken
    },
  ]
  let made = 0
  for (let n = 0; n < TIMES; n++) {
    const d = devices[dice(2)] as Device
    await d.ready()
    for (let more = dice(2); more >= 0; more--) await d.note(`note ${++made}`)
    await happenings[dice(happenings.length)]?.(d)
  }
  for (const d of devices) {
    await d.line(true)
    await d.page.evaluate(() => localStorage.removeItem('test-clock-off')).catch(() => undefined)
    await d.ready()
  }
  const written = async () => {
    const { events } = await (await page.request.get(`/api/v1/visits/${visit}`)).json()
    return (events as { kind: string; personName: string; payload: { text: string } }[])
      .filter((e) => e.kind === 'note')
      .map((e) => `${e.personName}: ${e.payload.text}`)
      .sort()
  }
  const wanted = Array.from({ length: made }, (_, n) => `Odda Marrin: note ${n + 1}`).sort()
  await expect.poll(written, { timeout: 60_000 }).toEqual(wanted)
  for (const d of devices) await d.close()
})
