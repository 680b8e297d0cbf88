import { expect, type Page, test } from '@playwright/test'
import { Hands, streamTest, toTest } from './hands'
import { button, drawAndSign } from './job'
import { signIn } from './people'

const itemRow = (page: Page, name: string) => page.locator('.verdict .item', { hasText: name })

async function arrive(page: Page, tag: RegExp): Promise<void> {
  await signIn(page, 'odda')
  await page.getByRole('link', { name: tag }).first().click()
  await button(page, 'Prepared – set off').click()
  await button(page, 'It is this one').click()
  await expect(page.getByLabel('Simulated gauge')).toBeChecked()
  await page.getByLabel('Read and typed in').check()
  await button(page, 'Start the as-found test').click()
}

/** Types what a step asks for, or answers it, until the procedure is through. */
async function typeTest(
  page: Page,
  figure: (title: string) => string,
  answer: (question: string) => string | undefined = () => undefined,
): Promise<void> {
  const step = page.locator('.test-step')
  const finish = button(page, 'Finish the test')
  for (let n = 0; n < 60; n++) {
    await expect(finish.or(step).first()).toBeVisible()
    if (await finish.isVisible()) return finish.click()
    const before = await step.locator('.count').innerText()
    const reading = step.locator('form.reading')
    if (await reading.isVisible()) {
      const title = await reading.locator('label').first().innerText()
      await reading.locator('input').first().fill(figure(title))
      await reading.locator('button[type=submit]').click()
    } else {
      const question = await step.locator('.question').innerText()
      const wanted = answer(question)
      const answers = step.locator('.answers')
      await (
        wanted ? answers.getByRole('button', { name: wanted }) : answers.locator('button').first()
      ).click()
    }
    await expect(page.getByText(before, { exact: true })).toHaveCount(0)
  }
}

test('a gas regulator is run with streamed readings: at most 25 presses and nothing typed', async ({
  page,
}) => {
  test.setTimeout(240_000)
  const hands = new Hands(page)
  await toTest(page, hands, 'odda', /\bSR-103/)
  hands.presses = 0
  await hands.press('Start the as-found test')
  await streamTest(page, hands)
  expect(hands.presses).toBeLessThanOrEqual(25)
  await expect(page.locator('p.whole')).toContainText('Pass')
  await expect(itemRow(page, 'Set pressure at small flow')).toContainText('to spare')
  await expect(
    page.getByRole('img', { name: 'Pressures of the station on one scale' }),
  ).toBeVisible()
  await button(page, 'Passed – left as it was found').click()
  await drawAndSign(page, 'Sign and issue the certificate')
  await page.getByRole('link', { name: 'Open the certificate' }).click()
  await expect(page.getByText('Relief, start to discharge').first()).toBeVisible()
})

test('a water reducer that creeps is cleaned, and holds', async ({ page }) => {
  test.setTimeout(240_000)
  const hands = new Hands(page)
  await toTest(page, hands, 'odda', /WPR-101/)
  await hands.press('Start the as-found test')
  await streamTest(page, hands)
  await expect(page.locator('p.whole')).toContainText('Fail')
  await button(page, 'Make it safe, then repair').click()
  await button(page, 'Zero is proved – open up').click()
  await button(page, 'Opened and inspected').click()
  await page.getByLabel('What was done').fill('Grit on the disc and the seat, flushed and wiped.')
  await page
    .getByRole('group', { name: 'Cleaned or renewed' })
    .getByLabel('Regulator')
    .selectOption('cleaned')
  await button(page, 'Record the repair').click()
  await button(page, 'Rebuilt – tray empty').click()
  await button(page, 'Back under pressure, no leaks').click()
  await button(page, 'Start the as-left test').click()
  await streamTest(page, hands)
  await expect(page.getByText('Every required item meets its limit').first()).toBeVisible()
})

test('a control valve with hysteresis is found on the line, freed, set, and left within its band', async ({
  page,
}) => {
  test.setTimeout(300_000)
  const hands = new Hands(page)
  await toTest(page, hands, 'odda', /MCV-101/)
  await hands.press('Start the as-found test')
  await streamTest(page, hands)
  await expect(page.locator('p.whole')).toContainText('Fail')
  await expect(itemRow(page, 'Hysteresis and dead band')).toContainText('over')
  await expect(page.getByText(/look for friction/).first()).toBeVisible()
  await button(page, 'Make it safe, then repair').click()
  await button(page, 'Zero is proved – open up').click()
  await button(page, 'Opened and inspected').click()
  await page.getByLabel('What was done').fill('Spindle dry: cleaned and lubricated, moved free.')
  await page
    .getByRole('group', { name: 'Cleaned or renewed' })
    .getByLabel('Drive')
    .selectOption('cleaned')
  await button(page, 'Record the repair').click()
  await button(page, 'Rebuilt – tray empty').click()
  // Its zero is six percent high, and a turn is two.
  await page.locator('.amount label', { hasText: /^1$/ }).click()
  const zero = page.locator('.screw').first()
  await expect(zero).toContainText('Zero of the positioner')
  await expect(zero).toContainText('Turn out')
  for (let n = 0; n < 3; n++) await zero.getByRole('button', { name: 'Turned out' }).click()
  await expect(zero).toContainText('3 turns out so far')
  await button(page, 'Back under pressure, no leaks').click()
  await button(page, 'Start the as-left test').click()
  await streamTest(page, hands)
  await expect(page.getByText('Every required item meets its limit').first()).toBeVisible()
})

test('a check valve that bubbles is cleaned, and seals', async ({ page }) => {
  test.setTimeout(240_000)
  const hands = new Hands(page)
  await toTest(page, hands, 'odda', /ABC-101/)
  await hands.press('Start the as-found test')
  await streamTest(page, hands)
  await expect(page.locator('p.whole')).toContainText('Fail')
  await expect(itemRow(page, 'Bubbles when shut')).toContainText('over')
  await button(page, 'Make it safe, then repair').click()
  await button(page, 'Zero is proved – open up').click()
  await button(page, 'Opened and inspected').click()
  await page.getByLabel('What was done').fill('Grit on the main seat, wiped. Nothing renewed.')
  await page
    .getByRole('group', { name: 'Cleaned or renewed' })
    .getByLabel('Main seat')
    .selectOption('cleaned')
  await button(page, 'Record the repair').click()
  await button(page, 'Rebuilt – tray empty').click()
  await button(page, 'Back under pressure, no leaks').click()
  await button(page, 'Start the as-left test').click()
  await streamTest(page, hands)
  await expect(page.getByText('Every required item meets its limit').first()).toBeVisible()
  await drawAndSign(page, 'Sign and issue the certificate')
  await page.getByRole('link', { name: 'Open the certificate' }).click()
  await expect(page.getByText('Bubbles when shut').first()).toBeVisible()
  await expect(page.getByText('LC-55018').first()).toBeVisible()
})

test('a relief too small for its regulator fails its run, and its page shows both curves', async ({
  page,
}) => {
  test.setTimeout(240_000)
  const hands = new Hands(page)
  await toTest(page, hands, 'odda', /\bSR-107/)
  await hands.press('Start the as-found test')
  await streamTest(page, hands)
  await expect(page.locator('p.whole')).toContainText('Fail')
  await expect(itemRow(page, 'Relief, start to discharge')).toContainText('to spare')
  await expect(itemRow(page, 'Balance, regulator failed wide open')).toContainText('over')
  await page.goto('/equipment?q=SR-107')
  await page.getByRole('link', { name: 'SR-107' }).click()
  await expect(page.getByText('Too small')).toBeVisible()
  await expect(page.getByText(/the relief lets off/)).toBeVisible()
})

test('a slam-shut trips high and low, and the monitor of another station takes over', async ({
  page,
}) => {
  test.setTimeout(300_000)
  const hands = new Hands(page)
  await toTest(page, hands, 'odda', /\bSR-101/)
  await hands.press('Start the as-found test')
  await streamTest(page, hands)
  await expect(itemRow(page, 'Slam-shut, high trip')).toContainText('to spare')
  await expect(itemRow(page, 'Slam-shut, low trip')).toContainText('to spare')
  await page.goto('/')
  await page
    .getByRole('link', { name: /SPR-102/ })
    .first()
    .click()
  await hands.press('Prepared – set off')
  await hands.press('It is this one')
  await hands.press('Start the as-found test')
  await streamTest(page, hands)
  await expect(itemRow(page, 'Monitor take-over')).toContainText('to spare')
})

test('a sampler and a coupler are proved by what is seen and counted', async ({ page }) => {
  test.setTimeout(180_000)
  await arrive(page, /\bCS-101/)
  const sampler: Readonly<Record<string, string>> = {
    Air: '78',
    'Volume of a sample': '30',
    'Smallest sample': '29',
    'Stroke out': '1.2',
    'Stroke back': '1.3',
  }
  await typeTest(
    page,
    (title) => sampler[title] ?? '0',
    (question) => (question === 'Drain' ? 'Weeps product' : undefined),
  )
  await expect(page.locator('p.whole')).toContainText('The drain is not dry')

  await page.goto('/')
  await page
    .getByRole('link', { name: /\b(CC|NSC)-101/ })
    .first()
    .click()
  await button(page, 'Prepared – set off').click()
  await button(page, 'It is this one').click()
  await page.getByLabel('Simulated gauge').check()
  await button(page, 'Start the as-found test').click()
  await streamTest(
    page,
    new Hands(page),
    {},
    {
      'Test pressure, coupled': '150',
      'Spill on parting': '12',
    },
  )
  await expect(page.locator('p.whole')).toContainText('Pass')
})
