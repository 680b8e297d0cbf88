import { expect, type Page, test } from '@playwright/test'
import { Hands, streamTest, tooSmallDrawn, toTest } from './hands'
import { drawAndSign } from './job'
import { signIn } from './people'
import { strokeDown } from './stroke'

/** Said to whoever listens as well. */
const verdictOf = (page: Page) => page.getByRole('status').and(page.locator('p.whole'))
const itemRow = (page: Page, name: string) => page.locator('.verdict .item', { hasText: name })

test('a whole RP test with streamed readings: at most 20 presses, nothing typed, and it finds the fouled check', async ({
  page,
}) => {
  test.setTimeout(240_000)
  const hands = new Hands(page)
  await toTest(page, hands, 'odda', /RP-114/)
  hands.presses = 0
  await hands.press('Start the as-found test')
  // A relief valve that drips takes the meaning of check 2, whatever is answered.
  await streamTest(page, hands, { 'Relief port': 'Drips or runs', 'Check 2': 'Leaked' })
  expect(hands.presses).toBeLessThanOrEqual(20)
  await expect(verdictOf(page)).toContainText('Fail')
  await expect(itemRow(page, 'Check 1 differential')).toContainText('under the limit')
  // What it may be: the model names the check that is fouled, and which guide comes to it.
  const suspect = page.getByRole('region', { name: 'What it may be' }).getByRole('listitem').first()
  await expect(suspect).toContainText('Check 1', { timeout: 120_000 })
  await expect(suspect).toContainText(/Fouled.*Flush and clean it/s)
  await expect(page.getByText('It comes to Check 1.').first()).toBeVisible()

  // The mark on the trace can be moved, and that is on record.
  await page.getByRole('button', { name: 'Trace of check 1 differential' }).click()
  const dialog = page.getByRole('dialog')
  const mark = dialog.getByLabel('Where it is read')
  const readHere = dialog.getByRole('button', { name: 'Read it here' })
  // A dialog that is still opening takes the focus to itself.
  await expect(async () => {
    await mark.press('ArrowLeft')
    await expect(readHere).toBeEnabled({ timeout: 500 })
  }).toPass({ timeout: 20_000 })
  for (let n = 0; n < 5; n++) await mark.press('ArrowLeft')
  await readHere.click()
  await expect(page.getByText('Mark moved on the trace.')).toBeVisible()

  // Cleaned, it passes as left: the modelled check is no longer fouled.
  await hands.press('Make it safe, then repair')
  await hands.press('Zero is proved – open up')
  await hands.press('Opened and inspected')
  await page.getByLabel('What was done').fill('Grit on the disc of check 1, wiped clean.')
  await page
    .getByRole('group', { name: 'Cleaned or renewed' })
    .getByLabel('Check 1')
    .selectOption('cleaned')
  await hands.press('Record the repair')
  await hands.press('Rebuilt – tray empty')
  await hands.press('Back under pressure, no leaks')
  await hands.press('Start the as-left test')
  await streamTest(page, hands)
  await expect(page.getByText('Every required item meets its limit').first()).toBeVisible()
})

test('a visit that passes as found takes at most 20 presses, from opening it to the certificate', async ({
  page,
}) => {
  test.setTimeout(300_000)
  const hands = new Hands(page)
  await toTest(page, hands, 'odda', /\bDC-101/)
  // How readings are taken is chosen once; the device remembers it.
  await page.getByLabel('Read and typed in').check()
  await hands.press('Start the as-found test')
  await streamTest(
    page,
    hands,
    {},
    { 'Check 1 differential': '3.4', 'Check 2 differential': '2.9' },
  )
  await expect(verdictOf(page)).toContainText('Pass')
  await expect(page.getByText('Nothing was opened.')).toBeVisible()
  await hands.press('Passed – left as it was found')
  await drawAndSign(page, 'Sign and issue the certificate')
  // The visit opened, the signature drawn, the password’s field, and signed.
  hands.presses += 4
  expect(hands.presses).toBeLessThanOrEqual(20)
  await expect(page.getByText(/^Next test due/)).toBeVisible()
  await expect(page.getByRole('heading', { name: 'The customer’s copy' })).toBeVisible()
  await expect(page.getByRole('heading', { name: /^Next: / })).toBeVisible()
})

for (const { who, tag, answers, outcome, phone } of [
  { who: 'odda', tag: /PVB-1\d\d/, answers: {}, outcome: 'Pass', phone: true },
  {
    who: 'odda',
    tag: /SVB-1\d\d/,
    answers: { 'Air inlet at rest': 'Dry', 'Air inlet': 'Opens in part or sticks' },
    outcome: 'Fail',
    phone: true,
  },
  { who: 'odda', tag: /DCDA-101/, answers: {}, outcome: 'Fail', phone: true },
  { who: 'teo', tag: /RP-113/, answers: {}, outcome: 'Pass', phone: false },
  { who: 'teo', tag: /RPDA-1\d\d/, answers: {}, outcome: 'Pass', phone: false },
  { who: 'teo', tag: /\bDC-102/, answers: {}, outcome: 'Pass', phone: false },
] as const) {
  test(`${who} tests ${tag.source} with the simulated gauge: ${outcome}`, async ({ page }) => {
    test.setTimeout(300_000)
    const hands = new Hands(page)
    if (phone) await page.setViewportSize({ width: 390, height: 844 })
    await toTest(page, hands, who, tag)
    await hands.press('Start the as-found test')
    if (phone) {
      await expect(page.locator('svg.drawing').first()).toBeVisible()
      expect(await tooSmallDrawn(page)).toEqual([])
    }
    await streamTest(page, hands, answers)
    await expect(verdictOf(page)).toContainText(outcome)
  })
}

test('a link that drops out in the middle of a test says so, comes back, and nothing taken is lost', async ({
  page,
}) => {
  // The page’s own socket is at hand, to cut it and to make the stand-in misbehave.
  await page.addInitScript(() => {
    const sockets: WebSocket[] = []
    Object.assign(window, { sockets })
    window.WebSocket = class extends WebSocket {
      constructor(url: string | URL) {
        super(url)
        sockets.push(this)
      }
    }
  })
  const socket = (say: string | null) =>
    page.evaluate((line) => {
      const last = (window as unknown as { sockets: WebSocket[] }).sockets.at(-1)
      if (line === null) last?.close()
      else last?.send(line)
    }, say)
  const hands = new Hands(page)
  await toTest(page, hands, 'odda', /RP-115/)
  await hands.press('Start the as-found test')
  // A valve pressed on the drawing turns, is on record, and counts as the step’s own turn.
  await page.getByRole('button', { name: 'Cock 4, shut. Turn it' }).click()
  await expect(page.getByRole('button', { name: 'Cock 4, open. Turn it' })).toBeVisible()
  await expect(page.getByText('Cock 4 opened').first()).toBeVisible()
  await page.getByRole('button', { name: 'Cock 4, open. Turn it' }).click()
  await strokeDown(page)
  await hands.press('Dry')
  await expect(itemRow(page, 'Relief port at rest')).toContainText('Dry')
  await socket(null)
  await expect(page.getByText('Lost. Connecting again')).toBeVisible()
  await expect(page.getByText('On the line')).toBeVisible({ timeout: 20_000 })
  await socket('TROUBLE rubbish')
  await expect(page.getByText('Sends what cannot be read')).toBeVisible()
  await socket('TROUBLE flat')
  await expect(page.getByText(/battery is at 3 %/)).toBeVisible()
  await socket('TROUBLE ok')
  await expect(page.getByText('On the line')).toBeVisible()
  await hands.press('Carry it out')
  await hands.press(/^Tight/)
  await page.reload()
  await expect(itemRow(page, 'Relief port at rest')).toContainText('Dry')
  await expect(itemRow(page, 'Shutoff 2')).toContainText('Tight')
})

test('a filled paper form is entered from Enter to Enter', async ({ page }) => {
  await signIn(page, 'odda')
  await page
    .getByRole('link', { name: /RP-111/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Prepared – set off' }).click()
  await page.getByRole('button', { name: 'It is this one' }).click()
  await page.getByLabel('Read and typed in').check()
  await page.getByRole('button', { name: 'Start the as-found test' }).click()
  await page.getByRole('button', { name: 'Enter a filled form' }).click()
  await page.getByLabel('Relief port at rest').focus()
  for (const key of ['dry', 'Enter', 't', 'Enter', '2.4', 'Enter', 'h', 'Enter', '7.1', 'Enter']) {
    await (key === 'Enter' ? page.keyboard.press('Enter') : page.keyboard.type(key))
  }
  await page.getByRole('button', { name: 'Finish the test' }).click()
  await expect(verdictOf(page)).toContainText('Pass')
})

test('the blank form of a procedure is there to print', async ({ page }) => {
  await signIn(page, 'odda')
  await page
    .getByRole('link', { name: /RP-109/ })
    .first()
    .click()
  await page.getByRole('link', { name: 'Blank form for paper' }).click()
  await expect(page.getByText('Signature')).toBeVisible()
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
  await expect(page.getByText('Check 1 differential')).toBeVisible()
})
