import type { Page } from '@playwright/test'

export const DEMO_PASSWORD = 'larkhaven-demo'

/** Takes a press at once on what has just come up, so that a test may press as fast as the screen follows. */
export const settledAtOnce = (page: Page) =>
  page.context().addInitScript(() => {
    const { setAttribute } = Element.prototype
    Element.prototype.setAttribute = function (name, value) {
      if (name !== 'data-settling') setAttribute.call(this, name, value)
    }
  })

/** @param asAPerson presses count as they do for a person: nothing that has just come up takes one */
export async function signIn(page: Page, username: string, asAPerson = false): Promise<void> {
  if (!asAPerson) await settledAtOnce(page)
  await page.goto('/sign-in')
  await page.getByLabel('Name').fill(username)
  await page.getByLabel('Password').fill(DEMO_PASSWORD)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL('/')
}
