import { expect, type Page } from '@playwright/test'
import { DEMO_PASSWORD } from './people'
import { strokeDown } from './stroke'

export const button = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name, exact: typeof name === 'string' })

export interface JobHints {
  /** Defect that is seen, by a word of the inspection’s sentence. */
  readonly defects?: Readonly<Record<string, string>>
  /** Finding that is chosen against the house’s policy, by a word of the sentence. */
  readonly findings?: Readonly<Record<string, string>>
  /** Why steps that rest on a departure are done all the same; without it none is. */
  readonly allTheSame?: string
  /** Stops before the first step whose sentence says this. */
  readonly until?: RegExp
}

const hint = (hints: Readonly<Record<string, string>> | undefined, words: string) =>
  Object.entries(hints ?? {}).find(([part]) => words.includes(part))?.[1]

/** Chooses the guide of a visit by a word of its title, and its variant. */
export async function takeGuide(
  page: Page,
  guide: RegExp | null,
  variant: string | null,
): Promise<void> {
  const chooser = page.getByRole('region', { name: 'Job guide' })
  await expect(chooser).toBeVisible()
  if (guide) {
    const title = await chooser.locator('option', { hasText: guide }).first().innerText()
    await chooser.getByLabel('Job guide').selectOption({ label: title })
  }
  if (variant) await chooser.getByLabel('Variant').selectOption({ label: variant })
  await button(page, 'Take this guide').click()
}

/** Fills the paper form of the test in force: the first answer of each question, and these figures by label. */
export async function fillForm(
  page: Page,
  figures: Readonly<Record<string, string>>,
  answers: Readonly<Record<string, string>> = {},
): Promise<void> {
  await button(page, 'Enter a filled form').click()
  const form = page.locator('form.filled')
  for (const field of await form.locator('.entry-field:has(select[data-field])').all()) {
    const label = await field.locator('label').innerText()
    const wanted = Object.entries(answers).find(([l]) => label.includes(l))?.[1]
    await field.locator('select').selectOption(wanted ? { label: wanted } : { index: 1 })
  }
  for (const field of await form.locator('.entry-field:has(input[data-field])').all()) {
    const label = await field.locator('label').innerText()
    const found = Object.entries(figures).find(([l]) => label.startsWith(l))?.[1]
    const travel = /^Travel at (\d+) %/.exec(label)?.[1]
    await field.locator('input').fill(found ?? travel ?? '0')
  }
  await button(page, 'Record the form').click()
  await button(page, 'Finish the test').click()
}

/** What is pressed next is on the screen, whole, as the step appears: nobody looks for it. */
export async function nextActionInSight(page: Page): Promise<void> {
  const action = page
    .locator('.guide-step')
    .locator(
      '.actions > .btn-primary:enabled, .answers .btn:enabled, form:not(.kit form) button[type=submit]:enabled',
    )
    .first()
  if (!(await action.isVisible())) return
  await expect(async () => {
    const hidden = await action.evaluate((e) => {
      const { top, bottom } = e.getBoundingClientRect()
      const edge = (side: string) =>
        document.querySelector(side)?.getBoundingClientRect() ?? { top: innerHeight, bottom: 0 }
      const places = getComputedStyle(document.querySelector('.shell-nav nav') ?? e)
      const floor = places.position === 'fixed' ? edge('.shell-nav nav').top : innerHeight
      const roof = edge('.shell-nav').bottom
      return top < roof - 1 || bottom > floor + 1
        ? `“${e.textContent.trim()}” at ${Math.round(top)} to ${Math.round(bottom)}, in sight is ${Math.round(roof)} to ${Math.round(floor)}`
        : ''
    })
    expect(hidden).toBe('')
  }).toPass({ timeout: 4_000 })
}

/** The sentence of the step whose turn it is, by itself or as a line of several. */
export const dueWords = (page: Page) => page.locator('.guide-step .say, .hands .now .sentence')
const bagOf = (page: Page) => page.locator('.guide-step section.kit form')
const stationName = (page: Page) => page.locator('.frame h2').first()

/** Ends a station whose last step has not ended it by itself. */
export async function leave(page: Page, name: string): Promise<void> {
  const end = page.locator('.actions').getByRole('button', { name, exact: true })
  if (await end.isVisible()) await end.click()
}

/** What a step may ask for, by where it asks. */
const ASKED = {
  kit: 'section.kit form',
  answers: '.answers',
  proof: 'form.proof',
  rounds: '.relaxing',
  setting: 'form.setting',
  grooves: 'form.grooves',
  temporary: 'form.temporary',
  inspection: '.inspection',
  torque: '.torque form',
  figures: 'form.ask',
} as const

interface Due {
  readonly station: string
  /** The sentence whose turn it is, or that there is none any more. */
  readonly isSaid: boolean
  readonly byHand: boolean
  readonly words: string
  readonly place: string
  readonly asks: readonly (keyof typeof ASKED)[]
}

/** Everything that decides what is done next, in one look. */
const dueOn = (page: Page): Promise<Due> =>
  page.evaluate((asked) => {
    const textOf = (e: Element | null | undefined) => (e as HTMLElement | null)?.innerText ?? ''
    const step = document.querySelector('.guide-step')
    const said = [...(step?.querySelectorAll('.say, .then') ?? [])].map(textOf)
    return {
      station: textOf(document.querySelector('.frame h2')),
      isSaid: document.querySelector('.guide-step .say, .hands .now .sentence') !== null,
      byHand: step?.matches('.hands') ?? false,
      // A part that comes off and is judged at once has two sentences.
      words: said.join(' · '),
      place: textOf(step?.querySelector('.place')),
      asks: Object.entries(asked).flatMap(([ask, where]) =>
        step?.querySelector(where)?.checkVisibility() ? [ask as keyof typeof asked] : [],
      ),
    }
  }, ASKED)

/** Carries out the steps of a station as the guide asks, and answers their sentences. */
export async function carryOut(page: Page, hints: JobHints = {}): Promise<string[]> {
  const said: string[] = []
  const shown = dueWords(page).or(page.locator('p.all')).first()
  await expect(stationName(page)).toBeVisible()
  const station = await stationName(page).innerText()
  for (let n = 0; n < 120; n++) {
    // The last step may have ended the station.
    if ((await stationName(page).innerText()) !== station) return said
    await expect(shown).toBeVisible()
    const due = await dueOn(page)
    if (due.station !== station || !due.isSaid) return said
    if (due.byHand) {
      const done = await strokeDown(page, hints.until)
      said.push(...done)
      if (done.length === 0) return said
      continue
    }
    if (hints.until?.test(due.words)) return said
    // A step that takes a part from a kit nobody has counted is then still to be done, perhaps with others.
    if (!/Count the kit/.test(due.words) && due.asks.includes('kit')) {
      await countKits(page)
      continue
    }
    // The first of them may stand where whoever came here has scrolled.
    if (said.length > 0) await nextActionInSight(page)
    said.push(due.words)
    if (due.asks.includes('figures')) await giveFigures(page)
    await doStep(page, due, hints)
    if (hints.allTheSame) await giveReason(page, due, hints.allTheSame)
    await expect(page.locator('.guide-step .place', { hasText: due.place })).toHaveCount(0)
  }
  throw new Error('the station does not end')
}

/** Figures that no sheet has are entered with where they come from. */
async function giveFigures(page: Page): Promise<void> {
  const ask = page.locator('.guide-step form.ask')
  for (let left = await ask.count(); left > 0; left--) {
    await ask.first().getByLabel('Value').fill('8')
    await button(page, 'Keep it').first().click()
    await expect(ask.first().getByText('Where from is missing')).toBeVisible()
    await ask.first().getByLabel('Where from').fill('Sheet of maker B, page 4, 2024')
    await ask.first().getByRole('button', { name: 'Keep it' }).click()
    await expect(ask).toHaveCount(left - 1)
  }
}

/** Gives a reason where a step is refused because an earlier one was not done as written. */
async function giveReason(page: Page, due: Due, reason: string): Promise<void> {
  const asked = page.getByLabel('Reason for the departure')
  const gone = page.locator('.guide-step .place', { hasText: due.place })
  await expect(async () => {
    expect((await asked.isVisible()) || (await gone.count()) === 0).toBe(true)
  }).toPass()
  if (!(await asked.isVisible())) return
  await asked.fill(reason)
  await button(page, 'Record it so').click()
}

async function doStep(page: Page, { asks, words }: Due, hints: JobHints): Promise<void> {
  const step = page.locator('.guide-step')
  const press = (name: string | RegExp) => step.getByRole('button', { name }).first().click()
  const isAsked = (what: keyof typeof ASKED) => asks.includes(what)
  if (isAsked('kit')) return countKits(page)
  if (isAsked('answers') && !isAsked('inspection'))
    return step
      .locator('.answers')
      .getByRole('button', { name: hint(hints.findings, words) ?? /./ })
      .first()
      .click()
  if (isAsked('proof')) {
    await step.getByLabel('Reading').fill('0.0')
    return press('Zero is read')
  }
  if (isAsked('rounds')) return goRound(page)
  if (isAsked('setting')) {
    await step.locator('form.setting input').fill('3 turns from fully out')
    return press('Written down')
  }
  if (isAsked('grooves')) {
    // Where one groove is vented it stays empty.
    const vented = await step.getByText('1 groove stays empty on purpose.').isVisible()
    await step.getByLabel('Grooves').fill('7')
    await step.getByLabel('Rings').fill(vented ? '6' : '7')
    return press('Record both counts')
  }
  if (isAsked('temporary')) {
    await step.getByLabel('Permitted by').fill('Cross-connection office, by telephone')
    await step.getByLabel('Renew by').fill(inDays(21))
    return press('Record the temporary repair')
  }
  if (isAsked('inspection')) {
    const defect = hint(hints.defects, words)
    if (defect) await press(defect)
    const finding = hint(hints.findings, words)
    if (!finding) return step.locator('.answers .btn-primary, .answers .btn-danger').first().click()
    await press(finding)
    await step.getByLabel('Reason for the departure').fill('No rubber at hand tonight')
    return press('Record it so')
  }
  if (isAsked('torque')) {
    const most = (await step.locator('.torque dd .mono').first().innerText()).split(' ')[0]
    await step.getByLabel('Set to').fill(most ?? '')
    return press('Tightened to it')
  }
  const numbers = await step.getByLabel(/^Number of the lock on/).all()
  for (const number of numbers) await number.fill('27')
  if (numbers.length > 0) return press(numbers.length === 1 ? /^Lock / : /locked$/)
  await step.locator('.actions .main, .actions .btn-primary').first().click()
}

export const inDays = (days: number) =>
  new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)

/** Counts one kit after the other, until none is left to be counted. */
async function countKits(page: Page): Promise<void> {
  while (await bagOf(page).isVisible()) await countKit(page)
}

/** The bag’s number and every item, as its list says. */
async function countKit(page: Page): Promise<void> {
  const kit = page.locator('.guide-step section.kit')
  const listed = kit.locator('strong.mono')
  const number = (await listed.count()) > 0 ? await listed.first().innerText() : 'K-UNLISTED'
  await kit.getByLabel('Number on the bag').fill(number.trim())
  for (const line of await kit.locator('.lines li').all()) {
    const wanted = (await line.locator('span.soft').innerText()).replace('of ', '')
    await line.locator('input').fill(wanted.trim())
  }
  // What by the stock is on no van came from somewhere.
  const why = kit.getByLabel('Why work goes on with it')
  if (await why.isVisible()) await why.fill('Fetched from the depot this morning')
  await button(page, 'The kit is counted').click()
}

/** Round and round, one still moving in the first two, until none does. */
async function goRound(page: Page): Promise<void> {
  const rounds = page.locator('.relaxing .made li')
  const done = button(page, 'Nothing moves any more – done')
  const before = await rounds.count()
  for (let made = before; made < 20 && !(await done.isVisible()); made++) {
    await button(
      page,
      made < before + 2 ? 'Round done – one moved' : 'Round done – none moved',
    ).click()
    await expect(rounds).toHaveCount(made + 1)
  }
  await done.click()
}

/** From the end of Rebuild’s steps to Return: kit accounted for, repair on record. */
export async function closeRebuild(page: Page, renewed?: string): Promise<void> {
  await button(page, 'The kit is accounted for').click()
  await expect(page.getByText('Every item is accounted for')).toBeVisible()
  if (renewed) {
    const services = page.getByRole('group', { name: 'Cleaned or renewed' })
    await services.getByLabel(renewed).selectOption('renewed')
  }
  await button(page, /^Record the repair/).click()
  await expect(stationName(page)).not.toHaveText('Rebuild')
}

/** A drawn signature, confirmed with the PIN of the device. */
export async function drawAndSignWithPin(page: Page, pin: string): Promise<void> {
  await draw(page)
  await page.getByLabel(/the PIN of this device$/).fill(pin)
  await expect(page.getByRole('heading', { name: 'Signed and closed' })).toBeVisible()
}

export async function drawAndSign(page: Page, name: string): Promise<void> {
  await page.getByLabel('Password').fill(DEMO_PASSWORD)
  await draw(page)
  await button(page, name).click()
  await expect(page.getByRole('heading', { name: 'Signed and closed' })).toBeVisible()
}

export async function draw(page: Page): Promise<void> {
  const pad = page.getByRole('img', { name: 'Draw your signature here' })
  await expect(pad).toBeVisible()
  // The page may still be on its way to this station while the hand draws.
  await pad.scrollIntoViewIfNeeded()
  await expect(async () => {
    const before = await pad.boundingBox()
    await page.waitForTimeout(300)
    expect(await pad.boundingBox()).toEqual(before)
  }).toPass()
  const box = (await pad.boundingBox())!
  await page.mouse.move(box.x + 40, box.y + 60)
  await page.mouse.down()
  for (let x = 40; x < 300; x += 20)
    await page.mouse.move(box.x + x, box.y + 60 + 25 * Math.sin(x / 20))
  await page.mouse.up()
}
