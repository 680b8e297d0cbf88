import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import { DEMO_PASSWORD } from '../demo/scenario'

/** JavaScript that has come over the wire when Today can be used, gzip, kB. */
export async function benchFirstLoad(base: string): Promise<object> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'],
  })
  const context = await browser.newContext()
  await context.request.post(`${base}/api/v1/session`, {
    data: { username: 'odda', password: DEMO_PASSWORD },
  })
  const page = await context.newPage()
  const bodies: Promise<Buffer>[] = []
  page.on('response', (r) => {
    if (r.url().endsWith('.js')) bodies.push(r.body())
  })
  await page.goto(base)
  await page.locator('.next .btn').waitFor()
  const bytes = (await Promise.all(bodies)).reduce((sum, body) => sum + gzipSync(body).length, 0)
  await browser.close()
  return {
    name: 'JavaScript loaded before Today is usable, gzip',
    kB: Math.round(bytes / 100) / 10,
    aimUnderKb: 120,
    files: bodies.length,
  }
}
