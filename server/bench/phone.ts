import { chromium, type Page } from '@playwright/test'
import { DEMO_PASSWORD } from '../demo/scenario'

/** A browser as the technician's phone has one. */
export interface Phone {
  readonly page: Page
  close(): Promise<void>
}
export interface PhoneOptions {
  /** How many times slower it computes than this machine. */
  readonly slower?: number
  /** 1.6 Mbit/s there, half of that back, 150 ms on the way. */
  readonly slowLine?: boolean
}

const KBIT = 1_000 / 8
const SLOW_LINE = {
  offline: false,
  latency: 150,
  downloadThroughput: 1_600 * KBIT,
  uploadThroughput: 750 * KBIT,
}

/** Opens a phone on which odda of the demo is signed in. */
export async function openPhone(base: string, options: PhoneOptions = {}): Promise<Phone> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'],
  })
  const context = await browser.newContext({
    viewport: { width: 412, height: 915 },
    hasTouch: true,
    locale: 'en-GB',
  })
  await context.request.post(`${base}/api/v1/session`, {
    data: { username: 'odda', password: DEMO_PASSWORD },
  })
  const page = await context.newPage()
  const devTools = await context.newCDPSession(page)
  await devTools.send('Emulation.setCPUThrottlingRate', { rate: options.slower ?? 1 })
  if (options.slowLine) {
    await devTools.send('Network.enable')
    await devTools.send('Network.emulateNetworkConditions', SLOW_LINE)
  }
  return { page, close: () => browser.close() }
}

/** Waits for what a script on the page notes of itself, and takes it away. */
export async function noted(page: Page, name: string): Promise<number> {
  const figure = await page.waitForFunction((n) => Reflect.get(globalThis, n) as number, name)
  await page.evaluate((n) => Reflect.deleteProperty(globalThis, n), name)
  return figure.jsonValue()
}
