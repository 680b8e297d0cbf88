import { describe, expect, it } from 'vitest'
import { randomNumbers } from '../testing/random'
import { formatMessage, type GaugeMessage, parseMessage } from '.'

const messages: GaugeMessage[] = [
  {
    type: 'hello',
    tag: 'G-01',
    serial: 'DG-1',
    unit: 'psi',
    span: 15,
    resolution: 0.01,
    periodS: 0.1,
  },
  { type: 'sample', seq: 7, atS: 0.7, value: -0.05 },
  { type: 'channel', place: 'body-1', unit: 'psi', value: 60.12 },
  { type: 'battery', percent: 41 },
  {
    type: 'sight',
    running: ['relief', 'low-bleed'],
    turning: [],
    lifted: ['relief'],
    wideOpen: [],
  },
  { type: 'done', lines: 12 },
  { type: 'trouble', says: 'sensor wet' },
]

describe('a line of the gauge', () => {
  it.each(messages)('says what was meant: $type', (message) => {
    expect(parseMessage(formatMessage(message))).toEqual(message)
  })
  it('is refused when any one character of it was changed', () => {
    for (const message of messages) {
      const line = formatMessage(message)
      for (let i = 0; i < line.length; i++) {
        const other = String.fromCharCode(line.charCodeAt(i) ^ 1)
        expect(parseMessage(line.slice(0, i) + other + line.slice(i + 1))).toBeNull()
      }
    }
  })
  it('is refused when it is rubbish, and nothing throws', () => {
    const random = randomNumbers(3)
    for (let n = 0; n < 2000; n++) {
      const line = Array.from({ length: Math.floor(random() * 40) }, () =>
        String.fromCharCode(32 + Math.floor(random() * 95)),
      ).join('')
      expect(parseMessage(line)).toBeNull()
    }
  })
})
