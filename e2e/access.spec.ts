import AxeBuilder from '@axe-core/playwright'
import { expect, type Page, test } from '@playwright/test'
import { twiceAsLarge } from './letters'
import { signIn } from './people'

const sizes = {
  tablet: { width: 1280, height: 800 },
  phone: { width: 390, height: 844 },
} as const

/** Leads the page to a view; the demo's own data stand in it. */
const views: readonly { name: string; who: string | null; go: (page: Page) => Promise<unknown> }[] =
  [
    { name: 'sign-in', who: null, go: (p) => p.goto('/sign-in') },
    { name: 'today', who: 'odda', go: (p) => p.goto('/') },
    { name: 'today of the office', who: 'sula', go: (p) => p.goto('/') },
    { name: 'equipment list', who: 'sula', go: (p) => p.goto('/equipment') },
    {
      name: 'equipment',
      who: 'sula',
      go: async (p) => (
        await p.goto('/equipment?q=RP-104'),
        p.getByRole('link', { name: 'RP-104' }).click()
      ),
    },
    { name: 'equipment form', who: 'sula', go: (p) => p.goto('/equipment/new') },
    {
      name: 'a table brought in',
      who: 'sula',
      go: async (p) => {
        await p.goto('/equipment/import')
        const buffer = Buffer.from('Tag,Kind,Serial\nRP-1,RP,K-1\n')
        const file = { name: 'a.csv', mimeType: 'text/csv', buffer }
        await p.getByLabel('A table, CSV or XLSX').setInputFiles(file)
        await p.getByLabel('Position (needed)').waitFor()
      },
    },
    { name: 'visit', who: 'odda', go: (p) => p.locator('.next a.btn').click() },
    { name: 'certificates', who: 'ivo', go: (p) => p.goto('/certificates') },
    {
      name: 'certificate',
      who: 'ivo',
      go: async (p) => (
        await p.goto('/certificates'),
        p.getByRole('link', { name: /^LH-/ }).first().click()
      ),
    },
    { name: 'verify', who: null, go: (p) => p.goto('/verify/LH-2020-000001-AAAAAAAA') },
    { name: 'library', who: 'odda', go: (p) => p.goto('/library') },
    { name: 'guide', who: 'odda', go: (p) => p.goto('/library/guides/spool-valve') },
    { name: 'machine', who: 'odda', go: (p) => p.goto('/library/machines/tower-double-check') },
    { name: 'spec sheet', who: 'odda', go: (p) => p.goto('/library/sheets/b-tower-double-check') },
    { name: 'rule pack', who: 'odda', go: (p) => p.goto('/library/packs/larkhaven-relief-first') },
    {
      name: 'procedure',
      who: 'odda',
      go: (p) => p.goto('/library/procedures/rp-relief-first'),
    },
    { name: 'stock', who: 'sula', go: (p) => p.goto('/stock') },
    {
      name: 'a visit by its guide',
      who: 'odda',
      go: async (p) => {
        await p
          .getByRole('link', { name: /SR-102/ })
          .first()
          .click()
        const take = p.getByRole('button', { name: 'Take this guide' })
        const step = p.locator('.guide-step')
        const which = p.getByRole('region', { name: 'Job guide' }).getByLabel('Job guide')
        await which.or(step).first().waitFor()
        if (await which.isVisible()) {
          await which.selectOption('spring-regulator')
          await take.click()
        }
        await step.waitFor()
      },
    },
    { name: 'workbench', who: 'odda', go: (p) => p.goto('/workbench') },
    { name: 'people', who: 'petra', go: (p) => p.goto('/office/people') },
    { name: 'customers', who: 'sula', go: (p) => p.goto('/office/customers') },
    { name: 'gauges', who: 'petra', go: (p) => p.goto('/office/gauges') },
    { name: 'keys', who: 'petra', go: (p) => p.goto('/office/keys') },
    { name: 'settings', who: 'petra', go: (p) => p.goto('/office/settings') },
    { name: 'account', who: 'odda', go: (p) => p.goto('/account') },
  ]

/** Phones, tablets upright and across, and the screens of an office. */
const WIDTHS = [320, 360, 390, 480, 640, 701, 768, 800, 900, 1024, 1067, 1121, 1280, 1440, 1920]

/** Nothing is wider than the screen; charts follow a new width a moment later. */
async function fits(page: Page, when: string): Promise<void> {
  const over = () =>
    page.evaluate(() => {
      const { scrollWidth, clientWidth } = document.documentElement
      if (scrollWidth <= clientWidth) return ''
      const wide = [...document.querySelectorAll('main *, header *')].filter(
        (e) => e.getBoundingClientRect().right > clientWidth + 1,
      )
      return `${scrollWidth - clientWidth} px: ${wide
        .slice(-3)
        .map((e) => `${e.tagName}.${e.className}`)
        .join(', ')}`
    })
  await expect.poll(over, { message: when }).toBe('')
}

async function noFinding(axe: AxeBuilder): Promise<void> {
  // There are no frames, for which it would look again in a page of its own.
  const { violations } = await axe.setLegacyMode().analyze()
  expect(
    violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`),
  ).toEqual([])
}

for (const { name, who, go } of views) {
  test(`${name}: no finding and nothing wider than the screen, by day and by night`, async ({
    page,
  }) => {
    if (who) await signIn(page, who)
    await page.setViewportSize(sizes.tablet)
    await go(page)
    await page.waitForLoadState('networkidle')
    await noFinding(new AxeBuilder({ page }))
    for (const width of WIDTHS) {
      await page.setViewportSize({ width, height: 800 })
      await fits(page, `${width} wide`)
    }
    await page.setViewportSize(sizes.phone)
    // The colours are those of the tablet.
    await noFinding(new AxeBuilder({ page }).disableRules('color-contrast'))
    // Nothing of a list lies beside the screen, where nobody looks.
    const beside = await page
      .locator('.scroll-x[aria-busy]')
      .evaluateAll((lists) => lists.map((l) => l.scrollWidth - l.clientWidth))
    expect(beside.filter((px) => px > 0)).toEqual([])
    await page.setViewportSize(sizes.tablet)
    await twiceAsLarge(page)
    await fits(page, 'with letters twice as large')
    await twiceAsLarge(page, 1)
    // At night only the colours differ.
    await page.emulateMedia({ colorScheme: 'dark' })
    await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'dark')
    await noFinding(new AxeBuilder({ page }).withRules('color-contrast'))
  })
}

test('whoever has colours of his own sees drawings in them', async ({ page }) => {
  await page.emulateMedia({ forcedColors: 'active', colorScheme: 'dark' })
  await signIn(page, 'odda')
  await page.goto('/equipment')
  await expect(page.locator('.place:not(.router-link-active)').first()).toBeVisible()
  const [drawn, own, idle, paper] = await page.evaluate(() => {
    const style = (of: string) => getComputedStyle(document.querySelector(of) as Element)
    const probe = document.createElement('i')
    probe.style.color = 'CanvasText'
    document.body.append(probe)
    const { color } = getComputedStyle(probe)
    const place = style('.place:not(.router-link-active)')
    return [
      style('.brand path').stroke,
      color,
      place.borderBottomColor,
      style('body').backgroundColor,
    ]
  })
  expect(drawn).toBe(own)
  // Only the place that is open is marked.
  expect(idle).toBe(paper)
})

test('on a slow line a visit says where it goes before the application has come, and a dark room stays dark', async ({
  page,
}) => {
  await signIn(page, 'odda')
  const { items } = await (await page.request.get('/api/v1/visits?scope=mine')).json()
  await page.route('**/*.js', (route) => route.abort())
  await page.emulateMedia({ colorScheme: 'dark' })
  await page.goto(`/visits/${items[0].id}`)
  await expect(page.locator('.said')).toContainText(items[0].equipment.address)
  await expect(page.locator('body')).toHaveCSS('background-color', 'rgb(12, 35, 64)')
  await noFinding(new AxeBuilder({ page }).withRules('color-contrast'))
})
