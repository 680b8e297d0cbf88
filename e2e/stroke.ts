import { expect, type Page } from '@playwright/test'

/**
 * Draws one stroke down the boxes of what hands do in one go; below the screen’s end the page comes to meet it.
 * @param until a line before which it stops
 * @returns the lines that are done by it
 */
export async function strokeDown(page: Page, until?: RegExp): Promise<string[]> {
  const card = page.locator('.hands')
  await expect(card).toBeVisible()
  const open = card.locator('li:has(.box:not(.ticked))')
  // Without the number that the part has on the drawing.
  const sentences = await open.locator('.sentence').allInnerTexts()
  const lines = sentences.map((words) => words.replace(/ · no\. \d+$/, ''))
  const stop = lines.findIndex((words) => until?.test(words))
  const wanted = stop < 0 ? lines.length : stop
  if (wanted === 0) return []
  // Where somebody has scrolled to the drawing, the card is fetched back, clear of what lies over the page.
  await open.first().evaluate((line) => {
    const { x, y, width, height } = line.querySelector('.box')!.getBoundingClientRect()
    const seen = document.elementFromPoint(x + width / 2, y + height / 2)
    if (!line.contains(seen)) line.scrollIntoView({ block: 'start' })
  })
  const { height } = page.viewportSize() ?? { height: 0 }
  const centres: { x: number; y: number }[] = []
  for (let n = 0; n < wanted; n++) {
    const box = await open.nth(n).locator('.box').boundingBox()
    if (!box || box.y + box.height > height) break
    centres.push({ x: box.x + box.width / 2, y: box.y + box.height / 2 })
  }
  const [first, last] = [centres[0], centres.at(-1)]
  if (!first || !last) throw new Error('the line whose turn it is is not in sight')
  const place = await card.locator('.place').innerText()
  await page.mouse.move(first.x, first.y)
  await page.mouse.down()
  if (last !== first) await page.mouse.move(last.x, last.y, { steps: 2 * centres.length })
  const below = stop < 0 && centres.length < wanted
  if (below) {
    await page.mouse.move(last.x, height - 60, { steps: 3 })
    await expect(card.locator('.box.marked')).toHaveCount(wanted)
  }
  await page.mouse.up()
  await expect(page.getByText(place, { exact: true })).toHaveCount(0)
  return lines.slice(0, below ? wanted : centres.length)
}
