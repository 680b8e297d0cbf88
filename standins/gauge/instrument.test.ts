import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ask, type GaugeMessage, parseMessage } from '@uvanta/core/instrument'
import { beforeEach, describe, expect, it } from 'vitest'
import { Instrument } from './instrument'
import { mayConnect } from './origin'
import { HiddenSites } from './sites'

const FOULED = { element: 'check-1', fault: 'fouled', severity: 0.4 }
let folder: string
/** All that it says, and what it says beside that it is done with a line. */
let everything: string[]
let said: string[]
let gauge: Instrument
const sites = () => new HiddenSites(join(folder, 'sites.json'), join(folder, 'services.json'))
const messages = () => said.map((l) => parseMessage(l)).filter((m): m is GaugeMessage => m !== null)
const values = () => messages().flatMap((m) => (m.type === 'sample' ? [m.value] : []))
const lastSight = () => messages().findLast((m) => m.type === 'sight')

/** Uniform numbers that repeat, so that the noise is the same each time. */
function numbers(): () => number {
  let state = 11
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
}
const pass = (seconds: number) => {
  for (let n = 0; n < seconds * 10; n++) gauge.tick()
}
/** Hoses on cocks 2 and 3, bled. */
function across(id: string) {
  gauge.hear(ask.site(id, 'RP', '2'))
  gauge.hear(ask.hose('high', 'cock-2'))
  gauge.hear(ask.hose('low', 'cock-3'))
  for (const cock of ['low-bleed', 'cock-3', 'cock-2', 'high-bleed'])
    gauge.hear(ask.move(cock, 'open'))
  pass(8)
  gauge.hear(ask.move('high-bleed', 'shut'))
  gauge.hear(ask.move('low-bleed', 'shut'))
  pass(20)
}

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'uvgauge-'))
  const hidden = { kind: 'RP', sizeIn: 2, supplyKpa: 450, springs: {}, faults: [FOULED] }
  writeFileSync(join(folder, 'sites.json'), JSON.stringify({ fouled: hidden }))
  everything = []
  said = []
  const hear = (line: string) => {
    everything.push(line)
    if (!line.startsWith('D ')) said.push(line)
  }
  gauge = new Instrument(sites(), hear, numbers())
  gauge.hear(ask.start())
})

describe('the simulated gauge', () => {
  it('says who it is', () => {
    gauge.hear(ask.hello())
    expect(messages()[0]).toMatchObject({ type: 'hello', unit: 'psi', span: 15 })
  })
  it('reads the spring of healthy equipment that it knows nothing of', () => {
    across('stranger')
    expect(values().at(-1)).toBeGreaterThan(7.4)
    expect(values().at(-1)).toBeLessThan(7.8)
    expect(lastSight()).toMatchObject({ running: [] })
  })
  it('reads what the hidden condition makes of it, and the relief is seen to drip', () => {
    across('fouled')
    expect(values().at(-1)).toBeLessThan(5)
    expect(lastSight()).toMatchObject({ running: ['relief'] })
  })
  it('remembers what was cleaned, also after it was started anew', () => {
    gauge.hear(ask.site('fouled', 'RP', '2'))
    gauge.hear(ask.service('check-1', 'cleaned'))
    gauge = new Instrument(sites(), (line) => said.push(line), numbers())
    gauge.hear(ask.start())
    across('fouled')
    expect(values().at(-1)).toBeGreaterThan(7)
  })
  it('complains in words of a valve that is not there, and goes on', () => {
    gauge.hear(ask.site('stranger', 'RP', '2'))
    gauge.hear(ask.hose('high', 'cock-9'))
    expect(messages().at(-1)).toMatchObject({
      type: 'trouble',
      says: expect.stringContaining('cock-9') as string,
    })
    pass(1)
    expect(values()).toHaveLength(10)
  })
  it.each(['', 'NONSENSE', 'MOVE', 'HOSE high', 'SITE', 'HEIGHT x', 'MOVE cock-2 sideways'])(
    'passes over %j',
    (line) => {
      expect(() => gauge.hear(line)).not.toThrow()
      pass(0.5)
      expect(values()).toHaveLength(5)
    },
  )
  it('drops out, sends rubbish, goes flat and recovers when it is told to', () => {
    gauge.hear('TROUBLE drop')
    pass(1)
    expect(said).toEqual([])
    gauge.hear('TROUBLE rubbish')
    pass(1)
    expect(said.length).toBe(10)
    expect(messages()).toEqual([])
    gauge.hear('TROUBLE flat')
    pass(1)
    expect(messages().some((m) => m.type === 'battery' && m.percent < 10)).toBe(true)
    const before = values().length
    gauge.hear('TROUBLE ok')
    pass(1)
    expect(values().length).toBe(before + 10)
  })
  it('takes the instrument that shows what is read of a machine, and moves it by its signal', () => {
    gauge.hear(ask.site('drive', 'control valve', '2'))
    gauge.hear(ask.show('up-50', 'fraction'))
    expect(messages().at(-1)).toMatchObject({ type: 'hello', unit: '%' })
    gauge.hear(ask.apply('signal', 0.5))
    pass(10)
    expect(values().at(-1)).toBeCloseTo(50, 0)
    gauge.hear(ask.adjust('zero', 2))
    pass(10)
    // 2 % of the travel a turn.
    expect(values().at(-1)).toBeCloseTo(54, 0)
    gauge.hear(ask.apply('current', 1))
    expect(messages().at(-1)).toMatchObject({ type: 'trouble' })
  })
  it('counts what bubbles, until the seat is cleaned', () => {
    const bubbles = { element: 'main-seat', fault: 'fouled', severity: 0.5 }
    const hidden = {
      kind: 'check valve',
      sizeIn: 1,
      supplyKpa: 500,
      springs: {},
      faults: [bubbles],
    }
    writeFileSync(join(folder, 'sites.json'), JSON.stringify({ check: hidden }))
    gauge.hear(ask.site('check', 'check valve', '1'))
    gauge.hear(ask.show('bubbles', 'frequency'))
    pass(5)
    expect(values().at(-1)).toBeGreaterThan(20)
    gauge.hear(ask.service('main-seat', 'cleaned'))
    gauge.hear(ask.site('check', 'check valve', '1'))
    gauge.hear(ask.show('bubbles', 'frequency'))
    pass(5)
    expect(values().at(-1)).toBe(0)
  })
  it('turns the adjuster of a regulator', () => {
    gauge.hear(ask.site('reg', 'spring regulator', '1'))
    gauge.hear(ask.hose('gauge', 'outlet-tap'))
    gauge.hear(ask.move('outlet-tap', 'open'))
    gauge.hear(ask.move('shutoff-2', 'shut'))
    gauge.hear(ask.move('flow-tap', 'crack'))
    pass(20)
    const before = values().at(-1) ?? 0
    gauge.hear(ask.adjust('regulator', 1))
    pass(60)
    expect((values().at(-1) ?? 0) / before).toBeGreaterThan(1.04)
  })
  it('records the inlet and the outlet of a regulator beside what its hose is at', () => {
    gauge.hear(ask.site('reg', 'spring regulator', '1'))
    gauge.hear(ask.hose('gauge', 'outlet-tap'))
    gauge.hear(ask.move('outlet-tap', 'open'))
    pass(10)
    const places = () => messages().flatMap((m) => (m.type === 'channel' ? [m.place] : []))
    expect(new Set(places())).toEqual(new Set(['body-1']))
    const inlet = messages().findLast((m) => m.type === 'channel')
    // The supply of a site that nothing is known of: 450 kPa.
    expect(inlet?.value).toBeCloseTo(450 / 6.894757, 0)
    said.length = 0
    gauge.hear(ask.hose('gauge', 'inlet-tap'))
    pass(5)
    expect(new Set(places())).toEqual(new Set(['body-2']))
  })
  it('has no other channels at a backflow assembly', () => {
    across('stranger')
    expect(messages().some((m) => m.type === 'channel')).toBe(false)
  })
  it('counts its samples, so that a lost one is noticed', () => {
    pass(2)
    const seqs = messages().flatMap((m) => (m.type === 'sample' ? [m.seq] : []))
    expect(seqs).toEqual(Array.from({ length: 20 }, (_, n) => n + 1))
  })
  it('says nothing after it was stopped', () => {
    pass(1)
    gauge.hear(ask.stop())
    const before = said.length
    pass(1)
    expect(said.length).toBe(before)
  })
})

describe('what it was told', () => {
  it('is carried out when it says so: no sample after that was taken before', () => {
    across('stranger')
    everything = []
    gauge.hear(ask.hose('high', null))
    gauge.hear(ask.hose('low', null))
    pass(1)
    // START, SITE, two hoses and six turns came before.
    expect(everything.slice(0, 3).map((line) => parseMessage(line))).toMatchObject([
      { type: 'done', lines: 11 },
      { type: 'done', lines: 12 },
      { type: 'sample' },
    ])
  })
})

describe('who talks to it', () => {
  it('is a page of the application, and nobody else', () => {
    const publicUrl = 'https://uvanta.example.org'
    const own = { publicUrl, port: '4870' }
    for (const origin of ['http://127.0.0.1:4870', 'http://localhost:4870', publicUrl])
      expect([origin, mayConnect(origin, own)]).toEqual([origin, true])
    for (const origin of [
      undefined,
      'http://127.0.0.1:5173',
      'http://localhost',
      'https://evil.example',
      'null',
      '',
      'https://uvanta.example.org.evil.example',
    ])
      expect([origin, mayConnect(origin, own)]).toEqual([origin, false])
    expect(mayConnect(publicUrl, {})).toBe(false)
  })
  it('cannot end it with a name that every object has', () => {
    for (const id of ['constructor', '__proto__', 'toString'])
      expect(() => gauge.hear(ask.site(id, 'RP', '1'))).not.toThrow()
    pass(1)
    expect(messages().length).toBeGreaterThan(0)
  })
})
