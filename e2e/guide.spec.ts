import { expect, type Page, test } from '@playwright/test'
import { countPresses, Hands, pressesOn, streamTest } from './hands'
import {
  button,
  carryOut,
  closeRebuild,
  dueWords,
  drawAndSign,
  fillForm,
  inDays,
  type JobHints,
  leave,
  takeGuide as take,
} from './job'
import { twiceAsLarge } from './letters'
import { signIn } from './people'

async function open(page: Page, tag: RegExp): Promise<void> {
  await signIn(page, 'odda')
  await page.getByRole('link', { name: tag }).first().click()
}
const tray = (page: Page) => page.getByRole('region', { name: 'Tray and kit' })

/** A regulator’s run; what stands on gauges of its own is typed. */
async function streamRegulator(page: Page, hands: Hands): Promise<void> {
  await streamTest(page, hands, {}, { 'Pilot supply': '90', 'Loading pressure': '70' })
}

test('a reduced-pressure assembly fails as found because its check is fouled; by its guide it is made safe, opened, cleaned, rebuilt, and passes as left', async ({
  page,
}) => {
  test.setTimeout(420_000)
  await page.setViewportSize({ width: 360, height: 640 })
  const hands = new Hands(page)
  await countPresses(page)
  await open(page, /RP-116/)
  await take(page, /Cartridge check/, 'Reduced pressure')
  // A bag that is not the right one is doubted, and needs a reason.
  await carryOut(page, { until: /Count the kit/ })
  await page.getByLabel('Number on the bag').fill('K-WRONG')
  for (const input of await page.locator('.kit .lines input').all()) await input.fill('1')
  await button(page, 'The kit is counted').click()
  await expect(page.getByText(/the bag says K-WRONG, the sheet wants K-/).first()).toBeVisible()
  await carryOut(page)
  await button(page, 'Nut driver: ready').click()
  // What nobody ticked is asked about, once.
  await button(page, 'Prepared – set off').click()
  await expect(page.getByText(/\d+ things are not ticked: go all the same\?/)).toBeVisible()
  await button(page, 'Go all the same').click()
  await button(page, 'It is this one').click()
  await carryOut(page)
  await leave(page, 'Looked round – test it as it stands')
  await button(page, 'Start the as-found test').click()
  await streamTest(page, hands, { 'Relief port': 'Drips or runs', 'Check 2': 'Leaked' })
  await expect(page.locator('p.whole')).toContainText('Fail')
  await button(page, 'Make it safe, then repair').click()

  // A wrong move is refused before it is recorded.
  await carryOut(page, { until: /Close shutoff 2/ })
  await button(page, 'The whole drawing').click()
  await button(page, /^Shutoff 1, open/).click()
  await expect(page.getByText(/Shut Shutoff 2 first: downstream before upstream/)).toBeVisible()
  await button(page, 'It was not').click()
  await button(page, /^Cock 1, shut/).click()
  await expect(page.getByText(/Cock 1 is live/).first()).toBeVisible()
  await button(page, 'It was not').click()
  // Pressed on the drawing it is on record, and counts as the step’s own turn.
  await button(page, /^Shutoff 2, open/).click()
  await carryOut(page, { until: /Prove zero/ })
  await page.getByLabel('Number of the lock on Shutoff 1').fill('14')
  await button(page, 'Lock Shutoff 1').click()
  await page.locator('form.proof').getByLabel('Reading').fill('3.5')
  await button(page, 'Zero is read – record it').click()
  await expect(page.getByText(/3.5 psi is not zero/).first()).toBeVisible()
  await carryOut(page, { until: /Lock and tag/ })
  await expect(page.getByRole('list', { name: 'Spaces' })).toContainText('proved')
  await carryOut(page)
  await leave(page, 'Zero is proved – open up')

  await expect(tray(page)).toContainText('Empty')
  await carryOut(page, { defects: { 'Soft face of cartridge 1': 'dirt' } })
  await expect(tray(page).locator('.slots li').first()).toContainText('Cover')
  // The place is kept over a reload, as over a flat battery.
  await page.reload()
  await expect(tray(page).locator('.slots li').first()).toContainText('Cover')
  await leave(page, 'Opened and inspected')

  await carryOut(page)
  await expect(tray(page)).toContainText('Empty')
  // One thing after the other: neither repair nor end before the kit.
  await expect(button(page, /^Record the repair/)).toHaveCount(0)
  await expect(button(page, 'Rebuilt – tray empty')).toHaveCount(0)
  await page.getByLabel('Soft face: left over').fill('1')
  await button(page, 'The kit is accounted for').click()
  await expect(page.getByText(/Soft face: 2 counted in Prepare, 1 accounted for/)).toBeVisible()
  await page.getByLabel('Soft face: left over').fill('2')
  await button(page, 'The kit is accounted for').click()
  await expect(page.getByLabel('What was done')).toHaveValue(/Cleaned: Soft face 1/)
  await expect(
    page.getByRole('group', { name: 'Cleaned or renewed' }).getByLabel('Check 1'),
  ).toHaveValue('cleaned')
  await button(page, /^Record the repair/).click()

  // What is locked is not opened: the own lock comes off with the press that says so.
  await expect(button(page, /^It is open/)).toHaveCount(0)
  await button(page, 'Lock 14 is off – it is open').click()
  await carryOut(page)
  await leave(page, 'Back under pressure, no leaks')
  await button(page, 'Start the as-left test').click()
  await streamTest(page, hands)
  await carryOut(page)
  await drawAndSign(page, 'Sign and issue the certificate')
  await expect(page.getByText(/^LH-/).first()).toBeVisible()
  // Beside the 92 of a whole repair, both pockets judged: a kit doubted and one not accounted for, one thing ticked by itself and the rest
  // gone without (2), the drawing enlarged and two valves pressed in vain (5), one pressed there, one locked by itself,
  // and a zero that was none.
  expect(await pressesOn(page)).toBeLessThanOrEqual(92 + 12)
})

test('a pilot-operated regulator is overhauled: gas first made safe, the clamp screws round and round until none moves', async ({
  page,
}) => {
  test.setTimeout(300_000)
  await page.setViewportSize({ width: 390, height: 844 })
  await open(page, /SPR-101/)
  const chooser = page.getByRole('region', { name: 'Job guide' })
  const overhaul = chooser.locator('option', { hasText: /from the casing down/ })
  await chooser.getByLabel('Job guide').selectOption({ label: await overhaul.innerText() })
  await page.getByLabel(/^Lower casing/).check()
  await take(page, null, 'Spring to close')
  await toSite(page)
  const hands = new Hands(page)
  await button(page, 'Start the as-found test').click()
  await streamRegulator(page, hands)
  await expect(page.locator('p.whole')).toContainText('Fail')
  await expect(page.locator('.verdict .item', { hasText: 'Creep at lock-up' })).toContainText(
    'over the limit',
  )
  await button(page, 'Make it safe, then repair').click()

  await expect(page.getByLabel('Stored energy')).toContainText('the main spring is loaded')
  await carryOut(page, { until: /Close the inlet valve/ })
  await button(page, /^Inlet vent, shut/).click()
  await expect(page.getByText(/Inlet vent is still fed/)).toBeVisible()
  await button(page, 'It was not').click()
  await carryOut(page)
  await leave(page, 'Zero is proved – open up')
  await carryOut(page)
  await expect(page.getByLabel('Stored energy')).toHaveCount(0)
  await leave(page, 'Opened and inspected')

  const before = await carryOut(page, { until: /Clamp screws round and round/ })
  expect(before.length).toBeGreaterThan(10)
  await button(page, 'Round done – none moved').click()
  await expect(button(page, 'Nothing moves any more – done')).toHaveCount(0)
  await carryOut(page)
  await closeRebuild(page, 'Regulator')
  await carryOut(page)
  await leave(page, 'Back under pressure, no leaks')
  hands.presses = 0
  await button(page, 'Start the as-left test').click()
  await streamRegulator(page, hands)
  await expect(page.getByText('Every required item meets its limit').first()).toBeVisible()
  await carryOut(page)
  await drawAndSign(page, 'Sign and issue the certificate')
})

/** What an actuator of the demo shows that is in order, psi. */
const ACTUATOR = {
  'Air supply': '60',
  'First movement, rising': '6.2',
  'Full travel, rising': '30',
  'First movement, falling': '28.5',
  'Home, falling': '5',
  'Air shut in': '55',
  'Air after the hold': '54.6',
  'Held, min': '5',
}

test('an actuator’s fail action is changed to open: the order on the stem is its own', async ({
  page,
}) => {
  test.setTimeout(240_000)
  await page.setViewportSize({ width: 800, height: 1280 })
  await page.clock.install()
  await open(page, /SCA-102/)
  const chooser = page.getByRole('region', { name: 'Job guide' })
  const guide = chooser.locator('option', { hasText: /overhaul, and change/ })
  await chooser.getByLabel('Job guide').selectOption({ label: await guide.innerText() })
  const option = chooser.getByLabel('Variant').locator('option', { hasText: /to fail-open/i })
  await take(page, null, await option.first().innerText())
  await toSite(page)
  await carryOut(page)
  await button(page, 'Start the as-found test').click()
  await expect(button(page, 'Enter a filled form')).toBeVisible()
  // The air is held for five minutes, once the test has begun, while the form is filled in.
  await page.clock.fastForward('06:00')
  await fillForm(page, ACTUATOR, { 'On loss of air': 'The other way' })
  await expect(page.locator('p.whole')).toContainText('It does not fail as its tag says')
  await button(page, 'Make it safe, then repair').click()
  await expect(page.getByLabel('Stored energy')).toContainText('Adjusting screw out first')
  await carryOut(page)
  await leave(page, 'Zero is proved – open up')
  await carryOut(page)
  await leave(page, 'Opened and inspected')
  const rebuilt = await carryOut(page)
  const order = ['piston first, square', 'Spring centred']
  const places = order.map((words) => rebuilt.findIndex((s) => s.includes(words)))
  expect(places.every((n) => n >= 0)).toBe(true)
  expect(places).toEqual([...places].sort((a, b) => a - b))
  await closeRebuild(page)
  await carryOut(page)
  await leave(page, 'Back under pressure, no leaks')
  await button(page, 'Start the as-left test').click()
  await expect(button(page, 'Enter a filled form')).toBeVisible()
  await page.clock.fastForward('06:00')
  await fillForm(page, ACTUATOR)
  await expect(page.getByText('Every required item meets its limit').first()).toBeVisible()
  await carryOut(page)
  await drawAndSign(page, 'Sign and issue the certificate')
})

test('a detector assembly leaves with a rubber turned over: permitted by name, until a date, its renewal planned', async ({
  page,
}) => {
  test.setTimeout(300_000)
  await page.setViewportSize({ width: 1024, height: 768 })
  await open(page, /DCDA-102/)
  await take(page, null, null)
  await toSite(page)
  await untested(page)
  await carryOut(page, {
    defects: { 'Rubber of disc 1': 'embossed' },
    findings: { 'Rubber of disc 1': 'turn it over' },
  })
  await leave(page, 'Opened and inspected')
  await carryOut(page)
  await closeRebuild(page)
  await carryOut(page)
  await leave(page, 'Back under pressure, no leaks')
  await page.getByLabel('Read and typed in').check()
  await button(page, 'Start the as-left test').click()
  await button(page, 'Enter a filled form').click()
  const form = page.locator('form.filled')
  for (const select of await form.locator('select[data-field]').all())
    await select.selectOption({ index: 1 })
  const readings = form.locator('.entry-field:not(.beside):has(input[data-field])')
  for (const reading of await readings.all()) {
    const bypass = (await reading.innerText()).includes('Bypass')
    await reading.locator('input').fill(bypass ? '1.6' : '2.2')
  }
  await button(page, 'Record the form').click()
  await button(page, 'Finish the test').click()
  await carryOut(page)
  await drawAndSign(page, 'Sign and issue the certificate')
  await expect(page.getByText(/a visit to renew it is planned for/)).toBeVisible()
  await page.goto(`/`)
  const until = inDays(21)
  const planned = await page.request.get(`/api/v1/visits?on=${until}&scope=mine`)
  expect(((await planned.json()) as { items: { purpose: string }[] }).items).toMatchObject([
    { purpose: 'temporary-repair' },
  ])
})

test('a double check is opened out of order once, with its reason and a photograph; the classic mix-up of its towers is stopped on the bench, and once more before the cover', async ({
  page,
}) => {
  test.setTimeout(300_000)
  await open(page, /\bDC-104/)
  await take(page, null, null)
  await toSite(page)
  await untested(page)
  await page
    .locator('.photos input[type=file]')
    .first()
    .setInputFiles({
      name: 'cover.png',
      mimeType: 'image/png',
      buffer: Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
        'base64',
      ),
    })
  await expect(page.getByRole('region', { name: 'Photographs' }).getByRole('img')).not.toHaveCount(
    0,
  )
  await expect(page.getByText('waits to be sent')).toHaveCount(0)
  await page.reload()
  const picture = page.getByRole('region', { name: 'Photographs' }).getByRole('img').first()
  await expect(picture).toBeVisible()
  await expect
    .poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth))
    .toBeGreaterThan(0)

  await page.getByRole('button', { name: 'Lift the cover off' }).click()
  await expect(page.getByText('It is not its turn yet')).toBeVisible()
  await page.getByLabel('Reason for the departure').fill('The bolts were off already')
  await button(page, 'Record it so').click()
  await expect(
    page.getByText(/Lift the cover off – departure: The bolts were off/).first(),
  ).toBeVisible()

  // A mark across a joint that is open says nothing: what rests on the departure asks for its own reason.
  await expect(dueWords(page)).toContainText('Witness mark across cover and body')
  await page.locator('.guide-step').getByRole('button', { name: 'Marked' }).click()
  await expect(page.getByText(/An earlier step was not done as written/)).toBeVisible()
  await page.getByLabel('Reason for the departure').fill('The cover is off already')
  await button(page, 'Record it so').click()

  // On the bench check 2 swings the way of check 1: its tower stands upside down.
  await carryOut(page, { until: /Work check 2 by hand/ })
  await expect(page.locator('.guide-step')).toContainText('arms and bosses down')
  await button(page, 'No, it does not').click()
  await page.getByLabel('What was wrong').fill('It opens downward')
  await button(page, 'Take up again from there').click()
  await expect(dueWords(page)).toContainText('tower screws of check 2 out')
  const again = await carryOut(page)
  expect(again).toContain('Tower 2 back on its seat, turned right before any screw is tight')
  await leave(page, 'Opened and inspected')
  // Nothing is shut while the second look finds them exchanged: the way leads back to the open checks.
  await carryOut(page, { until: /Before the cover/ })
  await button(page, 'No, it does not').click()
  await button(page, 'Take up again from there').click()
  await expect(page.getByRole('heading', { name: 'Open up' })).toBeVisible()
  await expect(dueWords(page)).toContainText('retaining bolts of check 1')
  await carryOut(page)
  await leave(page, 'Opened and inspected')
  // Marks that were never made cannot be seen to meet.
  const rebuilt = await carryOut(page, { allTheSame: 'No marks: turned as the flow arrow says' })
  expect(rebuilt.filter((s) => s.startsWith('Set check'))).toEqual([
    'Set check 2 in, its O-ring square against the body all round',
    'Set check 1 in, its O-ring square against the body all round',
  ])
  await closeRebuild(page)
})

test('the library shows a guide as a document, with its proof', async ({ page }) => {
  await signIn(page, 'odda')
  await page.getByRole('link', { name: 'Library' }).first().click()
  await page.getByLabel('Search guides and symptoms').fill('snap ring')
  await page.locator('a[href="/library/guides/spool-valve"]').last().click()
  await expect(page.getByText('Proved')).toBeVisible()
  await expect(page.getByText('No ring in the vented groove')).toBeVisible()
})

test('the library finds what is seen, with parts, checks and guide', async ({ page }) => {
  await signIn(page, 'odda')
  await page.goto('/library')
  await page.getByLabel('Search guides and symptoms').fill('weep hole wet')
  const symptoms = page.getByRole('region', { name: 'Symptoms' }).getByRole('listitem')
  await expect(symptoms).toHaveCount(3)
  await expect(symptoms.filter({ hasText: 'Lower hole wet' })).toContainText('Valve nut')
  await symptoms.first().getByRole('link').first().click()
  await expect(page.getByRole('heading', { name: 'What it shows' })).toBeVisible()
})

test('a machine is drawn in section and apart, and a part that is pressed says what can be wrong with it', async ({
  page,
}) => {
  await signIn(page, 'odda')
  await page.goto('/library')
  await page.locator('a[href="/library/machines/spring-regulator"]').click()
  await expect(page.getByRole('img', { name: /in section, closed/ })).toBeVisible()
  await page.getByRole('button', { name: 'Apart' }).click()
  await expect(page.getByRole('img', { name: /pulled apart/ })).toBeVisible()
  await page.getByRole('button', { name: /^\d+ Orifice$/ }).click()
  await expect(page.getByText('wire-drawn: renew')).toBeVisible()
  await expect(page.locator('svg.machine .part.lit')).toHaveCount(1)
  // A guide that is written on a machine shows it, proved against it.
  await page.goto('/library/guides/spool-valve')
  await expect(page.getByText(/^Proved on \d+ ways/)).toBeVisible()
  await expect(page.getByRole('img', { name: /Pneumatic spool valve.*closed/ })).toBeVisible()
})

test('the workbench answers what a technician would look up', async ({ page }) => {
  await signIn(page, 'odda')
  await page.getByRole('link', { name: 'Workbench' }).first().click()
  await page.getByLabel('Bolts', { exact: true }).fill('6')
  await expect(page.getByTestId('bolt-order')).toHaveText('1 – 4 – 2 – 5 – 3 – 6')
  await page.getByLabel('Unit of the torque').selectOption('psi')
  await expect(page.getByText(/is a pressure/)).toBeVisible()
  await page.getByLabel('Inside diameter').fill('18.6')
  await page.getByLabel('Section', { exact: true }).fill('3.5')
  await expect(page.getByText('-210')).toBeVisible()
})

/** From the list to the as-found test; what the guide asks on arrival is answered. */
async function toSite(page: Page, hints: JobHints = {}): Promise<void> {
  await carryOut(page)
  await button(page, /^All ready/).click()
  await button(page, 'Prepared – set off').click()
  await button(page, 'It is this one').click()
  await carryOut(page, hints)
  await leave(page, 'Looked round – test it as it stands')
}
async function untested(page: Page): Promise<void> {
  await button(page, 'It cannot be tested as found').click()
  await page.getByLabel('Why not').fill('Shut off since last week')
  await button(page, 'Record and go on').click()
  await carryOut(page)
  await leave(page, 'Zero is proved – open up')
}

test('a seats-only job finds a bent pin: it widens to the stem, with the kits that this needs', async ({
  page,
}) => {
  test.setTimeout(240_000)
  // Letters of twice the size.
  await page.addInitScript(() => document.documentElement.style.setProperty('font-size', '200%'))
  await open(page, /\bDR-101/)
  await take(page, null, 'Gas')
  await toSite(page)
  await carryOut(page)
  await untested(page)
  const opened = await carryOut(page, { defects: { 'Disc pin straight': 'bent' } })
  expect(opened.some((s) => s.includes('Case bolts out evenly'))).toBe(true)
  expect(opened.some((s) => s.includes('has it turned'))).toBe(false)
  await expect(page.locator('.sheet')).toContainText('Stem and disc pin')
  await leave(page, 'Opened and inspected')
  const rebuilt = await carryOut(page)
  const order = [
    'New disc pin',
    'Cap side up, the diaphragm is below',
    'Cap over its studs',
    'flat in its recess',
  ]
  const places = order.map((words) => rebuilt.findIndex((s) => s.includes(words)))
  expect(places.every((n) => n >= 0)).toBe(true)
  expect(places).toEqual([...places].sort((a, b) => a - b))
  await expect(page.locator('form.kit')).toContainText('K-DDR-083')
  await closeRebuild(page)
})

test('a part that is not at hand is ordered, and the visit that brings it is planned', async ({
  page,
}) => {
  test.setTimeout(240_000)
  await open(page, /\bDR-102/)
  await take(page, null, 'Gas')
  await toSite(page)
  await carryOut(page)
  await untested(page)
  await carryOut(page, { until: /Disc pin straight/ })
  await button(page, 'bent').click()
  await button(page, /no pin kit at hand/).click()
  await expect(page.locator('.halted')).toContainText('Waits for a part')
  await button(page, 'Stop this visit').click()
  await page.getByLabel('Why the work ends here').fill('Disc pin bent, openings blanked, tagged')
  await button(page, 'Stop the visit').click()
  await expect(page.getByText('A part is to be ordered.').first()).toBeVisible()
  await page.getByLabel('What is ordered').fill('Pin kit K-DDR-083')
  await page.getByLabel('The work goes on, on').fill(inDays(9))
  await button(page, 'Stop the visit').click()
  await expect(page.getByText('waits to be sent')).toHaveCount(0)
  await expect(async () => {
    const planned = await page.request.get(`/api/v1/visits?on=${inDays(9)}&scope=mine`)
    const { items } = (await planned.json()) as { items: { id: string; purpose: string }[] }
    expect(items.map((v) => v.purpose)).toEqual(['part-ordered'])
    await page.goto(`/visits/${items[0]?.id}`)
  }).toPass({ timeout: 20_000 })
  await expect(page.getByText('Ordered for this visit, bring it: Pin kit K-DDR-083')).toBeVisible()
})

test('two sub-jobs in one visit: each with the kit of its own, all accounted for', async ({
  page,
}) => {
  test.setTimeout(240_000)
  await page.setViewportSize({ width: 390, height: 844 })
  await open(page, /\bDR-103/)
  await page.getByLabel('Diaphragm, with the stroke set anew', { exact: true }).check()
  await page.getByLabel('Stem and disc pin').check()
  await take(page, null, 'Gas')
  await toSite(page)
  await carryOut(page)
  await untested(page)
  await carryOut(page)
  await leave(page, 'Opened and inspected')
  await carryOut(page)
  for (const number of ['K-DDR-081', 'K-DDR-082', 'K-DDR-083'])
    await expect(page.locator('form.kit')).toContainText(number)
  await closeRebuild(page)
})

test('a detector check is found with a damaged seat in ordinary maintenance: that ring alone comes out', async ({
  page,
}) => {
  test.setTimeout(240_000)
  // With letters twice as large, what is pressed next is in sight as well.
  await twiceAsLarge(page)
  await open(page, /DCDA-103/)
  await take(page, null, 'Bypass with two checks, round both')
  await toSite(page)
  await untested(page)
  const opened = await carryOut(page, { defects: { 'Seat ring 2, bare': 'nick' } })
  expect(opened.filter((s) => s.startsWith('Lock nuts of seat ring'))).toEqual([
    'Lock nuts of seat ring 2 off, from outside',
    'Lock nuts of seat ring 2, round and round, evenly firm, not hard',
  ])
  // Check 1 is closed before check 2 is opened.
  const order = ['Cover 1 down, before any bolt', 'Cover 2 straight up']
  expect(opened.filter((step) => order.includes(step))).toEqual(order)
  expect(opened).toContain('New seat ring 2 square in, every O-ring new')
  await leave(page, 'Opened and inspected')
  await carryOut(page)
  await expect(page.locator('form.kit')).toContainText('K-CDCD-032')
  await closeRebuild(page)
})

test('a complaint is closed without opening anything: the supply swings, the assembly passes', async ({
  page,
}) => {
  test.setTimeout(240_000)
  const hands = new Hands(page)
  await open(page, /RP-117/)
  await take(page, /relief valve section/, null)
  await toSite(page, { findings: { 'relief port': 'pressure swings' } })
  await button(page, 'Start the as-found test').click()
  await streamTest(page, hands)
  await expect(page.locator('p.whole')).toContainText('Pass')
  await button(page, 'Passed – left as it was found').click()
  await drawAndSign(page, 'Sign and issue the certificate')
  await page.getByRole('link', { name: 'Open the certificate' }).click()
  await expect(page.getByText(/pressure swings, no fault of its own/).first()).toBeVisible()
})
