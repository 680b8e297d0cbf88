import { readFileSync, writeFileSync } from 'node:fs'
import { expect, type Page, test } from '@playwright/test'
import { DEMO_PASSWORD, signIn } from './people'

const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name })

test('a press counts once, however often the thumb comes down; what it wrote is taken back at once', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await signIn(page, 'odda', true)
  await page
    .getByRole('link', { name: /SCA-101/ })
    .first()
    .click()
  const which = page.getByRole('region', { name: 'Job guide' }).getByLabel('Job guide')
  await which.selectOption({ index: 1 })
  await button(page, 'Take this guide').click()
  const place = page.locator('.guide-step .place')
  await expect(place).toContainText('Step 1 of')
  const action = page.locator('.guide-step .actions .btn-primary').first()
  await action.scrollIntoViewIfNeeded()
  await expect(action).not.toHaveAttribute('data-settling')
  const box = (await action.boundingBox())!
  const at = [box.x + box.width / 2, box.y + box.height / 2] as const
  await page.mouse.click(...at)
  await page.waitForTimeout(120)
  await page.mouse.click(...at)
  await expect(place).toContainText('Step 2 of')
  await page.waitForTimeout(700)
  await expect(place).toContainText('Step 2 of')

  await button(page, 'Undo').click()
  await expect(place).toContainText('Step 1 of')
  await expect(page.getByText('withdrawn').first()).toBeVisible()
  await expect(page.getByText('taken back at once').first()).toBeVisible()

  // Whoever works by keys, or listens, goes on where the work does and not at the top of the page.
  await expect(action).not.toHaveAttribute('data-settling')
  await action.press('Enter')
  await expect(place).toContainText('Step 2 of')
  await expect(page.locator('.guide-step :focus')).toHaveCount(1)
})

test('the office moves a visit and hands it over; both technicians see it where it is', async ({
  page,
  browser,
}) => {
  await signIn(page, 'sula')
  await page
    .getByRole('link', { name: /RP-106/ })
    .first()
    .click()
  await button(page, 'Plan it otherwise').click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Technician').selectOption({ label: 'Teo Branwick' })
  await dialog.getByLabel('Time').fill('14:30')
  await dialog.getByLabel('Why').fill('Odda is at the bath')
  await button(page, 'Plan it so').click()
  await expect(page.getByText(/Teo Branwick: Odda is at the bath/)).toBeVisible()
  const teo = await (await browser.newContext()).newPage()
  await signIn(teo, 'teo')
  const row = teo.getByRole('link', { name: /RP-106/ }).first()
  await expect(row).toContainText('14:30')
  await row.click()
  // It is his now; he asks the office for another day.
  await button(teo, 'Ask the office to plan it otherwise').click()
  await teo.getByLabel('What is asked, and why').fill('Customer away until Thursday')
  await button(teo, 'Ask').last().click()
  await expect(teo.getByText('Teo Branwick asks the office: Customer away')).toBeVisible()
  // What he wrote is shown to him before it is sent.
  await expect(async () => {
    await page.goto('/')
    await expect(page.getByRole('region', { name: 'Asked of the office' })).toContainText(
      'Customer away until Thursday',
      { timeout: 5_000 },
    )
  }).toPass()
})

test('a locked screen opens with the PIN, and what was typed is still there', async ({ page }) => {
  await signIn(page, 'odda')
  await page.goto('/account')
  await page.getByLabel('New PIN').fill('274913')
  await page.getByLabel('The same again').fill('274913')
  await page.getByLabel('Password', { exact: true }).fill(DEMO_PASSWORD)
  await button(page, 'Set the PIN').click()
  await expect(page.getByText('This device has a PIN of yours.')).toBeVisible()
  await page.goto('/')
  await page
    .getByRole('link', { name: /RP-112/ })
    .first()
    .click()
  await page.getByLabel('Note').fill('Half a thought')
  await button(page, 'Odda Marrin').click()
  await page.getByLabel('Odda Marrin').getByText('Lock', { exact: true }).click()
  await expect(page.getByRole('dialog', { name: 'Locked' })).toBeVisible()
  await page.reload()
  // A reload opens nothing, and loses nothing.
  await expect(page.getByRole('dialog', { name: 'Who is there?' })).toBeVisible()
  await page.getByLabel('PIN of this device').fill('274913')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(page.getByLabel('Note')).toHaveValue('Half a thought')
  // Somebody else takes the device: nothing of hers is his.
  await button(page, 'Odda Marrin').click()
  await page.getByLabel('Odda Marrin').getByText('Lock', { exact: true }).click()
  await button(page, 'Somebody else').click()
  await expect(button(page, 'Odda Marrin')).toBeVisible()
  await signIn(page, 'teo')
  await page.goto('/account')
  await expect(page.getByLabel('New PIN')).toBeVisible()
})

test('a signed file is checked in the browser: the true one opens, a changed one does not', async ({
  page,
  browser,
}, info) => {
  await signIn(page, 'ivo')
  await page.goto('/certificates')
  await page.getByRole('link', { name: /^LH-/ }).first().click()
  const downloading = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Signed file' }).click()
  const path = await (await downloading).path()
  const jws = readFileSync(path, 'utf8')
  const stranger = await (await browser.newContext()).newPage()
  await stranger.goto('/verify')
  const [head = '', body = '', signature = ''] = jws.trim().split('.')
  const changed = info.outputPath('changed.jws')
  const said = Buffer.from(body, 'base64url')
    .toString()
    .replace(/"serial":"[^"]+"/, '"serial":"X-1"')
  writeFileSync(changed, [head, Buffer.from(said).toString('base64url'), signature].join('.'))
  await stranger.getByLabel(/Or check a signed file/).setInputFiles(changed)
  await expect(stranger.getByRole('alert')).toContainText('was changed after it was signed')
  const genuine = info.outputPath('genuine.jws')
  writeFileSync(genuine, jws)
  await stranger.getByLabel(/Or check a signed file/).setInputFiles(genuine)
  await expect(stranger.getByText('Genuine, not replaced.')).toBeVisible()
})
