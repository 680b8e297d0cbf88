import type { Page } from '@playwright/test'

/** Of a browser, in px, unless somebody chooses another. */
const USUAL = 16

/** Letters as somebody has chosen them in the browser: everything that is measured by them follows. */
export async function twiceAsLarge(page: Page, times = 2): Promise<void> {
  const browser = await page.context().newCDPSession(page)
  await browser.send('Page.setFontSizes', { fontSizes: { standard: USUAL * times } })
  await browser.detach()
}
