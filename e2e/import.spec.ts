import { readFileSync } from 'node:fs'
import { expect, type Page, test } from '@playwright/test'
import { signIn } from './people'

const HEADINGS =
  'Asset ID;Group;Type;Size;Serial No.;Manufacturer;Due date;Location;Customer;Premises;Street;District'
const line = (n: number, size = '1 1/2') =>
  `RP-${3000 + n};Reduced-pressure assembly;RP;${size};K-${n};Maker B;${1 + (n % 28)}.3.2027;Cellar;Tollgate Lets;Block ${n % 7};${n % 7} Lantern Row;Harbour`
const LINES = 260
const tableOf = (mended: boolean) =>
  [
    HEADINGS,
    ...Array.from({ length: LINES }, (_, n) => line(n, n === 40 && !mended ? 'DN 50' : undefined)),
  ].join('\n')

async function choose(page: Page, name: string, content: string | Buffer) {
  await page.goto('/equipment')
  await page.getByRole('link', { name: 'Bring in a table' }).click()
  await page
    .getByLabel('A table, CSV or XLSX')
    .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(content) })
}
/** The figure under a heading of what becomes of the lines. */
const count = (page: Page, title: string) =>
  page
    .locator('.counts > div')
    .filter({ has: page.getByText(title) })
    .locator('dd')
async function tags(page: Page, q: string) {
  const found: string[] = []
  let cursor: string | null = ''
  while (cursor !== null) {
    const more: string = cursor ? `&cursor=${cursor}` : ''
    const answer = await page.request.get(`/api/v1/equipment?q=${q}&limit=200${more}`)
    const { items, next } = (await answer.json()) as {
      items: { tag: string }[]
      next: string | null
    }
    found.push(...items.map((e) => e.tag))
    cursor = next
  }
  return found
}

test('a table of equipment is looked at, stopped in the middle, and gone on with: each line once', async ({
  page,
}) => {
  await signIn(page, 'sula')
  await choose(page, 'register.csv', tableOf(false))
  // Day and month are told apart by the table itself.
  await expect(page.getByLabel('How it writes dates')).toHaveValue('day-first')
  await page.getByRole('button', { name: `Look at ${LINES} lines` }).click()
  await expect(page.getByText('Size, in: must be a size in inches')).toBeVisible()
  expect(await tags(page, 'tollgate')).toEqual([])

  // The answer to the second piece is held back until whoever waits has stopped.
  let pieces = 0
  let letGo = () => {}
  const stopped = new Promise<void>((resolve) => (letGo = resolve))
  await page.route('**/equipment/import', async (route) => {
    pieces += 1
    const response = await route.fetch()
    if (pieces === 2) await stopped
    await route.fulfill({ response }).catch(() => undefined)
  })
  await page.getByRole('button', { name: 'Bring in 259 pieces' }).click()
  await expect.poll(() => pieces).toBe(2)
  await expect(page.getByRole('progressbar')).toHaveAttribute('value', '50')
  await page.getByRole('button', { name: 'Stop' }).click()
  letGo()
  await expect(count(page, 'Brought in')).toHaveText('50 of 259')
  await page.unroute('**/equipment/import')
  await page.getByRole('button', { name: 'Bring in the other 209' }).click()
  await expect(count(page, 'Brought in')).toHaveText('259 of 259')
  const there = await tags(page, 'tollgate')
  expect(there).toHaveLength(259)
  expect(new Set(there).size).toBe(259)

  // The mended table brings in what was missing, and nothing else.
  await choose(page, 'register.csv', tableOf(true))
  await page.getByRole('button', { name: `Look at ${LINES} lines` }).click()
  await expect(count(page, 'In the register already')).toHaveText('259')
  await page.getByRole('button', { name: 'Bring in 1 piece' }).click()
  await page.getByRole('link', { name: 'Go to the equipment' }).click()
  await expect(page.getByLabel('Search equipment')).toBeVisible()
  expect(await tags(page, 'tollgate')).toHaveLength(LINES)
})

test('a workbook is read with its dates, numbers and the units of its headings', async ({
  page,
}) => {
  await signIn(page, 'sula')
  await choose(
    page,
    'register.xlsx',
    readFileSync(new URL('fixtures/register.xlsx', import.meta.url)),
  )
  await page.getByRole('button', { name: 'Look at 2 lines' }).click()
  await page.getByRole('button', { name: 'Bring in 2 pieces' }).click()
  await expect(page.getByRole('link', { name: 'Go to the equipment' })).toBeVisible()
  const answer = await page.request.get('/api/v1/equipment?q=lantern%20works&sort=-tag')
  expect((await answer.json()).items).toMatchObject([
    {
      tag: 'SR-951',
      sizeIn: '2',
      service: 'gas',
      dueOn: '2027-03-31',
      setPoint: { value: '5', unit: 'psi' },
      nominals: [{ name: 'relief-set', value: { value: '9', unit: 'psi' } }],
      site: { address: '4 Lantern Row' },
    },
    { tag: 'RP-952', sizeIn: '0.75', dueOn: '2027-03-31', site: { address: '4 Lantern Row' } },
  ])
})

test('what is no table is said in a sentence, and a column that is not known can be chosen', async ({
  page,
}) => {
  await signIn(page, 'sula')
  await choose(page, 'register.xlsx', Buffer.from('PK\u0003\u0004 and no more'))
  await expect(page.getByRole('alert')).toContainText('This is no table that can be read')
  await choose(page, 'register.csv', tableOf(true).replace('Location', 'Spot'))
  await expect(page.getByText('Say above which column holds position.')).toBeVisible()
  await page.getByLabel('Position (needed)').selectOption('Spot')
  await expect(page.getByRole('button', { name: `Look at ${LINES} lines` })).toBeVisible()
})
