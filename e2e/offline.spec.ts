import { expect, type Page, test } from '@playwright/test'
import { drawAndSign } from './job'
import { signIn } from './people'
import { runTypedTest } from './typedTest'

test.use({ serviceWorkers: 'allow' })

const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name })

test('a day without a line: the application starts cold, a visit is tested, repaired and tested again; with the line back it is sent by itself, and signed', async ({
  page,
  context,
}) => {
  test.setTimeout(180_000)
  await signIn(page, 'odda')
  await expect(page.getByText(/^Ready for the pit: \d+ visits/)).toBeVisible({ timeout: 60_000 })
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))

  // In the pit: the tab is opened anew, and there is no line.
  await context.setOffline(true)
  await page.reload()
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
  await again
    .getByRole('link', { name: /RP-107/ })
    .first()
    .click()
  await button(again, 'Back under pressure, no leaks').click()
  await button(again, 'Start the as-left test').click()
  await runTypedTest(again, { relief: '2.4', check1: '7.3' })
  await again
    .getByRole('link', { name: /^Today/ })
    .first()
    .click()
  // Whoever signs out now is told what waits.
  await button(again, 'Odda Marrin').click()
  await again.getByLabel('Odda Marrin').getByText('Sign out').click()
  await expect(again.getByText(/have not reached the server yet/)).toBeVisible()
  await button(again, 'Stay signed in').click()

  // Nothing is opened: what waits goes by itself, oldest visit first.
  await context.setOffline(false)
  await expect(again.getByText(/entries of RP-107 wait/)).toHaveCount(0, { timeout: 60_000 })
  const visits = await again.request.get('/api/v1/visits?scope=mine&state=under-way')
  const { items } = (await visits.json()) as {
    items: { done: string[]; equipment: { tag: string } }[]
  }
  expect(items.find((v) => v.equipment.tag === 'RP-107')?.done).toContain('return')
  await again
    .getByRole('link', { name: /RP-107/ })
    .first()
    .click()
  await drawAndSign(again, 'Sign and issue the certificate')
  await again.getByRole('link', { name: 'Open the certificate' }).click()
  await expect(again.getByRole('heading', { level: 1 })).toHaveText(/^LH-\d{4}-\d{6}$/)
})
