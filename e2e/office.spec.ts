import { expect, type Page, test } from '@playwright/test'
import { signIn } from './people'

const button = (page: Page, name: string) => page.getByRole('button', { name })

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

/** A piece of equipment more at the site of another, with nothing planned. */
async function added(page: Page, tag: string, more: object = {}): Promise<string> {
  const { items } = await (await page.request.get('/api/v1/equipment?q=RP-111')).json()
  const { family, kind, sizeIn, maker, service, programme, site } = items[0]
  const id = crypto.randomUUID()
  const answer = await page.request.post('/api/v1/equipment', {
    data: {
      ...{ id, tag, family, kind, sizeIn, maker, service, programme, siteId: site.id },
      ...{ serial: `S-${tag}`, position: 'Yard', dueOn: '2030-01-31', ...more },
    },
  })
  expect(answer.ok()).toBe(true)
  return id
}

test('what is emptied in the form of equipment is taken out of the register', async ({ page }) => {
  await signIn(page, 'sula')
  const id = await added(page, 'RP-990', { station: 'Yard line', stationPlace: 1 })
  await page.goto(`/equipment/${id}/change`)
  await expect(page.getByLabel('Station')).toHaveValue('Yard line')
  await page.getByLabel('Station').fill('')
  await page.getByLabel('Place in the line').fill('')
  await page.getByRole('button', { name: 'Save the change' }).click()
  await expect(page).toHaveURL(`/equipment/${id}`)
  const read = await (await page.request.get(`/api/v1/equipment/${id}`)).json()
  expect([read.station, read.stationPlace]).toEqual([null, null])
})

test('what is not there any more is taken out of service, planned by nobody, and put back', async ({
  page,
}) => {
  await signIn(page, 'sula')
  await page.goto(`/equipment/${await added(page, 'RP-991')}`)
  const change = async (action: string, why: string) => {
    await button(page, action).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('Why').fill(why)
    await dialog.getByRole('button', { name: action }).click()
    await expect(dialog).toHaveCount(0)
  }
  await change('Take out of service', 'The kiosk was pulled down')
  await expect(page.getByText('Out of service', { exact: true })).toBeVisible()
  await expect(button(page, 'Plan a visit')).toHaveCount(0)
  await change('Put back into service', 'The kiosk stands again')
  await expect(page.getByText('Not assessed').first()).toBeVisible()
  await expect(button(page, 'Plan a visit')).toBeVisible()
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
