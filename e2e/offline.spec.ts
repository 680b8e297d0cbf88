import { expect, type Page, test } from '@playwright/test'
import { drawAndSignWithPin } from './job'
import { DEMO_PASSWORD, signIn } from './people'
import { runTypedTest } from './typedTest'

test.use({ serviceWorkers: 'allow' })

const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name })

const PIN = '274913'

test('a day without a line: the application starts cold, a visit is tested, repaired, tested again and signed; with the line back it is sent by itself, and certified', async ({
  page,
  context,
}) => {
  test.setTimeout(180_000)
  await signIn(page, 'odda')
  await expect(page.getByText(/^Ready for the pit: \d+ visits/)).toBeVisible({ timeout: 60_000 })
  // Once, with a line: a PIN opens the key of this device.
  await page.goto('/account')
  await page.getByLabel('New PIN').fill(PIN)
  await page.getByLabel('The same again').fill(PIN)
  await page.getByLabel('Password', { exact: true }).fill(DEMO_PASSWORD)
  await button(page, 'Set the PIN').click()
  await expect(page.getByText('This device has a PIN of yours.')).toBeVisible()
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
  await button(page, 'Prepared – set off').click()
  await button(page, 'It is this one').click()
  await page.getByLabel('Read and typed in').check()
  await button(page, 'Start the as-found test').click()
  await runTypedTest(page, { relief: '2.2', check1: '3.4' })
  await expect(page.getByText('3.4 psid is 1.6 under the limit of 5.0 psid').first()).toBeVisible()
  await button(page, 'Make it safe, then repair').click()
  await button(page, 'Zero is proved – open up').click()
  await button(page, 'Opened and inspected').click()
  await page.getByLabel('What was done').fill('Grit on the disc of check 1, wiped clean.')
  await button(page, 'Record the repair').click()
  await button(page, 'Rebuilt – tray empty').click()

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
  await button(again, 'Back under pressure, no leaks').click()
  await button(again, 'Start the as-left test').click()
  await runTypedTest(again, { relief: '2.4', check1: '7.3' })
  await drawAndSignWithPin(again, PIN)
  await again.getByRole('link', { name: 'Show the provisional sheet' }).click()
  await expect(again.getByText('Provisional – no certificate.')).toBeVisible()
  await expect(again.getByText('7.3 psid').first()).toBeVisible()
  // Whoever signs out now is told what waits.
  await button(again, 'Odda Marrin').click()
  await again.getByLabel('Odda Marrin').getByText('Sign out').click()
  await expect(again.getByText(/have not reached the server yet/)).toBeVisible()
  await button(again, 'Stay signed in').click()
  await again.getByRole('link', { name: /^\d+ entries of RP-107 wait$/ }).click()
  await expect(
    again.getByRole('listitem').filter({ hasText: 'Signed by Odda Marrin' }),
  ).toBeVisible()

  // No visit is open: what waits goes by itself, and the certificate is issued.
  await context.setOffline(false)
  await expect(again.getByText('Nothing waits')).toBeVisible({ timeout: 60_000 })
  await again.goto('/certificates')
  await again.getByRole('link', { name: /^LH-/ }).first().click()
  await expect(again.getByRole('heading', { level: 1 })).toHaveText(/^LH-\d{4}-\d{6}$/)
  await expect(again.getByText('RP-107').first()).toBeVisible()
})
