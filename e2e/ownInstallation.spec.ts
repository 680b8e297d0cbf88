import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, type Locator, type Page, test } from '@playwright/test'
import { addDays } from '@uvanta/core/calendar'
import { compactVerify, createLocalJWKSet } from 'jose'
import { draw } from './job'
import { settledAtOnce } from './people'
import { runTypedTest } from './typedTest'

const root = join(import.meta.dirname, '..')
const PORT = 4978
const ORIGIN = `http://127.0.0.1:${PORT}`
const PASSWORD = 'four unlike words stand here'
const NEXT = 'and five others lie beneath them'
const data = mkdtempSync(join(tmpdir(), 'uve2e-own-'))
let launcher: ChildProcess

/** A utility of its own, as docs/OPERATIONS.md has it: nothing of the demo is in it. */
test.beforeAll(async () => {
  test.setTimeout(240_000)
  const env = {
    ...process.env,
    UVANTA_PORT: String(PORT),
    UVANTA_PUBLIC_URL: ORIGIN,
    UVANTA_DB_WANTED_PORT: '4995',
    UVANTA_SECOND_FACTOR: 'offered',
  }
  launcher = spawn(join(root, 'uvanta'), ['--data', data, 'start', '--empty'], { env })
  let said = ''
  launcher.stdout?.on('data', (chunk: Buffer) => (said += chunk.toString()))
  launcher.stderr?.on('data', (chunk: Buffer) => (said += chunk.toString()))
  await expect(() => expect(said).toContain('Ctrl-C stops it')).toPass({ timeout: 200_000 })
  execFileSync(join(root, 'uvanta'), ['--data', data, 'admin', 'anna'], { env, input: PASSWORD })
})
test.afterAll(async () => {
  const ended = new Promise((done) => launcher.once('exit', done))
  launcher.kill('SIGTERM')
  await ended
  rmSync(data, { recursive: true, force: true })
})

async function signIn(page: Page, name: string, password: string): Promise<void> {
  await page.goto(`${ORIGIN}/sign-in`)
  await page.getByLabel('Name').fill(name)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page).not.toHaveURL(/sign-in/)
}

/** Fills what is asked for, by its label; a choice by the text of its option. */
async function fill(form: Locator, entries: Readonly<Record<string, string>>): Promise<void> {
  for (const [label, entry] of Object.entries(entries)) {
    const field = form.getByLabel(label, { exact: true })
    if ((await field.evaluate((e) => e.tagName)) === 'SELECT')
      await field.selectOption({ label: entry })
    else await field.fill(entry)
  }
}

test('from nothing to the first signed certificate', async ({ page, browser, request }) => {
  await settledAtOnce(page)
  const dialog = page.getByRole('dialog')
  const button = (name: string) => page.getByRole('button', { name, exact: true })
  const office = (tab: string) =>
    page
      .getByRole('navigation', { name: 'Office' })
      .getByRole('link', { name: tab, exact: true })
      .click()

  // The first administrator says what the utility is.
  await signIn(page, 'anna', PASSWORD)
  await expect(page.getByRole('heading', { name: 'Settings' })).toBeVisible()
  await expect(page.getByText('No certificates yet.')).toBeVisible()
  const main = page.getByRole('main')
  await fill(main, { Name: 'Example Water', 'Prefix of certificate numbers': 'ew' })
  await button('Save').click()
  await expect(page.getByText(/Prefix of certificate numbers must be/)).toBeVisible()
  await fill(main, {
    Authority: 'Example Water Authority',
    'Postal address': '3 Mill Lane, Example',
    Telephone: '555 0199',
    'Prefix of certificate numbers': 'EW',
    'Time zone': 'UTC',
  })
  await button('Save').click()
  await expect(page.getByText('Saved. Certificates can be issued.')).toBeVisible()

  // Rules and a programme, from templates.
  await button('Put in force: Backflow assemblies, relief valve first').click()
  await fill(dialog, { Source: 'Cross-connection manual, edition 7; compared by A. Example.' })
  await dialog.getByRole('button', { name: 'Put in force' }).click()
  await button('Put in force: Annual backflow test').click()
  await dialog.getByRole('button', { name: 'Put in force' }).click()
  await expect(page.getByText('in force', { exact: true })).toHaveCount(2)

  // A tester with a license, a gauge in calibration.
  const { today } = (await (await page.request.get(`${ORIGIN}/api/v1/session`)).json()) as {
    today: string
  }
  const [ago, later] = [addDays(today, -100), addDays(today, 200)]
  await office('People')
  await button('Add a person').click()
  await fill(dialog, { 'Sign-in name': 'tom', Name: 'Tom Example', 'First password': PASSWORD })
  await dialog.getByRole('button', { name: 'Add' }).click()
  await page
    .getByRole('row', { name: /Tom Example/ })
    .getByRole('button', { name: 'Enter a licence' })
    .click()
  await fill(dialog, { Number: 'BT-1', Issued: ago, Expires: later })
  await dialog.getByLabel('Licence', { exact: true }).selectOption('backflow-tester')
  await dialog.locator('button[type=submit]').click()
  await expect(page.getByText('BT-1')).toBeVisible()
  await office('Gauges')
  await button('Add a gauge').click()
  await fill(dialog, {
    Tag: 'G-1',
    Serial: '1001',
    Maker: 'Maker A',
    Span: '15',
    Unit: 'psi',
    Resolution: '0.1',
    'Accuracy, ± %': '0.25',
  })
  await dialog.getByRole('button', { name: 'Add' }).click()
  await page
    .getByRole('row', { name: /G-1/ })
    .getByRole('button', { name: 'Enter a calibration' })
    .click()
  await fill(dialog, { Calibrated: ago, 'Valid until': later, 'Certificate number': 'CAL-1' })
  await dialog.locator('button[type=submit]').click()
  await expect(page.getByText('CAL-1')).toBeVisible()

  // A customer’s assembly, and a visit to it.
  await page.goto(`${ORIGIN}/equipment/new`)
  await button('Add a site').click()
  await fill(dialog, {
    Site: 'Seagate Bath',
    Address: '1 Seagate',
    District: 'Harbour',
    Customer: 'Example Leisure',
  })
  await dialog.locator('button[type=submit]').click()
  await expect(dialog).toBeHidden()
  await fill(main, {
    Tag: 'RP-1',
    Site: 'Seagate Bath, 1 Seagate',
    Family: 'Reduced-pressure assembly',
    Kind: 'RP',
    'Size, in': '2',
    Serial: 'S-1',
    Maker: 'Maker A',
    Service: 'water',
    Programme: 'Annual backflow test',
    'Next due': addDays(today, 20),
    Position: 'Plant room',
  })
  await main.locator('button[type=submit]').click()
  await button('Plan a visit').click()
  await button('Plan the visit').click()
  await expect(page.getByText('Planned', { exact: true })).toBeVisible()

  // The tester tests it.
  const field = await (await browser.newContext()).newPage()
  await settledAtOnce(field)
  const press = (name: string) => field.getByRole('button', { name }).click()
  await signIn(field, 'tom', PASSWORD)
  await fill(field.getByRole('main'), { 'Present password': PASSWORD, 'New password': NEXT })
  await press('Change the password')
  await expect(field.getByText('The new password is in force.')).toBeVisible()
  await field.goto(ORIGIN)
  await field.getByRole('link', { name: /RP-1/ }).first().click()
  await press('Prepared – set off')
  await press('It is this one')
  await field.getByLabel('Read and typed in').check()
  await press('Start the as-found test')
  await runTypedTest(field, { relief: '2.4', check1: '7.3' })
  await press('Passed – left as it was found')
  await field.getByLabel('Password').fill(NEXT)
  await draw(field)
  await press('Sign and issue the certificate')
  await expect(field.getByRole('heading', { name: 'Signed and closed' })).toBeVisible()
  await field.getByRole('link', { name: 'Open the certificate' }).click()
  await expect(field.getByRole('heading', { level: 1 })).toHaveText(/^EW-\d{4}-000001$/)

  // The paper is the utility’s own, and verifies.
  const downloading = field.waitForEvent('download')
  await field.getByRole('link', { name: 'PDF' }).click()
  const pdf = await (await downloading).path()
  const text = execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' })
  for (const part of ['Example Water, 3 Mill Lane', 'Example Water Authority', 'BT-1', 'PASS'])
    expect(text).toContain(part)
  expect(text).not.toMatch(/larkhaven/i)
  const keys = await (await request.get(`${ORIGIN}/.well-known/jwks.json`)).json()
  const signing = field.waitForEvent('download')
  await field.getByRole('link', { name: 'What a stranger sees' }).click()
  await field.getByRole('link', { name: 'Signed file' }).click()
  const jws = readFileSync(await (await signing).path(), 'utf8')
  const { payload } = await compactVerify(jws, createLocalJWKSet(keys))
  expect(JSON.parse(new TextDecoder().decode(payload))).toMatchObject({
    outcome: 'pass',
    utility: 'Example Water',
    authority: 'Example Water Authority',
  })
})
