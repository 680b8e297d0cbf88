import { MOST_BYTES, MOST_EVENTS } from '@uvanta/contract'
import type { EventDraft } from '@uvanta/core/visit'
import { describe, expect, it } from 'vitest'
import { firstPiece, type Sendable } from './pieces'

const entry = (n: number, press: string, length = 10): Sendable => ({
  press,
  draft: {
    id: `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`,
    kind: 'note',
    payload: { station: 'prepare', text: 'x'.repeat(length) },
    deviceTime: '2026-06-01T08:00:00.000Z',
    deviceOffset: 0,
  } satisfies EventDraft,
})
const entries = (count: number, pressOf: (n: number) => string, length?: number) =>
  Array.from({ length: count }, (_, n) => entry(n, pressOf(n), length))

describe('a sending', () => {
  it('takes all of what is little', () => {
    expect(firstPiece(entries(5, String))).toHaveLength(5)
  })
  it('takes no more entries than the server takes at once', () => {
    expect(firstPiece(entries(MOST_EVENTS + 30, String))).toHaveLength(MOST_EVENTS)
  })
  it('takes no more bytes than the server takes at once', () => {
    const length = MOST_BYTES / 4
    expect(firstPiece(entries(8, String, length))).toHaveLength(3)
  })
  it('cuts no press in two: one that would not fit waits for the next', () => {
    const pressOf = (n: number) => (n < MOST_EVENTS - 3 ? String(n) : 'the last press')
    expect(firstPiece(entries(MOST_EVENTS + 5, pressOf))).toHaveLength(MOST_EVENTS - 3)
  })
  it('cuts a press that alone is more than a sending takes, since nothing else would be sent', () => {
    expect(firstPiece(entries(MOST_EVENTS + 5, () => 'one'))).toHaveLength(MOST_EVENTS)
    expect(firstPiece(entries(3, () => 'one', MOST_BYTES))).toHaveLength(1)
  })
})
