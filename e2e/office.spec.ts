import { expect, test } from '@playwright/test'
import { signIn } from './people'

test('the planner finds equipment, keeps the search in the address, and plans a visit', async ({
  page,
}) => {
  await signIn(page, 'sula')
  await page.keyboard.press('2')
  await expect(page.getByLabel('Search equipment')).toBeVisible()
  await page.keyboard.press('/')
  await page.keyboard.type('hospital rp')
  await expect(page).toHaveURL(/q=hospital/)
  await page.reload()
  await expect(page.getByLabel('Search equipment')).toHaveValue('hospital rp')
  await page.getByRole('row', { name: /RP-/ }).first().getByRole('link').click()
  await page.getByRole('button', { name: 'Plan a visit' }).click()
  await page.getByLabel('Technician').selectOption({ label: 'Odda Marrin' })
  await page.getByRole('button', { name: 'Plan the visit' }).click()
  await expect(page.getByText('Planned', { exact: true })).toBeVisible()
})

test('the keys of a view are a key away', async ({ page }) => {
  await signIn(page, 'sula')
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('Go to Equipment')
})

test('the administrator keeps people, licences and gauges', async ({ page }) => {
  await signIn(page, 'petra')
  await page.getByRole('link', { name: 'Office' }).click()
  await page.getByRole('button', { name: 'Change licence BT-1904' }).click()
  await page.getByLabel('Expires').fill('2020-01-01')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('dialog')).toContainText('check')
  await page.getByRole('button', { name: 'Cancel' }).click()
  await page.getByRole('link', { name: 'Gauges' }).click()
  await page.getByRole('button', { name: 'Add a gauge' }).click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByText('Tag is missing.')).toBeVisible()
})

test('the reviewer declares a certificate void, and strangers see it', async ({ page }) => {
  await signIn(page, 'ivo')
  await page.getByRole('link', { name: 'Certificates' }).click()
  await page.getByRole('link', { name: /^LH-/ }).nth(8).click()
  await page.getByRole('button', { name: 'Declare it void' }).click()
  await page.getByLabel('Why').fill('Issued for the wrong assembly')
  await page.getByRole('button', { name: 'Declare it void' }).last().click()
  await expect(
    page.getByText('This certificate is void: Issued for the wrong assembly'),
  ).toBeVisible()
  await page.getByRole('link', { name: 'What a stranger sees' }).click()
  await expect(page.getByText('Do not rely on it')).toBeVisible()
})
