import { gzipSync } from 'node:zlib'
import type { Page } from '@playwright/test'
import { percentile } from './measure'
import { noted, openPhone, type PhoneOptions } from './phone'

const RUNS = 5
const NEXT = '.next .btn'

/** JavaScript that has come over the wire when Today can be used, and how long that takes. */
export async function benchFirstLoad(base: string): Promise<object[]> {
  const lines: readonly [string, PhoneOptions][] = [
    ['plain', {}],
    ['slow line, CPU ÷ 4', { slower: 4, slowLine: true }],
  ]
  const figures = [await scriptBefore(base)]
  for (const [name, options] of lines) {
    const cold: number[] = []
    const warm: number[] = []
    for (let n = 0; n < RUNS; n++) {
      const phone = await openPhone(base, options)
      await phone.page.addInitScript(NOTE_USABLE)
      cold.push(await usableAfter(phone.page, base))
      warm.push(await usableAfter(phone.page, base))
      await phone.close()
    }
    figures.push({
      name: `Today usable, ${name}`,
      coldMs: Math.round(percentile(cold, 50)),
      warmMs: Math.round(percentile(warm, 50)),
      aimUnderMs: 2_500,
    })
  }
  return figures
}

/** Notes when the next visit's button is drawn and the page would answer a press of it. */
const NOTE_USABLE = `
  new MutationObserver((_, observer) => {
    if (!document.querySelector('${NEXT}')) return
    observer.disconnect()
    requestAnimationFrame(() => setTimeout(() => (window.usableAt = performance.now())))
  }).observe(document, { childList: true, subtree: true })`

/** From the address to the next visit's button, which answers a press, ms. */
async function usableAfter(page: Page, base: string): Promise<number> {
  await page.goto(base, { waitUntil: 'commit' })
  return noted(page, 'usableAt')
}

async function scriptBefore(base: string): Promise<object> {
  const phone = await openPhone(base)
  const bodies: Promise<Buffer>[] = []
  phone.page.on('response', (r) => {
    if (r.url().endsWith('.js')) bodies.push(r.body())
  })
  await phone.page.goto(base)
  await phone.page.locator(NEXT).waitFor()
  const bytes = (await Promise.all(bodies)).reduce((sum, body) => sum + gzipSync(body).length, 0)
  await phone.close()
  return {
    name: 'JavaScript loaded before Today is usable, gzip',
    kB: Math.round(bytes / 100) / 10,
    aimUnderKb: 120,
    files: bodies.length,
  }
}
