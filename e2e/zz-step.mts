import { chromium } from '@playwright/test'
import { signIn } from './people'
import { button, carryOut } from './job'
const b = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' })
const ctx = await b.newContext({ viewport: { width: 1280, height: 800 }, baseURL: 'http://127.0.0.1:4870' })
const p = await ctx.newPage()
const shot = async (n: string) => { await p.waitForTimeout(600); await p.screenshot({ path: `/tmp/run/look/${n}.png` }) }
const tall = async (n: string) => { await p.waitForTimeout(600); await p.screenshot({ path: `/tmp/run/look/${n}.png`, fullPage: true }) }
await signIn(p, 'odda')
await p.getByRole('link', { name: /SPR-101/ }).first().click()
await button(p, 'It cannot be tested as found').click()
await p.getByLabel('Why not').fill('Shut off since last week')
await button(p, 'Record and go on').click()
await carryOut(p)
await button(p, 'Zero is proved – open up').click()
await carryOut(p, { until: /Diaphragm off/ })
await tall('s-remove')
await carryOut(p, { until: /Disc where it lies/ })
await p.setViewportSize({ width: 390, height: 844 })
await tall('s-inspect-phone')
await p.setViewportSize({ width: 1280, height: 800 })
await carryOut(p)
await button(p, 'Opened and inspected').click()
await carryOut(p, { until: /Nuts of the lower casing crosswise/ })
await tall('s-torque')
await p.setViewportSize({ width: 390, height: 844 })
await tall('s-torque-phone')
await b.close()
