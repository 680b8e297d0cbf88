import type { Page } from '@playwright/test'

export const DEMO_PASSWORD = 'larkhaven-demo'

export async function signIn(page: Page, username: string): Promise<void> {
  await page.goto('/sign-in')
  await page.getByLabel('Name').fill(username)
  await page.getByLabel('Password').fill(DEMO_PASSWORD)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL('/')
}
