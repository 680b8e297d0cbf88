import { formatMessage, type GaugeMessage } from '@uvanta/core/instrument'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type GaugeDriver, lineReader } from './driver'
import { GaugeLink, type LinkView } from './link'
import { type Port, serialDriver } from './serialDriver'

const hello: GaugeMessage = {
  type: 'hello',
  tag: 'G-01',
  serial: 'DG-1',
  unit: 'psi',
  span: 15,
  resolution: 0.01,
  periodS: 0.1,
}
const sample = (seq: number, value: number): string =>
  formatMessage({ type: 'sample', seq, atS: seq / 10, value })

/** A driver whose other end is the test. */
class Scripted implements GaugeDriver {
  readonly title = 'scripted'
  readonly virtual = true
  readonly sent: string[] = []
  opened = 0
  refuse = false
  private hear: (line: string) => void = () => undefined
  private closed: () => void = () => undefined
  async open(hear: (line: string) => void, closed: () => void) {
    this.opened++
    if (this.refuse) throw new Error('no answer')
    this.hear = hear
    this.closed = closed
  }
  send(line: string) {
    this.sent.push(line)
  }
  close() {}
  say(...lines: string[]) {
    for (const line of lines) this.hear(line)
  }
  pull() {
    this.closed()
  }
}

let driver: Scripted
let view: LinkView
let link: GaugeLink
beforeEach(async () => {
  vi.useFakeTimers()
  driver = new Scripted()
  link = new GaugeLink(
    driver,
    (v) => (view = v),
    () => ['SITE e RP 1'],
  )
  link.start()
  await vi.advanceTimersByTimeAsync(0)
})
afterEach(() => {
  link.stop()
  vi.useRealTimers()
})

describe('a link to a gauge', () => {
  it('says hello, tells the site and starts it', () => {
    expect(driver.sent).toEqual(['HELLO', 'SITE e RP 1', 'START'])
    driver.say(formatMessage(hello), sample(1, 2.5))
    expect(view).toMatchObject({ state: 'live', value: 2.5, hello: { tag: 'G-01' } })
  })
  it('marks samples that were lost', () => {
    driver.say(sample(1, 2), sample(4, 2.1))
    expect([...link.samples.since()]).toEqual([2, NaN, NaN, 2.1])
  })
  it('remembers when something was seen to lift, and not when a tap began to run', () => {
    const sight = (running: readonly string[], lifted: readonly string[] = []) =>
      formatMessage({ type: 'sight', running, turning: [], lifted, wideOpen: [] })
    driver.say(sample(1, 2), sight(['flow-tap']), sample(2, 2), sample(3, 2))
    expect(view.seenAt).toEqual([])
    driver.say(sight(['flow-tap']), sample(4, 2), sight(['flow-tap'], ['slam-shut']))
    expect(view.seenAt).toEqual([4])
    driver.say(sample(5, 2), sight([]))
    expect(view.seenAt).toEqual([4])
    // What falls shut and lifts again does not take the place of the first time.
    driver.say(sight([], ['slam-shut']), sample(6, 2))
    expect(view.seenAt).toEqual([4, 5])
  })
  it('says when it falls silent and recovers with the next sample', async () => {
    driver.say(sample(1, 2))
    await vi.advanceTimersByTimeAsync(3_000)
    expect(view).toMatchObject({ state: 'silent', value: null })
    driver.say(sample(2, 2.2))
    expect(view).toMatchObject({ state: 'live', value: 2.2 })
  })
  it('connects again after it dropped out, tells the site anew, and keeps what it had', async () => {
    driver.say(sample(1, 2), sample(2, 2))
    driver.pull()
    expect(view.state).toBe('lost')
    driver.refuse = true
    await vi.advanceTimersByTimeAsync(2_000)
    expect(view.state).toBe('lost')
    driver.refuse = false
    await vi.advanceTimersByTimeAsync(4_000)
    driver.say(sample(1, 3))
    expect(view.state).toBe('live')
    expect(driver.sent.filter((l) => l === 'SITE e RP 1')).toHaveLength(2)
    const kept = [...link.samples.since()]
    expect(kept.slice(0, 2)).toEqual([2, 2])
    expect(kept.at(-1)).toBe(3)
  })
  it('says that it hears rubbish, keeps none of it, and recovers', () => {
    driver.say(sample(1, 2))
    for (let n = 0; n < 8; n++) driver.say(`S ${n} 9.9 zz*00`)
    expect(view).toMatchObject({ state: 'rubbish', value: null })
    expect(link.samples.length).toBe(1)
    driver.say(sample(2, 2.1))
    expect(view.state).toBe('live')
  })
  it('keeps what a recorder shows beside by the samples of the gauge', () => {
    driver.say(
      sample(1, 2),
      formatMessage({ type: 'channel', place: 'body-1', unit: 'psi', value: 60 }),
    )
    driver.say(sample(2, 2), sample(3, 2))
    driver.say(formatMessage({ type: 'channel', place: 'body-1', unit: 'psi', value: 61 }))
    const inlet = link.channels.get('body-1')
    expect(inlet?.unit).toBe('psi')
    expect(inlet?.since(0)).toEqual([
      { at: 1, value: 60 },
      { at: 3, value: 61 },
    ])
    expect(inlet?.since(2)).toEqual([{ at: 3, value: 61 }])
    expect(inlet?.since(4)).toEqual([])
  })
  it('tells of a battery that runs low and of what the gauge complains', () => {
    driver.say(
      formatMessage({ type: 'battery', percent: 3 }),
      formatMessage({ type: 'trouble', says: 'sensor wet' }),
    )
    expect(view).toMatchObject({ battery: 3, says: 'sensor wet' })
  })
})

describe('lines', () => {
  it('are put together from chunks, whatever their ends', () => {
    const heard: string[] = []
    const read = lineReader((l) => heard.push(l))
    for (const chunk of ['S 1', ' 0.1\r', '\nS 2 0.2\n', '\nS', ' 3']) read(chunk)
    expect(heard).toEqual(['S 1 0.1', 'S 2 0.2'])
  })
  it('without an end do not grow for ever', () => {
    const heard: string[] = []
    const read = lineReader((l) => heard.push(l))
    for (let n = 0; n < 100; n++) read('x'.repeat(1000))
    read('\n')
    expect(heard[0]?.length).toBeLessThanOrEqual(1000)
  })
})

describe('a turn at a virtual site', () => {
  const done = (lines: number) => formatMessage({ type: 'done', lines })
  it('counts from when it was carried out, not from when it was asked for', () => {
    driver.say(formatMessage(hello), sample(1, 0), done(3))
    link.turn('HOSE gauge inlet-tap')
    // What was on its way meanwhile shows the gauge as it hung before.
    driver.say(sample(2, 0), sample(3, 0))
    expect(link.turning).toBe(true)
    driver.say(done(3))
    expect(link.turning).toBe(true)
    driver.say(done(4), sample(4, 60))
    expect([link.turning, link.turnedAt, link.samples.length]).toEqual([false, 3, 4])
  })
  it('that was asked for when the line went is carried out when it is back', async () => {
    link.turn('HOSE gauge inlet-tap')
    driver.pull()
    await vi.advanceTimersByTimeAsync(2_000)
    expect(driver.opened).toBe(2)
    driver.say(done(1))
    expect(link.turning).toBe(true)
    driver.say(done(2))
    expect(link.turning).toBe(false)
  })
})

describe('an instrument at a serial port', () => {
  /** A port whose bytes are scripted. */
  function scriptedPort() {
    let controller!: ReadableStreamDefaultController<Uint8Array>
    const written: string[] = []
    const port: Port & { opened: number; closedTimes: number } = {
      opened: 0,
      closedTimes: 0,
      async open({ baudRate }) {
        expect(baudRate).toBe(115_200)
        this.opened++
      },
      async close() {
        this.closedTimes++
      },
      readable: new ReadableStream<Uint8Array>({ start: (c) => void (controller = c) }),
      writable: new WritableStream<Uint8Array>({
        write: (chunk) => void written.push(new TextDecoder().decode(chunk)),
      }),
    }
    const say = (text: string) => controller.enqueue(new TextEncoder().encode(text))
    return { port, written, say, pull: () => controller.error(new Error('unplugged')) }
  }

  it('is read and written line by line', async () => {
    vi.useRealTimers()
    const { port, written, say } = scriptedPort()
    const serial = serialDriver(async () => port)
    const heard: string[] = []
    await serial.open((l) => heard.push(l), vi.fn())
    serial.send('HELLO')
    say('S 1 0.1')
    say(' 2.5*aa\r\nS 2')
    await vi.waitFor(() => expect(heard).toEqual(['S 1 0.1 2.5*aa']))
    await vi.waitFor(() => expect(written).toEqual(['HELLO\n']))
  })
  it('that is unplugged is closed and said to be', async () => {
    vi.useRealTimers()
    const { port, pull } = scriptedPort()
    const closed = vi.fn()
    const serial = serialDriver(async () => port)
    await serial.open(() => undefined, closed)
    pull()
    await vi.waitFor(() => expect(closed).toHaveBeenCalledOnce())
    expect(port.closedTimes).toBe(1)
  })
  it('is closed when it is no longer wanted', async () => {
    vi.useRealTimers()
    const { port } = scriptedPort()
    const closed = vi.fn()
    const serial = serialDriver(async () => port)
    await serial.open(() => undefined, closed)
    serial.close()
    await vi.waitFor(() => expect(closed).toHaveBeenCalledOnce())
  })
})
