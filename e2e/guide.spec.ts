import { expect, type Page, test } from '@playwright/test'
import { signIn } from './people'

const button = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name, exact: typeof name === 'string' })

/** Carries out the steps of a station as the guide asks; figures that the sheet lacks are entered with their source. */
async function carryOut(page: Page): Promise<string[]> {
  const said: string[] = []
  const say = page.locator('.say')
  for (let n = 0; n < 60; n++) {
    await expect(say.or(page.locator('p.all')).first()).toBeVisible()
    if (!(await say.isVisible())) return said
    const words = await say.innerText()
    const ask = page.locator('form.ask')
    if (await ask.isVisible()) {
      await ask.getByLabel('Value').fill('8')
      await button(page, 'Keep it').click()
      await expect(ask.getByText('where it comes from')).toBeVisible()
      await ask.getByLabel('Where from').fill('Sheet of maker B, page 4, 2024')
      await button(page, 'Keep it').click()
      await expect(ask).toHaveCount(0)
    }
    said.push(words)
    await page
      .locator('section.step .answers .btn, section.step .actions .btn-primary')
      .first()
      .click()
    await expect(say.filter({ hasText: words })).toHaveCount(0)
  }
  throw new Error('the station does not end')
}

/** The readings of a double check, entered as from paper; the test finished. */
async function fillForm(page: Page, check1: string): Promise<void> {
  await button(page, 'Enter a filled form').click()
  await page.getByLabel('Shutoff 2', { exact: true }).selectOption('tight')
  await page.getByLabel('Check 1 differential', { exact: true }).fill(check1)
  await page.getByLabel('Check 2 differential', { exact: true }).fill('1.9')
  await button(page, 'Record the form').click()
  await button(page, 'Finish the test').click()
}

test('a double check fails as found, is opened by its guide, cleaned, and passes as left', async ({
  page,
}) => {
  test.setTimeout(240_000)
  await signIn(page, 'odda')
  await page
    .getByRole('link', { name: /DC-10[2-9]|DC-11\d/ })
    .first()
    .click()
  await button(page, 'Take this guide').click()
  await carryOut(page)
  await button(page, 'Prepared – set off').click()
  await button(page, 'It is this one').click()
  await page.getByLabel('Read and typed in').check()
  await button(page, 'Start the as-found test').click()
  await fillForm(page, '0.0')
  await button(page, 'Make it safe, then repair').click()

  await carryOut(page)
  await button(page, 'Zero is proved – open up').click()
  const tray = page.getByRole('region', { name: 'Tray and kit' })
  await expect(tray).toContainText('Empty')
  await carryOut(page)
  await expect(tray.locator('.slots li').first()).toContainText('Cover')
  // The place is kept over a reload, as over a flat battery.
  await page.reload()
  await expect(tray.locator('.slots li').first()).toContainText('Cover')
  await button(page, 'Opened and inspected').click()

  const rebuilt = await carryOut(page)
  expect(rebuilt.length).toBeGreaterThan(3)
  await expect(tray).toContainText('Empty')
  await page.getByLabel('What was done').fill('Grit on the disc of check 1, wiped clean.')
  await page.getByLabel('Check 1: done').selectOption('cleaned')
  await button(page, 'Record the repair').click()
  await button(page, 'Rebuilt – tray empty').click()
  await carryOut(page)
  await button(page, 'Back under pressure, no leaks').click()
  await button(page, 'Start the as-left test').click()
  await fillForm(page, '2.2')
  await expect(page.getByText('Every required item meets its limit').first()).toBeVisible()
})

test('the library shows a guide as a document, with its proof', async ({ page }) => {
  await signIn(page, 'odda')
  await page.getByRole('link', { name: 'Library' }).first().click()
  await page.getByLabel('Search the guides').fill('snap ring')
  await page
    .getByRole('link', { name: /spool valve/i })
    .first()
    .click()
  await expect(page.getByText('Proved')).toBeVisible()
  await expect(page.getByText('No ring in the vented groove')).toBeVisible()
})

test('the workbench answers what a technician would look up', async ({ page }) => {
  await signIn(page, 'odda')
  await page.getByRole('link', { name: 'Workbench' }).first().click()
  await page.getByLabel('Bolts', { exact: true }).fill('6')
  await expect(page.getByTestId('bolt-order')).toHaveText('1 – 4 – 2 – 5 – 6 – 3')
  await page.getByLabel('Unit of the torque').selectOption('psi')
  await expect(page.getByText(/is a pressure/)).toBeVisible()
  await page.getByLabel('Inside diameter').fill('18.6')
  await page.getByLabel('Section', { exact: true }).fill('3.5')
  await expect(page.getByText('-210')).toBeVisible()
})
