import { Job } from '@uvanta/core/testing'
import { foldVisit, type VisitState } from '@uvanta/core/visit'
import { describe, expect, it } from 'vitest'
import { recordCaution } from './recordCaution'

const empty = foldVisit(
  new Job({ family: 'reduced-pressure-assembly', kind: 'RP', packId: 'larkhaven-relief-first' })
    .events,
)
const number = 'LH-2026-000001'
const by = { recordedBy: 'Odda Marrin', recordedAt: '2026-11-27T10:00:00.000Z' }
const signed = { ...empty, signed: by } as unknown as VisitState
const certified = { ...signed, certificate: { ...by, number } } as unknown as VisitState

describe('above the record of a visit', () => {
  it('nothing is said while what was signed stands, or nothing was', () => {
    expect(recordCaution(empty)).toBeNull()
    expect(recordCaution(certified)).toBeNull()
  })
  it('is said that there is no certificate yet', () => {
    expect(recordCaution(signed)).toMatch(/^Provisional/)
  })
  it('is said that it is void, and by whom, whatever was corrected besides', () => {
    const gone = { ...by, recordedBy: 'Ivo Castellane', reason: 'Wrong plate' }
    const voided = { [number]: gone } as unknown as VisitState['voided']
    const state = { ...certified, voided, correctedSinceCertificate: true }
    expect(recordCaution(state)).toBe(`${number} was declared void by Ivo Castellane: Wrong plate`)
  })
  it('is said that entries are others than on the certificate', () => {
    expect(recordCaution({ ...certified, correctedSinceCertificate: true })).toMatch(/corrected/)
  })
})
