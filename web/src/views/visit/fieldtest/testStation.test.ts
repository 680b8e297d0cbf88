import { Job } from '@uvanta/core/testing'
import { enableAutoUnmount, flushPromises, mount } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { handsOn } from '@/testing/hands'
import { useGauge } from '@/stores/gauge'
import { OneVisitServer, openOnScreen, problem } from '@/testing/visitOnScreen'
import TestStation from './TestStation.vue'

/** A double check in the shop of an ice-cream maker, before its test. */
const arrived = () =>
  new Job({ family: 'tower-double-check', kind: 'DC', packId: 'larkhaven-check-first' })
    .done('prepare')
    .must('identity', { outcome: 'confirmed' })
    .done('arrive')

/** The drawing’s pressures are computed beside the page; here nobody computes. */
class NoWorker extends EventTarget {
  postMessage() {}
  terminate() {}
}
vi.stubGlobal('Worker', NoWorker)

const page = { template: '<i />' }
const router = () =>
  createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', component: page },
      { path: '/visits/:id/form/:run', name: 'paper-form', component: page },
    ],
  })

async function sheet(
  server = new OneVisitServer(arrived()),
  run: 'as-found' | 'as-left' = 'as-found',
) {
  const { store, pinia } = await openOnScreen(server)
  const screen = mount(TestStation, {
    props: { run },
    // A chart draws on a canvas, which is none here.
    global: { plugins: [pinia, router()], stubs: { TraceChart: true } },
    attachTo: document.body,
  })
  await flushPromises()
  const { press, fill, submit } = handsOn(screen)
  const begun = () => submit('form')
  /** Goes on until a step wants something to be recorded under this title; outside it is dry. */
  const until = async (title: string) => {
    const asks = (what: string) =>
      screen.find('.do').exists() && screen.find('.do').text().includes(what)
    for (let n = 0; n < 20 && !asks(title); n++)
      await press(asks('Outside leak') ? 'None' : / done$|next step$/)
  }
  const read = async (title: string, value: string) => {
    await until(title)
    await fill(title, value)
    await submit('form.reading')
  }
  const verdict = () => store.verdict('as-found')
  const gauge = useGauge(pinia)
  return { screen, store, server, gauge, press, fill, submit, begun, until, read, verdict }
}
// One that stayed would go on acting, and its stores would be the ones that the next test asks.
enableAutoUnmount(afterEach)

/** A line to a gauge that the test opens. */
class Line extends EventTarget {
  static readonly OPEN = 1
  static last: Line | undefined
  readonly readyState = 1
  constructor() {
    super()
    Line.last = this
  }
  send() {}
  close() {}
}

/** Has one address answered otherwise from here on. */
function otherwise(server: OneVisitServer, ending: string, answer: () => Promise<Response>) {
  const usual = server.answer
  server.answer = (url, init) => (url.endsWith(ending) ? answer() : usual(url, init))
  globalThis.fetch = server.answer as typeof fetch
}

/** Begins the test, and leaves the sheet. */
async function begunAndLeft(server: OneVisitServer) {
  const { begun, screen } = await sheet(server)
  await begun()
  screen.unmount()
}

describe('the test sheet', () => {
  it('leaves what is being typed when a gauge comes on the line', async () => {
    vi.stubGlobal('WebSocket', Line)
    const server = new OneVisitServer(arrived())
    const { screen, gauge, until, begun, press, fill } = await sheet(server)
    await begun()
    await until('Shutoff 2')
    await press('Tight')
    await until('Check 1 differential')
    await fill('Check 1 differential', '2.4')
    server.gaugeUrl = 'ws://gauge'
    await gauge.open()
    Line.last?.dispatchEvent(new Event('open'))
    await flushPromises()
    expect(gauge.streaming).toBe(true)
    expect(screen.find<HTMLInputElement>('form.reading input').element.value).toBe('2.4')
  })
  it('has the gauge on the line as it begins, without asking again where one is', async () => {
    vi.stubGlobal('WebSocket', Line)
    const server = new OneVisitServer(arrived())
    server.gaugeUrl = 'ws://gauge'
    const { begun, gauge } = await sheet(server)
    const asked = vi.fn(() => new Promise<Response>(() => undefined))
    otherwise(server, '/gauge-link', asked)
    await begun()
    expect(gauge.streaming).toBe(true)
    expect(asked).not.toHaveBeenCalled()
  })
  it('asks nothing as long as it is not known whether a gauge comes on the line', async () => {
    vi.stubGlobal('WebSocket', Line)
    const server = new OneVisitServer(arrived())
    await begunAndLeft(server)
    // A port where a gauge could hang is there, and is no reason to take it.
    Object.defineProperty(navigator, 'serial', { value: {}, configurable: true })
    let known = (_: Response) => {}
    otherwise(server, '/gauge-link', () => new Promise((resolve) => (known = resolve)))
    // As after a reload in the middle of the test.
    const { screen, gauge } = await sheet(server)
    expect(screen.find('.do').exists()).toBe(false)
    expect(screen.text()).toContain('Loading the gauge')
    known(Response.json({ url: 'ws://gauge' }))
    await flushPromises()
    expect([gauge.virtual, screen.find('.do').exists()]).toEqual([true, true])
    Reflect.deleteProperty(navigator, 'serial')
  })
  it('goes on by typing where nobody says whether there is a gauge', async () => {
    const server = new OneVisitServer(arrived())
    await begunAndLeft(server)
    const busy = problem(503, 'busy', 'The server is busy.', 'Try again.')
    otherwise(server, '/gauge-link', () => Promise.resolve(Response.json(busy, { status: 503 })))
    const { screen, gauge } = await sheet(server)
    await vi.waitFor(
      () => expect([screen.find('.do').exists(), gauge.streaming]).toEqual([true, false]),
      { timeout: 15_000 },
    )
  })
  it('names the gauge, its calibration and the licence, and begins with them on record', async () => {
    const { screen, store, fill, begun } = await sheet()
    expect(screen.text()).toContain('In calibration to 31 Dec 2026')
    expect(screen.text()).toContain('Licence backflow-tester-check-first-1, valid to 1 Jan 2030')
    await fill('Line pressure', '62')
    await begun()
    expect(store.state.runs['as-found']?.started).toMatchObject({
      instruments: [{ tag: 'G-1', calibrationCertificate: 'CAL-1' }],
      licence: { number: 'backflow-tester-check-first-1' },
      linePressure: { value: '62', unit: 'psi' },
      packVersion: store.state.plan?.pins?.pack?.version,
    })
  })
  it('does not begin with a line pressure that is no number, and says how to write it', async () => {
    const { screen, store, fill, begun } = await sheet()
    await fill('Line pressure', 'sixty')
    await begun()
    expect(screen.text()).toContain('Line pressure must be digits with a point, as 5.4.')
    expect(store.state.runs['as-found']).toBeUndefined()
  })
  it('does not begin without the licence that the pack wants', async () => {
    const server = new OneVisitServer(arrived())
    server.licences = server.licences.filter((l) => l.kind !== 'backflow-tester-check-first')
    const { screen, store, begun } = await sheet(server)
    await begun()
    expect(screen.text()).toContain('You hold no licence')
    expect(store.state.runs['as-found']).toBeUndefined()
  })
  it('leads step by step to a verdict that grows with what is taken', async () => {
    const { screen, store, press, begun, until, read, verdict } = await sheet()
    await begun()
    expect(screen.find('.count').text()).toMatch(/^Step 1 of \d+/)
    expect(verdict()?.outcome).toBe('not-assessed')
    await until('Shutoff 2')
    await press('Tight')
    await read('Check 1 differential', '2.4')
    expect(screen.find('.verdict').text()).toContain('2.4')
    await read('Check 2 differential', '0.6')
    await press(/That ends the test$/)
    expect(verdict()?.outcome).toBe('fail')
    expect(screen.find('.whole').text()).toContain('Fail')
    await press('Make it safe, then repair')
    expect(store.state.done).toContain('as-found')
  })
  it('is left as it was found, in one press, only when it passed', async () => {
    const { screen, store, press, begun, until, read } = await sheet()
    await begun()
    await until('Shutoff 2')
    await press('Tight')
    await read('Check 1 differential', '2.4')
    await read('Check 2 differential', '1.6')
    await press(/That ends the test$/)
    expect(screen.find('.whole').text()).toContain('Pass')
    await press('Passed – left as it was found')
    expect(store.state.skipped).toContain('make-safe')
    expect(store.state.done).toEqual(['prepare', 'arrive', 'as-found', 'return'])
  })
  it('takes a step up again when it is chosen, and the last reading stands', async () => {
    const { screen, store, press, begun, until, read, verdict } = await sheet()
    await begun()
    await until('Shutoff 2')
    await press('Tight')
    await read('Check 1 differential', '0.4')
    const failed = () => verdict()?.items.find((i) => i.id === 'check-1')?.outcome
    expect(failed()).toBe('fail')
    const steps = screen.findAll('.steps button')
    const again = steps.find(
      (b) => b.classes('done') && b.attributes('aria-label')?.includes('read'),
    )
    await again?.trigger('click')
    await flushPromises()
    await read('Check 1 differential', '2.4')
    expect(store.state.runs['as-found']?.readings.map((r) => r.value)).toEqual(['0.4', '2.4'])
    expect(failed()).toBe('pass')
  })
})

describe('a reading that the gauge cannot have shown', () => {
  async function mistyped() {
    const made = await sheet()
    await made.begun()
    await made.until('Shutoff 2')
    await made.press('Tight')
    await made.read('Check 1 differential', '48')
    return made
  }
  it('is questioned with what was probably meant, and taken so on one press', async () => {
    const { store, screen, press } = await mistyped()
    expect(store.state.runs['as-found']?.readings).toEqual([])
    expect(screen.find('[role="alert"]').text()).toContain('4.8?')
    await press('Take 4.8')
    expect(store.state.runs['as-found']?.readings.map((r) => r.value)).toEqual(['4.8'])
  })
  it('stands when its reason is given, and is not assessed', async () => {
    const { store, screen, press, submit, verdict } = await mistyped()
    await press('It really shows 48')
    await submit('form.reading')
    expect(store.state.runs['as-found']?.readings).toEqual([])
    await screen.find('[id^="insist-"]').setValue('A second gauge shows the same')
    await submit('form.reading')
    expect(store.state.runs['as-found']?.readings[0]).toMatchObject({
      value: '48',
      insisted: 'A second gauge shows the same',
    })
    expect(verdict()?.items.find((i) => i.id === 'check-1')?.outcome).toBe('not-assessed')
  })
})

describe('a filled paper form', () => {
  async function filling() {
    const made = await sheet()
    await made.begun()
    await made.press('Enter a filled form')
    return made
  }
  it('names the first field that is missing, and records nothing', async () => {
    const { screen, store, submit } = await filling()
    await submit('form.filled')
    expect(screen.text()).toContain('Outside leak is missing: enter what stands on the form.')
    expect(store.state.runs['as-found']?.stepsDone).toEqual([])
  })
  it('is recorded whole, in the order of its steps, and judged', async () => {
    const { store, fill, submit, verdict } = await filling()
    await fill('Outside leak', 'none')
    await fill('Shutoff 2', 'tight')
    await fill('Check 1 differential', '2.4')
    await fill('Check 2 differential', '1.6')
    await submit('form.filled')
    expect(store.state.runs['as-found']?.order).toEqual([
      'outside',
      'shutoff-2',
      'check-1',
      'check-2',
    ])
    expect(verdict()?.outcome).toBe('pass')
  })
  it('wants the reason of an impossible reading beside it', async () => {
    const { screen, store, fill, submit, verdict } = await filling()
    await fill('Outside leak', 'none')
    await fill('Shutoff 2', 'tight')
    await fill('Check 1 differential', '24')
    await fill('Check 2 differential', '1.6')
    await submit('form.filled')
    expect(store.state.runs['as-found']?.readings).toEqual([])
    expect(screen.text()).toContain('say how that can be')
    await fill('It stands all the same', 'So it stands on the form')
    await submit('form.filled')
    expect(verdict()?.outcome).toBe('not-assessed')
  })
})

describe('what cannot be tested as found', () => {
  it('needs its reason, which stays on record', async () => {
    const { screen, store, press, fill } = await sheet()
    await press('It cannot be tested as found')
    await press('Record and go on')
    expect(screen.text()).toContain('Say why the readings cannot be taken.')
    await fill('Why not', 'Shut off since the flood')
    await press('Record and go on')
    expect(store.state.asFoundImpossible?.reason).toBe('Shut off since the flood')
  })
})
