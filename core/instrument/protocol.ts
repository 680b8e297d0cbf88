/**
 * The line protocol of a test gauge, one version for the stand-in and for a real instrument behind
 * a serial port. ASCII lines; see docs/gauge-link.md. A line ends in `*` and two hexadecimal
 * digits: the sum of its characters modulo 256, so that a damaged line is noticed.
 */
import type { Opening } from '../apparatus'
import type { Dimension } from '../quantity'

/** What a gauge says of itself. */
export interface GaugeHello {
  readonly type: 'hello'
  readonly tag: string
  readonly serial: string
  /** Of what it shows; see `dimensionShown`. */
  readonly unit: string
  readonly span: number
  readonly resolution: number
  readonly periodS: number
}

export interface GaugeSample {
  readonly type: 'sample'
  /** Counts up by one; a gap is a lost sample. */
  readonly seq: number
  /** Seconds on the gauge’s own clock. */
  readonly atS: number
  readonly value: number
}

/** A channel beside the main one, where the instrument is a recorder of several. */
export interface GaugeChannel {
  readonly type: 'channel'
  /** The place whose pressure it shows. */
  readonly place: string
  readonly unit: string
  readonly value: number
}

export interface GaugeBattery {
  readonly type: 'battery'
  readonly percent: number
}

/** What a person at a virtual site would see; a real instrument does not send it. */
export interface GaugeSight {
  readonly type: 'sight'
  readonly running: readonly string[]
  readonly turning: readonly string[]
  readonly lifted: readonly string[]
  readonly wideOpen: readonly string[]
}

/** A virtual site has carried out what was said to it; a real instrument does not send it. */
export interface GaugeDone {
  readonly type: 'done'
  /** How many lines it has heard since the line was opened. */
  readonly lines: number
}

export interface GaugeTrouble {
  readonly type: 'trouble'
  readonly says: string
}

export type GaugeMessage =
  GaugeHello | GaugeSample | GaugeChannel | GaugeBattery | GaugeSight | GaugeDone | GaugeTrouble

const sum = (text: string) => {
  let total = 0
  for (let i = 0; i < text.length; i++) total += text.charCodeAt(i)
  return (total & 0xff).toString(16).padStart(2, '0')
}
const sealed = (text: string) => `${text}*${sum(text)}`
const list = (ids: readonly string[]) => (ids.length > 0 ? ids.join(',') : '-')
const unlist = (text = '-') => (text === '-' ? [] : text.split(','))

export function formatMessage(message: GaugeMessage): string {
  switch (message.type) {
    case 'hello': {
      const { tag, serial, unit, span, resolution, periodS } = message
      return sealed(`UVG1 ${tag} ${serial} ${unit} ${span} ${resolution} ${periodS}`)
    }
    case 'sample':
      return sealed(`S ${message.seq} ${message.atS.toFixed(2)} ${message.value.toFixed(3)}`)
    case 'channel':
      return sealed(`C ${message.place} ${message.unit} ${message.value.toFixed(3)}`)
    case 'battery':
      return sealed(`B ${message.percent}`)
    case 'sight':
      return sealed(
        `V ${[message.running, message.turning, message.lifted, message.wideOpen].map(list).join(' ')}`,
      )
    case 'done':
      return sealed(`D ${message.lines}`)
    case 'trouble':
      return sealed(`E ${message.says}`)
  }
}

/** A line of the gauge; null when it is damaged or none of ours. */
export function parseMessage(line: string): GaugeMessage | null {
  const match = /^(.*)\*([0-9a-f]{2})$/.exec(line.trim())
  if (!match || sum(match[1] as string) !== match[2]) return null
  const [kind, ...words] = (match[1] as string).split(' ')
  const number = (n: number) => (words[n] === undefined || words[n] === '' ? NaN : Number(words[n]))
  switch (kind) {
    case 'UVG1': {
      const [tag = '', serial = '', unit = ''] = words
      const [span, resolution, periodS] = [number(3), number(4), number(5)]
      const sane = span > 0 && resolution > 0 && periodS > 0 && periodS <= 10
      return sane ? { type: 'hello', tag, serial, unit, span, resolution, periodS } : null
    }
    case 'S': {
      const [seq, atS, value] = [number(0), number(1), number(2)]
      const sane = Number.isInteger(seq) && atS >= 0 && Number.isFinite(value)
      return sane ? { type: 'sample', seq, atS, value } : null
    }
    case 'C': {
      const [place = '', unit = ''] = words
      const value = number(2)
      const sane = place !== '' && unit !== '' && Number.isFinite(value)
      return sane ? { type: 'channel', place, unit, value } : null
    }
    case 'B':
      return number(0) >= 0 && number(0) <= 100 ? { type: 'battery', percent: number(0) } : null
    case 'V': {
      const [running, turning, lifted, wideOpen] = words
      return {
        type: 'sight',
        running: unlist(running),
        turning: unlist(turning),
        lifted: unlist(lifted),
        wideOpen: unlist(wideOpen),
      }
    }
    case 'D':
      return Number.isInteger(number(0)) ? { type: 'done', lines: number(0) } : null
    case 'E':
      return { type: 'trouble', says: words.join(' ') }
    default:
      return null
  }
}

/** What is said to a gauge. The lines of a virtual site are passed over by a real instrument. */
export const ask = {
  hello: () => 'HELLO',
  start: () => 'START',
  stop: () => 'STOP',
  /** Which equipment the hoses are at. */
  site: (equipmentId: string, kind: string, sizeIn: string) =>
    `SITE ${equipmentId} ${kind} ${sizeIn}`,
  move: (element: string, to: Opening) => `MOVE ${element} ${to}`,
  hose: (hose: string, port: string | null) => `HOSE ${hose} ${port ?? '-'}`,
  height: (metres: number) => `HEIGHT ${metres}`,
  /** The item of the test that is read next: an instrument that shows such a quantity goes on the line. */
  show: (item: string, of: Dimension) => `SHOW ${item} ${of}`,
  /** What a calibrator or a supply gives, in the SI unit of that source. */
  apply: (source: string, value: number) => `APPLY ${source} ${value}`,
  /** Turns of an adjuster, inwards positive. */
  adjust: (adjuster: string, turns: number) => `ADJUST ${adjuster} ${turns}`,
  service: (element: string, service: 'cleaned' | 'renewed') => `SERVICE ${element} ${service}`,
} as const
