import { expect, type Page, test } from '@playwright/test'
import { carryOut, closeRebuild, drawAndSignWithPin, fillForm, leave, takeGuide } from './job'
import { DEMO_PASSWORD, signIn } from './people'
import { runTypedTest } from './typedTest'

test.use({ serviceWorkers: 'allow' })

const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name })

/** A sampler in order, by the labels of its form. */
const SAMPLER = {
  Air: '80',
  'Volume of a sample': '30',
  'Smallest sample': '29',
  'Drip between samples': '0',
  'Stroke out': '0.6',
  'Stroke back': '0.6',
}
const PIN = '274913'
/** The kits of the two jobs. */
const KITS = ['K-ARPA-211', 'K-CCS-231'] as const

async function setOff(page: Page): Promise<void> {
  await button(page, 'Prepared – set off').click()
  const all = button(page, 'Go all the same')
  const here = button(page, 'It is this one')
  await expect(all.or(here)).toBeVisible()
  if (await all.isVisible()) await all.click()
  await here.click()
}

/** How many of a kit lie on a person’s van. */
async function onVan(page: Page, number: string, holder: string): Promise<number> {
  const answer = await page.request.get('/api/v1/stock')
  const { items } = (await answer.json()) as {
    items: { number: string; held: { holder: string; quantity: number }[] }[]
  }
  const held = items.find((i) => i.number === number)?.held ?? []
  return held.find((h) => h.holder === holder)?.quantity ?? 0
}

test('a day without a line: the application starts cold, an assembly is tested, rebuilt by its guide, tested again and signed, a sampler after it; with the line back both are sent by themselves, certified, and the kits are off the van', async ({
  page,
  context,
}) => {
  test.setTimeout(420_000)
  const began = Date.now()
  await signIn(page, 'odda')
  await expect(page.getByText(/^Ready for the pit: \d+ visits/)).toBeVisible({ timeout: 60_000 })
  // Once, with a line: a PIN opens the key of this device.
  await page.goto('/account')
  await page.getByLabel('New PIN').fill(PIN)
  await page.getByLabel('The same again').fill(PIN)
  await page.getByLabel('Password', { exact: true }).fill(DEMO_PASSWORD)
  await button(page, 'Set the PIN').click()
  await expect(page.getByText('This device has a PIN of yours.')).toBeVisible()
  const kits = await Promise.all(KITS.map((k) => onVan(page, k, 'Odda Marrin')))
  await page.goto('/')
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))

  // In the pit: the tab is opened anew, and there is no line.
  await context.setOffline(true)
  await page.reload()
  await page.getByLabel('PIN of this device').fill('111111')
  await expect(page.getByText('That is not the PIN. 9 tries are left.')).toBeVisible()
  await page.getByLabel('PIN of this device').fill(PIN)
  await expect(page.getByText(/^No line · as of/)).toBeVisible()
  await page
    .getByRole('link', { name: /RP-107/ })
    .first()
    .click()
  // What the customer noticed leads to parts and guide on the device as well.
  await page.getByLabel('Find it by what is seen or heard').fill('drips when nothing flows')
  await expect(page.getByText('Relief drips only when nothing flows')).toBeVisible()
  await takeGuide(page, /checks under spring and cover/, null)
  await carryOut(page)
  await setOff(page)
  await carryOut(page)
  await leave(page, 'Looked round – test it as it stands')
  await page.getByLabel('Read and typed in').check()
  await button(page, 'Start the as-found test').click()
  await runTypedTest(page, { relief: '2.2', check1: '3.4' })
  await expect(page.getByText('3.4 psid is 1.6 under the limit of 5.0 psid').first()).toBeVisible()
  // What it may be is worked out on the device.
  const mayBe = page.getByRole('region', { name: 'What it may be' })
  await expect(mayBe.getByRole('listitem').first()).toContainText('Check 1', { timeout: 60_000 })
  await button(page, 'Make it safe, then repair').click()
  // The figures point to check 1: its kit is counted when its disc is renewed.
  await carryOut(page)
  await leave(page, 'Zero is proved – open up')
  await carryOut(page, { defects: { 'Disc 1': 'cut' } })
  await leave(page, 'Opened and inspected')
  await carryOut(page)
  await closeRebuild(page)

  // The battery dies: another page of the same device goes on where the first one was.
  await page.close()
  const again = await context.newPage()
  await again.goto('/')
  await again.getByLabel('PIN of this device').fill(PIN)
  await again
    .locator('main')
    .getByRole('link', { name: /RP-107/ })
    .first()
    .click()
  await carryOut(again)
  await leave(again, 'Back under pressure, no leaks')
  await button(again, 'Start the as-left test').click()
  await runTypedTest(again, { relief: '2.4', check1: '7.3' })
  await carryOut(again)
  await drawAndSignWithPin(again, PIN)
  await again.getByRole('link', { name: 'Show the provisional sheet' }).click()
  await expect(again.getByText('Provisional – no certificate.')).toBeVisible()
  await expect(again.getByText('7.3 psid').first()).toBeVisible()

  // On to the next job of the day, still without a line.
  await again.getByRole('link', { name: 'Today', exact: true }).click()
  await again
    .locator('main')
    .getByRole('link', { name: /CS-102/ })
    .first()
    .click()
  await takeGuide(again, null, 'With an isolation valve, on the bench')
  await carryOut(again)
  await setOff(again)
  await button(again, 'Start the as-found test').click()
  await fillForm(again, { ...SAMPLER, 'Drip between samples': '6' })
  await button(again, 'Make it safe, then repair').click()
  await carryOut(again)
  await leave(again, 'Zero is proved – open up')
  await carryOut(again, { defects: { 'Seals of the plunger': 'worn' } })
  await leave(again, 'Opened and inspected')
  await carryOut(again)
  await closeRebuild(again)
  await carryOut(again)
  await leave(again, 'Back under pressure, no leaks')
  await button(again, 'Start the as-left test').click()
  await fillForm(again, SAMPLER)
  await carryOut(again)
  await drawAndSignWithPin(again, PIN)
  // Whoever signs out now is told what waits.
  await button(again, 'Odda Marrin').click()
  await again.getByLabel('Odda Marrin').getByText('Sign out').click()
  await expect(again.getByText(/have not reached the server yet/)).toBeVisible()
  await button(again, 'Stay signed in').click()
  await again.getByRole('link', { name: /^\d+ entries wait$/ }).click()
  await expect(
    again.getByRole('listitem').filter({ hasText: 'Signed by Odda Marrin' }),
  ).toHaveCount(2)

  // No visit is open: what waits goes by itself, and the certificate is issued.
  await context.setOffline(false)
  await expect(again.getByText('Nothing waits')).toBeVisible({ timeout: 60_000 })
  for (const tag of ['RP-107', 'CS-102']) {
    await again.goto(`/certificates?q=${tag}`)
    await again.getByRole('link', { name: /^LH-/ }).first().click()
    await expect(again.getByRole('heading', { level: 1 })).toHaveText(/^LH-\d{4}-\d{6}$/)
    await expect(again.getByText(tag).first()).toBeVisible()
    // Of this day, not one of the years before.
    const id = new URL(again.url()).pathname.split('/').at(-1) ?? ''
    const answer = await again.request.get(`/api/v1/certificates/${id}`)
    const { issuedAt } = (await answer.json()) as { issuedAt: string }
    expect(new Date(issuedAt).getTime()).toBeGreaterThan(began)
  }
  for (const [n, kit] of KITS.entries())
    expect(await onVan(again, kit, 'Odda Marrin')).toBe((kits[n] ?? 0) - 1)
})
