import type { Page } from '@playwright/test'
import { HANDS_DONE } from './hands'
import { strokeDown } from './stroke'

async function reading(page: Page, name: string, value: string) {
  await page.getByLabel(name, { exact: true }).fill(value)
  await page.keyboard.press('Enter')
}

/** The relief-first test typed in, step by step. */
export async function runTypedTest(page: Page, readings: { relief: string; check1: string }) {
  const step = (name: string | RegExp) =>
    page.locator('.test-step').getByRole('button', { name, exact: typeof name === 'string' })
  await strokeDown(page)
  await step('Dry').click()
  await step(/^Tight – the reading/).click()
  await reading(page, 'Relief valve opening', readings.relief)
  await step(HANDS_DONE).click()
  await step('Held tight').click()
  await reading(page, 'Check 1 differential', readings.check1)
  await step(/That ends the test$/).click()
}
