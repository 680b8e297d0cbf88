import { type CDPSession, expect, test } from '@playwright/test'
import { signIn } from './people'
import { eventsOf, planVisit } from './plan'

test.use({ serviceWorkers: 'allow' })

/** What the browser tells of the worker behind the pages. */
interface Registration {
  readonly registrationId: string
  readonly scopeURL: string
}
async function registrationOf(cdp: CDPSession, origin: string): Promise<string> {
  const found = new Promise<string>((resolve) =>
    cdp.on('ServiceWorker.workerRegistrationUpdated', ({ registrations }) => {
      const own = (registrations as Registration[]).find((r) => r.scopeURL.startsWith(origin))
      if (own) resolve(own.registrationId)
    }),
  )
  await cdp.send('ServiceWorker.enable')
  return found
}

test('what was recorded without a line is sent once there is one, though every page is closed', async ({
  page,
  context,
  baseURL,
}) => {
  const origin = baseURL ?? ''
  await signIn(page, 'teo')
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
  const visit = await planVisit(context.request, origin, 'RP-119')
  await page.goto(`/visits/${visit}`)
  await page.getByRole('button', { name: 'Prepared – set off' }).waitFor()
  await context.setOffline(true)
  await page.getByLabel('Note').fill('The gate is rusted through')
  await page.getByRole('button', { name: 'Prepared – set off' }).click()
  await expect(page.getByText('2 entries wait on this device')).toBeVisible()
  // The page is gone before there is a line again.
  const elsewhere = await context.newPage()
  await page.close()
  const cdp = await context.newCDPSession(elsewhere)
  const registrationId = await registrationOf(cdp, origin)
  await context.setOffline(false)
  const notes = async () =>
    (await eventsOf(context.request, origin, visit)).filter(
      (e) => e.payload.text === 'The gate is rusted through',
    ).length
  expect(await notes()).toBe(0)
  // The browser wakes the worker by its own clock; here it is told to.
  await cdp.send('ServiceWorker.dispatchSyncEvent', {
    origin,
    registrationId,
    tag: 'uvanta-entries',
    lastChance: false,
  })
  await expect.poll(notes, { timeout: 20_000 }).toBe(1)
  // A page that is opened then has nothing left to send.
  await elsewhere.goto(`${origin}/visits/${visit}`)
  await expect(elsewhere.getByText('The gate is rusted through').first()).toBeVisible()
  await expect(elsewhere.getByText(/wait on this device/)).toHaveCount(0)
})
