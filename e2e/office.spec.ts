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

test('the planner says how to get in, and whoever goes there reads it', async ({ page }) => {
  const read = async (name: string) => {
    const { items } = await (await page.request.get(`/api/v1/customers?q=${name}`)).json()
    return items[0].sites[0].access as string
  }
  await signIn(page, 'sula')
  await page.getByRole('link', { name: 'Office' }).click()
  await page.getByLabel('Search customers').fill('bakehouse')
  await page.getByRole('button', { name: 'Bakehouse' }).click()
  await page.getByLabel('How to get in').fill('Bell beside the flour hatch')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('row', { name: /Bakehouse/ })).toContainText('flour hatch')
  // A number that is no longer theirs is taken out.
  await page
    .getByRole('row', { name: /Bakehouse/ })
    .getByRole('button', { name: 'Change' })
    .click()
  await page.getByLabel('Telephone').fill('')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('row', { name: /Bakehouse/ })).toContainText('no telephone')
  expect(await read('bakehouse')).toBe('Bell beside the flour hatch')
  await signIn(page, 'odda')
  expect(await read('bakehouse')).toBe('Bell beside the flour hatch')
  await signIn(page, 'jori')
  expect(await read('bakehouse')).toBe('')
})

test('what is emptied in the form of equipment is taken out of the register', async ({ page }) => {
  await signIn(page, 'sula')
  const { items } = await (await page.request.get('/api/v1/equipment?q=RP-111')).json()
  const { family, kind, sizeIn, maker, service, programme, site } = items[0]
  const id = '018f0000-0000-7000-8000-00000000e001'
  const added = await page.request.post('/api/v1/equipment', {
    data: {
      ...{ id, family, kind, sizeIn, maker, service, programme, siteId: site.id },
      ...{ tag: 'RP-990', serial: 'S-990', position: 'Yard', dueOn: '2030-01-31' },
      ...{ station: 'Yard line', stationPlace: 1 },
    },
  })
  expect(added.ok()).toBe(true)
  await page.goto(`/equipment/${id}/change`)
  await expect(page.getByLabel('Station')).toHaveValue('Yard line')
  await page.getByLabel('Station').fill('')
  await page.getByLabel('Place in the line').fill('')
  await page.getByRole('button', { name: 'Save the change' }).click()
  await expect(page).toHaveURL(`/equipment/${id}`)
  const read = await (await page.request.get(`/api/v1/equipment/${id}`)).json()
  expect([read.station, read.stationPlace]).toEqual([null, null])
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
