import { expect, test } from '@playwright/test'
import { signIn } from './people'
import { eventsOf, planVisit } from './plan'

test('a second tab upgrades the storage of the device while the first has unsent entries: all of them are sent', async ({
  page,
  context,
  baseURL,
}) => {
  const origin = baseURL ?? ''
  await signIn(page, 'teo')
  const visit = await planVisit(context.request, origin, 'RP-119')
  const second = await context.newPage()
  await second.goto('/healthz')
  await page.goto(`/visits/${visit}`)
  await page.getByRole('button', { name: 'Prepared – set off' }).waitFor()
  await context.setOffline(true)
  await page.getByLabel('Note').fill('Before the new version')
  await page.getByRole('button', { name: 'Prepared – set off' }).click()
  await expect(page.getByText('2 entries wait on this device')).toBeVisible()
  // A newer version of the application opens the database with a higher version number.
  const kept = await second.evaluate(
    () =>
      new Promise<number>((done, failed) => {
        const asked = indexedDB.open('uvanta', 99)
        asked.onblocked = () => failed(new Error('the first tab does not let go'))
        asked.onerror = () => failed(asked.error ?? new Error('not opened'))
        asked.onsuccess = () => {
          const counted = asked.result.transaction('entries').objectStore('entries').count()
          counted.onsuccess = () => done(counted.result)
        }
      }),
  )
  // The entries are still there. The first tab warns that it can no longer store entries, and still sends them.
  expect(kept).toBe(2)
  await page.getByRole('button', { name: 'It is this one' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'device' }).first()).toBeVisible()
  await context.setOffline(false)
  const kinds = async () => (await eventsOf(context.request, origin, visit)).map((e) => e.kind)
  await expect
    .poll(kinds, { timeout: 30_000 })
    .toEqual(['planned', 'note', 'station-done', 'identity', 'station-done'])
})
