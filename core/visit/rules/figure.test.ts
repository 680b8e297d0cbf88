import { describe, expect, it } from 'vitest'
import type { Guide } from '../../guide'
import { Job, shippedLibrary } from '../../testing'

const guide = (id: string) => shippedLibrary.guides.find((g) => g.id === id) as Guide
const spool = (withSheet: boolean) =>
  new Job({ family: 'spool-valve', kind: 'spool valve' }).choose(
    guide('spool-valve'),
    'usual',
    withSheet,
  )
const motor = () =>
  new Job({ family: 'motor-control-valve', kind: 'control valve' }).choose(
    guide('motor-control-valve'),
    'usual',
    false,
  )
const entered = (job: Job, slot: string, value: string, unit?: string) =>
  job.write('guide-value', { slot, value, ...(unit ? { unit } : {}), source: 'Sheet, page 4' })
    .refused?.code ?? null

describe('a figure that is entered on a visit', () => {
  it('is for a slot of the guide that the sheet leaves open', () => {
    expect(entered(spool(false), 'moon', '3')).toBe('slot-unknown')
    expect(entered(spool(true), 'port-seal-count', '3')).toBe('figure-on-sheet')
    expect(entered(spool(false), 'port-seal-count', '3')).toBeNull()
  })
  it.each(['0', '-1', '2.5', '1e9', '201', 'many'])('is no number of pieces: %s', (value) => {
    expect(entered(spool(false), 'port-seal-count', value)).toBe('figure-count')
  })
  it('has a unit of its quantity, and a value that it can have', () => {
    expect(entered(motor(), 'top-torque', '40')).toBe('figure-unit')
    expect(entered(motor(), 'top-torque', '40', 'psi')).toBe('figure-unit')
    expect(entered(motor(), 'top-torque', '40', 'N·m')).toBeNull()
    for (const value of ['0', '-8', 'tight', '99999999'])
      expect(entered(motor(), 'top-torque', value, 'N·m')).toBe('figure-impossible')
  })
  it('is one of the rubbers that the family is built with', () => {
    expect(entered(motor(), 'ring-rubber', 'leather')).toBe('figure-rubber')
    expect(entered(motor(), 'ring-rubber', 'fkm')).toBeNull()
  })
})
