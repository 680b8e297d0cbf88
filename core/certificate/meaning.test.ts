import { describe, expect, it } from 'vitest'
import type { CertificatePayload } from './payload'
import { advisoriesOf, meaningOf } from './meaning'

const TODAY = '2026-11-27'
const run = { date: '2026-02-18', startedAt: '2026-02-18T09:00:00.000Z', verdict: {} }
const certificate = (more: object) =>
  ({
    outcome: 'pass',
    asFound: run,
    asLeft: null,
    work: [],
    nextDueOn: '2027-02-18',
    ...more,
  }) as unknown as CertificatePayload
const means = (more: object, later: { on: string } | null = null) =>
  meaningOf(certificate(more), TODAY, later)

describe('what a certificate says of its equipment today', () => {
  it('is that it passed, until its next test is due, that day included', () => {
    expect(means({})).toEqual({ state: 'passed', on: '2027-02-18' })
    expect(means({ outcome: 'pass-uncertain' }).state).toBe('passed')
    expect(means({ nextDueOn: TODAY }).state).toBe('passed')
    expect(means({ nextDueOn: '2026-11-26' })).toEqual({ state: 'overdue', on: '2026-11-26' })
    expect(means({ nextDueOn: undefined })).toEqual({ state: 'passed' })
  })
  it('is that it failed, whatever the dates', () => {
    const failed = { outcome: 'fail', nextDueOn: undefined, repairBy: '2026-03-05' }
    expect(means(failed)).toEqual({ state: 'failed', on: '2026-03-05' })
    expect(means({ outcome: 'fail-uncertain' })).toEqual({ state: 'failed' })
  })
  it('is nothing where nothing could be judged', () => {
    expect(means({ outcome: 'not-assessed' })).toEqual({ state: 'not-assessed' })
  })
  it('ends with a temporary repair', () => {
    const until = (day: string) => ({ work: [{ text: '', parts: [], temporary: { until: day } }] })
    expect(means(until('2026-12-04'))).toEqual({ state: 'temporary', on: '2026-12-04' })
    expect(means(until('2026-11-20'))).toEqual({ state: 'overdue', on: '2026-11-20' })
  })
  it('is history once a later test stands, also of one that failed', () => {
    const later = { on: '2026-10-01' }
    expect(means({}, later)).toEqual({ state: 'overtaken', on: '2026-10-01' })
    expect(means({ outcome: 'fail' }, later).state).toBe('overtaken')
  })
  it('of a service report is how the check ended', () => {
    const check = (checked: string) => ({
      document: 'service-report',
      asFound: { date: '2026-02-18', checked, text: '', readings: [] },
    })
    expect(means(check('works')).state).toBe('passed')
    expect(means(check('works-not')).state).toBe('failed')
    expect(means(check('not-tried')).state).toBe('not-assessed')
  })
})

describe('what stood beside a pass', () => {
  const ran = (outcome: string, advisoriesOut?: number) => ({
    ...run,
    verdict: { outcome, advisoriesOut },
  })
  it('is said of the last test alone', () => {
    expect(advisoriesOf(certificate({ asFound: ran('pass', 1) }))).toMatch(/^, with 1 /)
    const repaired = certificate({ asFound: ran('fail', 2), asLeft: ran('pass', 0) })
    expect(advisoriesOf(repaired)).toBe('')
  })
  it('is nothing where nothing was judged', () => {
    expect(advisoriesOf(certificate({ asFound: { impossible: 'No access' } }))).toBe('')
  })
})
