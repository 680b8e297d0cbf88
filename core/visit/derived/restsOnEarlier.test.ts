import { describe, expect, it } from 'vitest'
import type { Library } from '../../library'
import { noEarlier } from '../../library/earlier'
import { Job, shippedLibrary } from '../../testing'
import { policyOfVisit, planOfVisit } from './pinned'
import { guideOfVisit, sheetOfVisit } from './guide'
import { restsOnEarlier } from './restsOnEarlier'

const PACK = 'larkhaven-relief-first'
const guide = shippedLibrary.guides.find((g) => g.id === 'rp-relief')!
const begun = () =>
  new Job({ family: guide.family, kind: 'RP', packId: PACK }).choose(guide, guide.variants[0]!.id)
/** Without what was in force once, which nobody may then miss. */
const inForce: Library = { ...shippedLibrary, earlier: noEarlier }
const raised = <T extends { version: number }>(list: readonly T[], is: (e: T) => boolean): T[] =>
  list.map((e) => (is(e) ? { ...e, version: e.version + 1 } : e))

describe('what a visit rests on', () => {
  it('is in force when everything it names is: the earlier versions are then not missed', () => {
    const { state } = begun()
    expect(restsOnEarlier(state, inForce)).toBe(false)
    expect(planOfVisit(state, inForce)).toEqual(planOfVisit(state, shippedLibrary))
    expect(policyOfVisit(state, inForce)).toEqual(policyOfVisit(state, shippedLibrary))
    expect(guideOfVisit(state, inForce)).toEqual(guideOfVisit(state, shippedLibrary))
    expect(sheetOfVisit(state, inForce)).toEqual(sheetOfVisit(state, shippedLibrary))
  })
  it.each<[string, (l: Library) => Partial<Library>]>([
    ['rule pack', (l) => ({ rulePacks: raised(l.rulePacks, (p) => p.id === PACK) })],
    ['procedure', (l) => ({ procedures: raised(l.procedures, () => true) })],
    ['programme', (l) => ({ programmes: raised(l.programmes, () => true) })],
    ['policy', (l) => ({ policies: raised(l.policies, (p) => p.family === guide.family) })],
    ['guide', (l) => ({ guides: raised(l.guides, (g) => g.id === guide.id) })],
    ['spec sheet', (l) => ({ specSheets: raised(l.specSheets, () => true) })],
  ])('is not in force once its %s has been raised', (_, later) => {
    expect(restsOnEarlier(begun().state, { ...inForce, ...later(inForce) })).toBe(true)
  })
  it('may be anything in a log from before versions were pinned', () => {
    const { state } = begun()
    const [pins] = state.pins
    for (const missing of ['pack', 'procedure', 'programme', 'policy'] as const)
      expect(restsOnEarlier({ ...state, pins: [{ ...pins, [missing]: undefined }] }, inForce)).toBe(
        true,
      )
    expect(restsOnEarlier({ ...state, pins: [] }, inForce)).toBe(true)
  })
  it('is not in force when a test was begun with what was raised since', () => {
    const job = begun()
    job.takeKit().carryOut('prepare').done('prepare')
    job.must('identity', { outcome: 'confirmed' }).carryOut('arrive').done('arrive')
    job.carryOut('as-found').startTest('as-found')
    expect(restsOnEarlier(job.state, inForce)).toBe(false)
    // What is pinned now is in force: the test alone is older.
    const later = { ...inForce, procedures: raised(inForce.procedures, () => true) }
    const pins = job.state.pins.map(({ procedure, ...others }) => ({
      ...others,
      ...(procedure ? { procedure: { ...procedure, version: procedure.version + 1 } } : {}),
    }))
    expect(restsOnEarlier({ ...begun().state, pins }, later)).toBe(false)
    expect(restsOnEarlier({ ...job.state, pins }, later)).toBe(true)
  })
})
