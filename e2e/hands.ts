import { expect, type Page } from '@playwright/test'
import { signIn } from './people'
import { strokeDown } from './stroke'

/** A step of the hands alone: the press states what is then so. */
export const HANDS_DONE = / done$|^Done – next step$/m

/** Counts what a technician presses; typing is not among it. */
export class Hands {
  presses = 0
  constructor(private readonly page: Page) {}

  /** Presses the button of this name once it can be pressed. */
  async press(name: string | RegExp, patience = 30_000): Promise<void> {
    const exact = typeof name === 'string'
    await this.page.getByRole('button', { name, exact }).first().click({ timeout: patience })
    this.presses++
  }
}

export async function toTest(page: Page, hands: Hands, who: string, tag: RegExp): Promise<void> {
  await signIn(page, who)
  await page.getByRole('link', { name: tag }).first().click()
  await hands.press('Prepared – set off')
  await hands.press('It is this one')
  await expect(page.getByLabel('Simulated gauge')).toBeChecked()
}

/** What of the drawing is too small on a phone to be read, or to be pressed with a glove. */
export const tooSmallDrawn = (page: Page): Promise<string[]> =>
  page
    .locator('svg.drawing')
    .first()
    .evaluate((svg: SVGSVGElement) => {
      const scale = svg.getBoundingClientRect().width / svg.viewBox.baseVal.width
      const words = [...svg.querySelectorAll('text')].flatMap((t) => {
        const px = Number.parseFloat(getComputedStyle(t).fontSize) * scale
        return px < 13.9 ? [`“${t.textContent.trim()}” is ${px.toFixed(1)} px high`] : []
      })
      const targets = [...svg.querySelectorAll('[role=button]')].flatMap((g) => {
        const { width, height } = (g.querySelector('.target') ?? g).getBoundingClientRect()
        const least = Math.min(width, height)
        return least < 47.5 ? [`${g.getAttribute('aria-label')} is ${least.toFixed(1)} px`] : []
      })
      return [...words, ...targets]
    })

/** Walks through whatever procedure is in force; answers by what is seen at the site. */
export async function streamTest(
  page: Page,
  hands: Hands,
  answers: Readonly<Record<string, string | RegExp>> = {},
  typed: Readonly<Record<string, string>> = {},
): Promise<void> {
  const step = page.locator('.test-step')
  for (let n = 1; n < 120; n++) {
    const finish = page.getByRole('button', { name: 'Finish the test' })
    // The verdict as found stands where it was tested, the one as left where it is signed.
    const signing = page.getByRole('heading', { level: 2, name: /sign$/ })
    const finished = page.locator('p.whole').or(signing).first()
    const lines = page.locator('.hands .line-box:enabled')
    await expect(
      finish.or(finished).or(lines).or(page.locator('.test-step .do button:enabled')).first(),
    ).toBeVisible({ timeout: 60_000 })
    if ((await finish.isVisible()) || (await finished.isVisible())) break
    if (await lines.isVisible()) {
      await strokeDown(page)
      hands.presses++
      await expect(page.getByText(/^Turning/)).toHaveCount(0, { timeout: 60_000 })
      continue
    }
    const before = await step.locator('.count').innerText()
    const reading = step.locator('form.reading')
    if (await reading.isVisible()) {
      // Where nothing is to be typed, the instrument is still coming on the line.
      const label = await reading
        .locator('label')
        .first()
        .textContent({ timeout: 1_000 })
        .catch(() => '')
      const value = typed[label ?? '']
      if (value === undefined) continue
      await reading.locator('input').first().fill(value)
      await reading.locator('button[type=submit]').click()
      hands.presses++
      await expect(page.getByText(before, { exact: true })).toHaveCount(0, { timeout: 60_000 })
      continue
    }
    const button = step.locator('.do button:enabled').first()
    const words = await button.innerText()
    if (words === 'Carry it out') {
      await hands.press('Carry it out')
      await expect(step.getByRole('button', { name: 'Carry it out' })).toHaveCount(0, {
        timeout: 60_000,
      })
      await expect(step.locator('.do button:enabled').first()).toBeVisible({ timeout: 60_000 })
      continue
    }
    if (words.startsWith('First drip') || words.startsWith('It opens')) {
      // Seen on the drawing: a drip, or a poppet off its seat.
      await expect(
        page.locator('svg.drawing .drops, svg.drawing .part.lifted').first(),
      ).toBeVisible({
        timeout: 60_000,
      })
      await hands.press(words)
    } else if (words === 'Take the reading') {
      let tries = 0
      await expect(async () => {
        // A press that was taken moves on, however late that shows.
        if ((await page.getByText(before, { exact: true }).count()) === 0) return
        // What never comes to rest is read as it stands.
        const asItStands = step.getByRole('button', { name: 'Take it as it stands' })
        const take = step.getByRole('button', { name: 'Take the reading' })
        const held = await step.getByText('Held for').isVisible()
        const enough = !held && ++tries > 4 && (await asItStands.isVisible())
        await (enough ? asItStands : take).click({ timeout: 2_000 })
        // Nor is anything taken before the instrument that was begun with has come on the line.
        await expect(
          step.getByText(
            /does not rest yet|Held for|is not on the line|On the line is gauge|on the line shows/,
          ),
        ).toHaveCount(0, { timeout: 500 })
      }).toPass({ timeout: 60_000 })
      hands.presses++
    } else if (HANDS_DONE.test(words)) {
      await hands.press(words)
    } else {
      const question = await step.locator('.question').innerText()
      const wanted = Object.entries(answers).find(([q]) => question.includes(q))?.[1]
      await hands.press(wanted ?? words)
    }
    await expect(page.getByText(before, { exact: true })).toHaveCount(0, { timeout: 60_000 })
  }
  if (await page.getByRole('button', { name: 'Finish the test' }).isVisible())
    await hands.press('Finish the test')
  // Everything was taken by the server: nothing waits on the device.
  await expect(page.getByText('waits to be sent')).toHaveCount(0)
  await expect(page.getByText(/wait on this device/)).toHaveCount(0)
}

/** Counts every press on a page, over reloads; a stroke over several boxes is one. */
export const countPresses = (page: Page) =>
  page.addInitScript(() =>
    addEventListener(
      'pointerdown',
      (e) => {
        const before = Number(sessionStorage.getItem('test-presses') ?? 0)
        if (e.isTrusted) sessionStorage.setItem('test-presses', String(before + 1))
      },
      true,
    ),
  )
export const pressesOn = (page: Page) =>
  page.evaluate(() => Number(sessionStorage.getItem('test-presses') ?? 0))
