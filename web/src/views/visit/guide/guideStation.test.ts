import type { Guide, PlacedStep } from '@uvanta/core/guide'
import { Job, type JobOptions, shippedLibrary } from '@uvanta/core/testing'
import { stationTitles, type Station } from '@uvanta/core/visit'
import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { handsOn, settled } from '@/testing/hands'
import { OneVisitServer, openOnScreen } from '@/testing/visitOnScreen'
import GuideStation from './GuideStation.vue'

const guide = (id: string) => shippedLibrary.guides.find((g) => g.id === id) as Guide
const job = (
  id: string,
  kind: string,
  variant: string,
  options: Partial<JobOptions> = {},
  jobs: readonly string[] = [],
) => new Job({ family: guide(id).family, kind, ...options }).choose(guide(id), variant, true, jobs)

const FLOW = ['make-safe', 'open-up', 'rebuild'] as const
/** A job carried out to the first step of a station that is meant. */
function upTo(made: Job, station: (typeof FLOW)[number], until: (s: PlacedStep) => boolean): Job {
  made.toMakeSafe()
  for (const at of FLOW.slice(0, FLOW.indexOf(station))) made.carryOut(at).done(at)
  return made.carryOut(station, until)
}

async function show(made: Job, station: Station) {
  const server = new OneVisitServer(made)
  const { store, pinia } = await openOnScreen(server)
  const screen = mount(GuideStation, {
    props: { station, doneWords: `${stationTitles[station]} done` },
    global: { plugins: [pinia] },
  })
  await flushPromises()
  const { press, submit } = handsOn(screen)
  /** The sentence of the step whose turn it is, by itself or as a line of several. */
  const said = () => {
    const line = screen.find('.hands .now .sentence')
    return line.exists() ? line.element.firstChild?.textContent?.trim() : screen.find('.say').text()
  }
  return { screen, store, server, press, submit, said }
}
const spool = (until: (s: PlacedStep) => boolean) =>
  upTo(job('spool-valve', 'spool valve', 'usual'), 'open-up', until)

describe('a step', () => {
  it('is shown large with what comes after it; pressing its action brings the next', async () => {
    const { screen, press, said, store } = await show(
      spool((s) => s.remove === 'spool'),
      'open-up',
    )
    expect(said()).toBe('Spool out straight')
    const before = store.state.guideSteps.length
    await press('Spool – off')
    expect(store.state.guideSteps).toHaveLength(before + 1)
    expect(said()).toBe('Mark the cap end of the sleeve')
    const coming = screen.find('[aria-label="Steps of this station"]').findAll('li')
    expect(coming[0]?.text()).toBe('Mark the cap end of the sleeve')
  })
  it('that is done can be taken up again, with what failed', async () => {
    const { screen, press, submit, said, store } = await show(
      spool((s) => s.remove === 'sleeve'),
      'open-up',
    )
    await press('Snap ring out, a hand over it')
    await screen.find('.again input').setValue('The ring sprang away')
    await submit('.again form')
    expect(said()).toBe('Snap ring out, a hand over it')
    expect(store.state.guideSteps.some((s) => s.step === '4')).toBe(true)
    expect(screen.find('summary').text()).toMatch(/^6 done/)
  })
  it('before its turn needs a reason, which stays on record', async () => {
    const { screen, press, submit, store } = await show(
      spool((s) => s.remove === 'spool'),
      'open-up',
    )
    await press('Sleeve out, engaged by its holes')
    expect(screen.text()).toContain('It is not its turn yet')
    await screen.find('form.depart input').setValue('The spool came with the sleeve')
    await submit('form.depart')
    expect(store.state.guideSteps.at(-1)).toMatchObject({
      departure: 'The spool came with the sleeve',
    })
  })
  it('recorded without a line waits on the device and is sent later', async () => {
    const made = await show(
      spool((s) => s.remove === 'spool'),
      'open-up',
    )
    made.server.online = false
    await made.press('Spool – off')
    expect(made.said()).toBe('Mark the cap end of the sleeve')
    const sent = made.server.log.length
    // The tablet is started again where there is a line.
    made.server.online = true
    const again = await openOnScreen(made.server)
    await vi.waitFor(() => expect(again.store.pending).toHaveLength(0))
    expect(made.server.log).toHaveLength(sent + 1)
    expect(again.store.state.guideSteps.at(-1)?.step).toBe(made.store.state.guideSteps.at(-1)?.step)
  })
})

describe('grooves and rings', () => {
  const counting = () => spool((s) => s.measure === 'grooves')
  it('are counted before a ring goes on: the vented groove stays empty', async () => {
    const { screen, submit, store, said } = await show(counting(), 'open-up')
    const [grooves, rings] = screen.findAll('form.grooves input')
    await grooves?.setValue('6')
    await rings?.setValue('6')
    expect(screen.text()).toContain('1 too many')
    await submit('form.grooves')
    expect(screen.text()).toContain('Do not fill a vented groove')
    await rings?.setValue('5')
    await submit('form.grooves')
    expect(store.state.guideSteps.at(-1)).toMatchObject({ counted: { grooves: 6, rings: 5 } })
    expect(said()).toBe('Wash the spool, dry it with clean air')
  })
  it('want digits', async () => {
    const { screen, submit } = await show(counting(), 'open-up')
    await screen.find('form.grooves input').setValue('six')
    await submit('form.grooves')
    expect(screen.text()).toContain('Grooves are counted first')
  })
})

describe('a check that fails', () => {
  const coupler = () => job('cartridge-coupler', 'dry-break coupler', 'usual')
  it('leads back to the step that the guide names', async () => {
    const { screen, press, submit, said, store } = await show(
      upTo(coupler(), 'rebuild', (s) => Boolean(s.trial)),
      'rebuild',
    )
    expect(said()).toContain('no lump')
    await press('No, it does not')
    await screen.find('.failed input').setValue('A lump at the top')
    await submit('.failed form')
    expect(said()).toMatch(/^Nose seal in: first at four points a quarter apart, then between/)
    expect(store.state.guideSteps.some((s) => s.at === 'rebuild')).toBe(false)
  })
  it('says so where the guide names none', async () => {
    const { screen, press } = await show(
      upTo(job('threaded-lid-cylinder', 'pneumatic cylinder', 'usual'), 'rebuild', (s) =>
        Boolean(s.verify),
      ),
      'rebuild',
    )
    await press('No, it does not')
    expect(screen.find('.failed').text()).toContain('Press the step from which')
  })
})

describe('what a step says beside its sentence', () => {
  it('which way round, and what that does', async () => {
    const { screen } = await show(
      upTo(job('dome-regulator', 'dome regulator', 'gas', {}, ['diaphragm']), 'rebuild', (s) =>
        Boolean(s.set),
      ),
      'rebuild',
    )
    const turns = screen.findAll('.turn').map((t) => t.text())
    expect(turns).toEqual(['Counter-clockwise: lowers the disc', 'Clockwise: raises the disc'])
  })
  it('where else a part may be that did not come away', async () => {
    const { screen } = await show(
      spool((s) => s.remove === 'sleeve-rings'),
      'open-up',
    )
    expect(screen.text()).not.toContain('Look in both places')
    const other = await show(
      upTo(job('cartridge-coupler', 'dry-break coupler', 'usual'), 'open-up', (s) =>
        Boolean(s.mayComeWith),
      ),
      'open-up',
    )
    expect(other.screen.text()).toMatch(
      /may have come away with shaft-seal cartridge, or have stayed/,
    )
  })
  it('what goes on a thread, how much, where', async () => {
    const { screen } = await show(
      upTo(
        job('dome-regulator', 'dome regulator', 'gas', {}, ['diaphragm']),
        'rebuild',
        (s) => s.treat === 'plate-lock',
      ),
      'rebuild',
    )
    expect(screen.text()).toContain('Thread-lock, one drop, on the thread')
  })
})

describe('stored energy', () => {
  const actuator = () => job('spring-cylinder', 'actuator', 'to-open')
  it('stands above every step but the one that lets it out', async () => {
    const before = await show(
      upTo(actuator(), 'make-safe', (s) => Boolean(s.vent)),
      'make-safe',
    )
    expect(before.screen.find('[aria-label="Stored energy"]').text()).toContain('main spring')
    const now = await show(
      upTo(actuator(), 'open-up', (s) => Boolean(s.relieve)),
      'open-up',
    )
    expect(now.screen.find('[aria-label="Stored energy"]').exists()).toBe(false)
    expect(now.screen.text()).toContain('skipping this can injure badly')
  })
})

describe('an inspection', () => {
  const tower = (until: (s: PlacedStep) => boolean) =>
    upTo(
      job('tower-double-check', 'DC', 'usual', { packId: 'larkhaven-relief-first' }),
      'open-up',
      until,
    )
  it('takes what is seen and asks for what the house’s policy wants', async () => {
    const { press, said, store } = await show(
      tower((s) => s.inspect === 'disc-1'),
      'open-up',
    )
    await press('debris')
    await press('Debris only')
    expect(store.state.guideSteps.at(-1)).toMatchObject({ finding: 'clean', defects: ['debris'] })
    expect(said()).toContain('Wipe the disc of check 1 with rag and water')
  })
  it('against the policy needs a reason', async () => {
    const { screen, press, submit, store } = await show(
      tower((s) => s.inspect === 'disc-1'),
      'open-up',
    )
    await press('cut')
    await press('Debris only')
    expect(screen.text()).toContain('By the house’s policy that is: Damaged')
    await screen.find('form.depart input').setValue('No disc at hand, back tomorrow')
    await submit('form.depart')
    expect(store.state.guideSteps.at(-1)).toMatchObject({
      finding: 'clean',
      departure: 'No disc at hand, back tomorrow',
    })
  })
})

describe('the bench', () => {
  const detector = (station: (typeof FLOW)[number], until: (s: PlacedStep) => boolean) =>
    upTo(
      job('double-check-detector', 'DCDA', 'two-checks', { packId: 'larkhaven-relief-first' }),
      station,
      until,
    )
  it('shows which part goes back now, and says loudly when that is not the last off', async () => {
    const { screen } = await show(
      detector('rebuild', (s) => s.fit === 'bypass-seat-1'),
      'rebuild',
    )
    expect(screen.find('.differs').text()).toMatch(
      /Seat of bypass check 1 goes in now.*Seat of bypass check 2 came off last/,
    )
    expect(screen.find('.slots .next').text()).toContain('Seat of bypass check 1')
  })
  it('lights the bolts in their order, the pair beside the pin first, in rising passes', async () => {
    const { screen, press } = await show(
      detector('open-up', (s) => s.tighten === 'cover-bolts-1'),
      'open-up',
    )
    const lit: string[] = []
    for (let n = 0; n < 9; n++) {
      lit.push(screen.find('g.next').text())
      await press(`Bolt ${lit.at(-1)} done`)
    }
    expect(lit.slice(0, 2)).toEqual(['1', '2'])
    expect(new Set(lit.slice(0, 8)).size).toBe(8)
    expect(lit[8]).toBe('1')
    expect(screen.text()).toContain('60 %')
  })
  it('does not close with a kit item unaccounted for', async () => {
    const { screen, store, submit } = await show(
      detector('rebuild', () => false),
      'rebuild',
    )
    const left = screen.find('[aria-label="Disc rubber: left over"]')
    await left.setValue(1)
    await submit('form.kit')
    expect(screen.text()).toMatch(/Disc rubber: 2 counted in Prepare, 1 accounted for/)
    await left.setValue(2)
    await submit('form.kit')
    expect(store.state.kitClosed).not.toBeNull()
  })
  it('goes round a soft joint until none moves, and not less often than the sheet says', async () => {
    const regulator = upTo(
      job('sleeve-regulator-actuator', 'pilot regulator', 'spring-to-close'),
      'rebuild',
      (s) => Boolean(s.steps),
    )
    const { screen, press, said } = await show(regulator, 'rebuild')
    for (let n = 0; n < 5; n++) await press('Round done – one moved')
    expect(screen.text()).not.toContain('Nothing moves any more')
    await press('Round done – none moved')
    await press('Nothing moves any more')
    expect(said()).toBe('Indicator stem in')
  })
  it('what is written down and photographed is both, or said to be without the photograph', async () => {
    const valve = upTo(job('shuttle-valve', 'transfer valve', 'usual'), 'open-up', (s) =>
      Boolean(s.photograph && s.writes),
    )
    const { screen, submit, store, said } = await show(valve, 'open-up')
    const step = said()
    await submit('form.setting')
    expect(screen.text()).toContain('The longer end is missing')
    await screen.find('form.setting input').setValue('the one with the mark')
    expect(screen.find('form.setting button').text()).toBe('Written down, without a photograph')
    await submit('form.setting')
    expect(said()).not.toBe(step)
    expect(store.state.guideSteps.at(-1)).toMatchObject({
      setting: 'the one with the mark',
      unphotographed: true,
    })
  })
  it('a waiting time runs on its own clock', async () => {
    const valve = upTo(job('pulse-valve', 'pulse valve', 'usual'), 'rebuild', (s) =>
      Boolean(s.hold),
    )
    const { screen, press, store } = await show(valve, 'rebuild')
    await press('Start the clock')
    expect(store.state.guideTimers).toHaveLength(1)
    await press('Done')
    expect(screen.text()).toMatch(/\d+ of \d+ minutes are left/)
  })
  it('both throws are measured; unequal ones say that the shaft is in backwards', async () => {
    const shuttle = upTo(job('shuttle-valve', 'shuttle valve', 'usual'), 'rebuild', (s) =>
      Boolean(s.measure),
    )
    const { screen, store } = await show(shuttle, 'rebuild')
    const form = screen.find('.guide-step form')
    const [one, other] = form.findAll('input')
    await one?.setValue('31')
    await other?.setValue('18')
    expect(screen.text()).toContain('the shaft is in backwards')
    await other?.setValue('30.5')
    await form.trigger('submit')
    await settled()
    expect(store.state.guideSteps.at(-1)?.throws).toMatchObject({
      other: { value: '30.5', unit: 'mm' },
    })
  })
})

describe('what a step is held against', () => {
  it('stands before the answer, and a No says what then', async () => {
    const trial = await show(
      upTo(
        job('tower-double-check', 'DC', 'usual', { packId: 'larkhaven-relief-first' }),
        'open-up',
        (s) => Boolean(s.trial),
      ),
      'open-up',
    )
    expect(trial.screen.find('.wanted').text()).toMatch(/arms and bosses up, it swings open down/)
    await trial.press('No, it does not')
    expect(trial.screen.find('.failed').text()).toContain('tower screws of check 1 out')
    const required = await show(
      upTo(
        job('rp-relief', 'RP', 'usual', { packId: 'larkhaven-relief-first' }),
        'make-safe',
        (s) => Boolean(s.require),
      ),
      'make-safe',
    )
    expect(required.screen.find('.wanted').text()).toContain('points at the relief')
    await required.press('No, it is not')
    expect(required.screen.find('.failed').text()).toContain('check 1 reads low: check 1')
  })
})
