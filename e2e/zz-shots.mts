import { chromium, type Page } from '@playwright/test'
const base = 'http://127.0.0.1:4870'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
const as = async (user: string) => {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await page.goto(base + '/sign-in')
  await page.getByLabel('Name').fill(user)
  await page.getByLabel('Password').fill('larkhaven-demo')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForTimeout(1500)
  return page
}
const shot = async (page: Page, path: string, name: string) => {
  await page.goto(base + path)
  await page.waitForTimeout(1300)
  await page.screenshot({ path: `/tmp/run/n-${name}.png` })
}
const petra = await as('petra')
await shot(petra, '/office/gauges', 'gauges')
await shot(petra, '/office/people', 'people')
const sula = await as('sula')
await shot(sula, '/equipment', 'equipment-list')
await sula.getByRole('link', { name: 'Add equipment' }).click()
await sula.waitForTimeout(800)
await sula.getByRole('button', { name: 'Add it' }).click()
await sula.waitForTimeout(400)
await sula.screenshot({ path: '/tmp/run/n-new.png' })
const odda = await as('odda')
const list = (await (await odda.request.get(base + '/api/v1/visits?scope=mine')).json()) as { items: { id: string; state: string }[] }
let n = 0
for (const v of list.items.filter((x) => x.state === 'under-way').slice(0, 2)) await shot(odda, `/visits/${v.id}`, `visit${n++}`)
await browser.close()
