import { eventKinds, type EventKind, type PayloadOf, type VisitEvent } from '@uvanta/core/visit'
import { describe, expect, it } from 'vitest'
import { eventWords } from './eventWords'

function event<K extends EventKind>(kind: K, payload: PayloadOf<K>): VisitEvent<K> {
  return {
    id: '018f0000-0000-7000-8000-000000000001',
    kind,
    payload,
    deviceTime: '2026-06-01T08:00:00.000Z',
    deviceOffset: 0,
    personId: 'p',
    personName: 'Odda',
  }
}

const said: Partial<{ [K in EventKind]: [PayloadOf<K>, RegExp] }> = {
  'valve-moved': [
    { element: 'shutoff-1', to: 'shut', departure: 'Handle 2 was stuck' },
    /^Shutoff 1 shut – departure: Handle 2 was stuck$/,
  ],
  'zone-proved': [
    {
      zone: 'body',
      reading: { dimension: 'gaugePressure', value: '0.0', unit: 'psi' },
      heldMinutes: 2,
      by: 'Odda',
    },
    /^Zero proved, body: 0\.0 psi.*, watched 2 min by Odda$/,
  ],
  lock: [{ element: 'shutoff-1', number: '14', on: true }, /^Lock 14 on shutoff 1$/],
  'kit-taken': [
    { number: 'K-1', how: 'scanned', items: [], departure: 'Only one disc' },
    /^Kit K-1 counted – departure: Only one disc$/,
  ],
  'guide-round': [{ step: '7.3', moved: false }, /^Round at step 7\.3: none moved$/],
  'guide-redo': [{ from: '7.3', reason: 'A lump' }, /^Taken up again from step 7\.3: A lump$/],
  checked: [
    { run: 'as-left', outcome: 'works', text: 'Both ways' },
    /^As-left: it works\. Both ways$/,
  ],
  result: [
    { computation: 'torque-setting', title: 'Torque wrench', says: '42 N·m' },
    /^Torque wrench: 42 N·m$/,
  ],
  photo: [
    { photoId: '018f0000-0000-7000-8000-000000000002', station: 'open-up', caption: 'Seat' },
    /^Photograph: Seat$/,
  ],
}

describe('a line of the log', () => {
  it.each(Object.entries(said))('%s says what was done', (kind, [payload, words]) => {
    expect(eventWords(event(kind as EventKind, payload as never))).toMatch(words)
  })
  const step = {
    step: '7.3',
    at: 'open-up',
    finding: 'renew',
    defects: ['cut', 'flat'],
    departure: 'Early',
  } as const
  it('of a guide’s step is its sentence, with finding, defects and departure', () => {
    const words = eventWords(event('guide-step', { ...step, defects: [...step.defects] }), {
      step: (id) => (id === '7.3' ? 'Disc of check 1' : undefined),
    })
    expect(words).toBe('Disc of check 1: renew (cut, flat) – departure: Early')
  })
  it('calls a valve what its equipment calls it', () => {
    const moved = event('valve-moved', { element: 'shutoff-2', to: 'shut' })
    const labels: Record<string, string> = { 'shutoff-2': 'Outlet shutoff' }
    expect(eventWords(moved, { element: (id) => labels[id] ?? id })).toBe('Outlet shutoff shut')
    expect(eventWords(moved)).toBe('Shutoff 2 shut')
  })
  it('falls back to the place of a step that no guide at hand has', () => {
    expect(eventWords(event('guide-step', { step: '9.9', at: 'rebuild' }))).toBe('Step 9.9')
  })
  it('is wanting only for kinds that another line or the verdict shows', () => {
    const silent = eventKinds.filter((kind) => {
      try {
        return eventWords(event(kind, {} as never)) === null
      } catch {
        return false
      }
    })
    expect(silent.sort()).toEqual(['correction', 'step-done', 'undone'])
  })
})
