import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { expect, type Page, test } from '@playwright/test'
import { compactVerify, createLocalJWKSet } from 'jose'
import { drawAndSign } from './job'
import { signIn } from './people'
import { runTypedTest } from './typedTest'

const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name })

test('the whole job: sign in, test, repair, test again, sign, and a stranger verifies', async ({
  page,
  browser,
  request,
}) => {
  await signIn(page, 'odda')
  await page
    .getByRole('link', { name: /RP-101/ })
    .first()
    .click()
  await button(page, 'Prepared – set off').click()
  await button(page, 'It is this one').click()

  // A shut station says why it is shut.
  await button(page, /^Rebuild: not yet/).click()
  await expect(page.getByRole('alert')).toContainText('Finish As-found first')

  await page.getByLabel('Read and typed in').check()
  await button(page, 'Start the as-found test').click()
  await runTypedTest(page, { relief: '2.2', check1: '3.4' })
  await expect(page.getByText('3.4 psid is 1.6 under the limit of 5.0 psid').first()).toBeVisible()
  await button(page, 'Make it safe, then repair').click()
  await button(page, 'Zero is proved – open up').click()
  await button(page, 'Opened and inspected').click()
  await button(page, 'Rebuilt – tray empty').click()
  await expect(page.getByRole('alert')).toContainText('Nothing is recorded of the repair')
  await page.getByLabel('What was done').fill('Grit on the disc of check 1, wiped clean.')
  await button(page, 'Record the repair').click()
  await button(page, 'Rebuilt – tray empty').click()
  await button(page, 'Back under pressure, no leaks').click()
  await button(page, 'Start the as-left test').click()
  await runTypedTest(page, { relief: '2.4', check1: '7.3' })

  await drawAndSign(page, 'Sign and issue the certificate')
  // The record on paper is a whole one: whose it is, every entry with its day, from the first to the last.
  await page.getByRole('link', { name: 'The whole record, to print' }).click()
  await expect(page.getByRole('heading', { name: 'Every entry, in its order' })).toBeVisible()
  await expect(page.getByRole('row', { name: /Signed by Odda Marrin/ })).toBeVisible()
  const paper = test.info().outputPath('record.pdf')
  await page.pdf({ path: paper, format: 'A4' })
  const record = execFileSync('pdftotext', ['-layout', paper, '-'], { encoding: 'utf8' })
  const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
  for (const part of [
    'Serial',
    'Position',
    'BT-2231',
    '3.4 psid',
    '7.3 psid',
    'Grit on the disc',
    'Arrive finished',
    `${day.format(new Date())},`,
  ]) {
    expect(record).toContain(part)
  }
  expect(record.indexOf('Arrive finished')).toBeLessThan(
    record.lastIndexOf('As-left test finished'),
  )
  await page.getByRole('link', { name: 'Back to the visit' }).click()
  await page.getByRole('link', { name: 'Open the certificate' }).click()
  const heading = page.getByRole('heading', { level: 1 })
  await expect(heading).toHaveText(/^LH-\d{4}-\d{6}$/)
  const number = await heading.innerText()

  const downloading = page.waitForEvent('download')
  await page.getByRole('link', { name: 'PDF' }).click()
  const pdf = await (await downloading).path()
  const text = execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' })
  for (const part of [
    number,
    'RP-101',
    '3.4 psid',
    '7.3 psid',
    'Grit on the disc',
    'Odda Marrin',
    'BT-2231',
    'PASS',
  ]) {
    expect(text).toContain(part)
  }
  execFileSync('qpdf', ['--check', pdf])
  execFileSync('pdftoppm', ['-r', '150', '-png', '-singlefile', pdf, pdf])
  const code = execFileSync('zbarimg', ['-q', '--raw', `${pdf}.png`], { encoding: 'utf8' }).trim()
  expect(code).toMatch(new RegExp(`/verify/${number}-`))

  const stranger = await (await browser.newContext()).newPage()
  await stranger.goto(code)
  await expect(
    stranger.getByRole('heading', { name: /^Passed; the next test is due/ }),
  ).toBeVisible()
  await expect(stranger.getByText('Genuine, not replaced.')).toBeVisible()
  await expect(stranger.getByText('7.3', { exact: true }).first()).toBeVisible()

  const jwksResponse = await request.get('/.well-known/jwks.json')
  const signing = stranger.waitForEvent('download')
  await stranger.getByRole('link', { name: 'Signed file' }).click()
  const jws = readFileSync(await (await signing).path(), 'utf8')
  const { payload } = await compactVerify(jws, createLocalJWKSet(await jwksResponse.json()))
  expect(JSON.parse(new TextDecoder().decode(payload))).toMatchObject({ number, outcome: 'pass' })
})

test('what is recorded without a connection is kept over a reload and sent later', async ({
  page,
  context,
}) => {
  await signIn(page, 'odda')
  await page
    .getByRole('link', { name: /RP-109/ })
    .first()
    .click()
  await button(page, 'Prepared – set off').waitFor()
  await context.setOffline(true)
  await page.getByLabel('Note').fill('Gate was locked, key at the kiosk.')
  await button(page, 'Prepared – set off').click()
  await expect(page.getByText('2 entries wait on this device')).toBeVisible()
  await context.setOffline(false)
  await page.reload()
  await expect(page.getByText('Gate was locked, key at the kiosk.')).toBeVisible()
  await expect(page.getByText('waits to be sent')).toHaveCount(0)
})

test('a correction leaves the original in sight', async ({ page }) => {
  await signIn(page, 'odda')
  await page
    .getByRole('link', { name: /RP-102/ })
    .first()
    .click()
  await button(page, /Correct: As-found, check 1/).click()
  await page.getByLabel('It should say').fill('6.3')
  await page.getByLabel('Why', { exact: true }).fill('Digits exchanged')
  await button(page, 'Correct it').click()
  await expect(page.locator('s', { hasText: /check 1 differential: \d\.\d psid/ })).toBeVisible()
  await expect(button(page, 'Passed – left as it was found')).toBeVisible()
})

test('an expired licence and a gauge out of calibration are refused in words', async ({ page }) => {
  await signIn(page, 'teo')
  await page
    .getByRole('link', { name: /RP-103/ })
    .first()
    .click()
  await button(page, 'Prepared – set off').click()
  await button(page, 'It is this one').click()
  await page
    .getByLabel('Gauge', { exact: true })
    .selectOption({ label: 'G-03 · 15 psi · out of calibration' })
  await button(page, 'Start the as-found test').click()
  await expect(page.getByText('Gauge G-03 is not in calibration')).toBeVisible()
  await page.getByLabel('Gauge', { exact: true }).selectOption({ label: 'G-01 · 15 psi' })
  await button(page, 'Start the as-found test').click()
  await expect(page.getByText(/Licence BT-1904 expired on/)).toBeVisible()
})
