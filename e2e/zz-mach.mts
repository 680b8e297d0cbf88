import { chromium } from '@playwright/test'
import { signIn } from './people'
const b = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' })
const ctx = await b.newContext({ viewport: { width: 1280, height: 900 }, baseURL: 'http://127.0.0.1:4870' })
const p = await ctx.newPage()
await signIn(p, 'odda')
for (const [id, opt] of [['sleeve-regulator',0],['nose-seal-coupler',0],['double-seat-valve',0],['spring-cylinder',0]] as const) {
  await p.goto('/library/machines/' + id); await p.waitForTimeout(1500)
  const sheet = p.locator('svg.machine').first()
  await sheet.screenshot({ path: `/tmp/run/look/${id}-c.png` })
  await p.getByRole('button', { name: 'Apart' }).click(); await p.waitForTimeout(600)
  await p.locator('svg.machine').first().screenshot({ path: `/tmp/run/look/${id}-a.png` })
}
await b.close()
