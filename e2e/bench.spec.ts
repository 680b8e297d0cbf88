import { expect, test } from '@playwright/test'
import { addDays } from '@uvanta/core/calendar'
import { button } from './job'
import { signIn } from './people'

test('two versions of a guide are compared, line by line', async ({ page }) => {
  await signIn(page, 'odda')
  await page.goto('/library/guides/tower-double-check')
  await button(page, 'Compare versions').click()
  await expect(
    page.getByRole('heading', { name: /Version 1 of .* against version \d+/ }),
  ).toBeVisible()
  await expect(page.locator('ins', { hasText: 'Witness mark across cover and body' })).toBeVisible()
  await expect(page.locator('del', { hasText: 'Cover bolts crosswise' })).toBeVisible()
  await button(page, 'Read it').click()
  await page.getByLabel('Version').selectOption({ index: 1 })
  await expect(page.getByText('Cover bolts crosswise')).toBeVisible()
})

test('a spec sheet shows where every figure comes from, and its kits', async ({ page }) => {
  await signIn(page, 'odda')
  await page.goto('/library')
  await page.getByRole('link', { name: /Maker B B-TDC/ }).click()
  const row = page.getByRole('row', { name: /Number of cover bolts/ })
  await expect(row).toContainText('8')
  await expect(row).toContainText('Maker B service sheet')
  await expect(page.getByText('K-BTDC-021')).toBeVisible()
})

test('kits that came in are on the van they were put on', async ({ page }) => {
  await signIn(page, 'sula')
  await page.getByRole('link', { name: 'Office' }).click()
  await page.getByRole('link', { name: 'Stock' }).click()
  await page.getByLabel('Search the stock').fill('K-BTDC-021')
  const row = page.getByRole('row', { name: /K-BTDC-021/ })
  const odda = row.locator('td.number').first()
  const before = Number(await odda.innerText())
  await button(page, 'Came in or counted: K-BTDC-021').click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('On the van of').selectOption({ label: 'Odda Marrin' })
  await dialog.getByLabel('How many').fill('2')
  await dialog.getByRole('button', { name: 'Enter' }).click()
  await expect(row.getByText(String(before + 2), { exact: true })).toBeVisible()
  await page.getByLabel('Search the stock').fill('nothing of that name')
  await expect(page.getByText('Nothing fits')).toBeVisible()
})

test('what the workbench says goes on the record of a visit', async ({ page }) => {
  await signIn(page, 'odda')
  // The visit of the evening is still to be found when it is the next day.
  await page.route('**/api/v1/session', async (route) => {
    const response = await route.fetch()
    const answer = (await response.json()) as { today: string }
    await route.fulfill({ response, json: { ...answer, today: addDays(answer.today, 1) } })
  })
  await page.goto('/workbench')
  const throws = page.getByRole('region', { name: 'Throws of a shuttle' })
  await throws.getByLabel('Other end').fill('18')
  await expect(throws.getByText(/shaft is in backwards/)).toBeVisible()
  await throws.getByRole('button', { name: 'Attach to a visit' }).click()
  await throws.getByRole('button', { name: 'RP-109' }).click()
  await throws.getByRole('link', { name: 'RP-109' }).click()
  await expect(page.getByText(/Throws of a shuttle: 31 and 18 mm, 13\.0 apart/)).toBeVisible()
})

test('a bolt circle keeps a pair first, bolts held back, and counts the rounds', async ({
  page,
}) => {
  await signIn(page, 'odda')
  await page.goto('/workbench')
  const bolts = page.getByRole('region', { name: 'Bolt circle' })
  await bolts.getByLabel('Bolts', { exact: true }).fill('4')
  await bolts.getByLabel('Pair first').fill('2, 4')
  await bolts.getByLabel('Held back').fill('3')
  await expect(page.getByTestId('bolt-order')).toHaveText('2 – 4 – 1')
  for (let turn = 0; turn < 9; turn++)
    await bolts.getByRole('button', { name: /^Bolt \d done/ }).click()
  await bolts.getByRole('button', { name: 'Round done – one moved' }).click()
  await bolts.getByRole('button', { name: 'Round done – none moved' }).click()
  await expect(bolts.getByText('2 rounds after the passes, none moves any more')).toBeVisible()
  await bolts.getByLabel('Held back').fill('9')
  await expect(bolts.getByRole('alert')).toContainText('no bolt 9')
})

test('a change of the house’s files that is bad is named in the library, and nothing of it is used', async ({
  page,
}) => {
  await signIn(page, 'odda')
  await page.route('**/api/v1/library/state', (route) =>
    route.fulfill({
      json: {
        loadedAt: '2026-06-01T08:00:00Z',
        faults: [{ file: 'guides/rp-relief.yaml', line: 12, message: 'there is no part “lid”' }],
      },
    }),
  )
  await page.goto('/library')
  await expect(page.getByText('The last good version stays in force')).toBeVisible()
  await expect(page.getByText('guides/rp-relief.yaml:12')).toBeVisible()
})
