import { describe, expect, it } from 'vitest'
import { Job, shippedLibrary } from '../../testing'
import { responsesOf } from '..'

const actuator = () =>
  new Job({
    family: 'spring-cylinder-actuator',
    kind: 'actuator',
    packId: 'larkhaven-valves-and-actuators',
  })
    .done('prepare')
    .must('identity', { outcome: 'confirmed' })
    .done('arrive')
    .startTest('as-found')
const table = (job: Job) => responsesOf(job.state, shippedLibrary, 'as-found')
const seen = (item: string, answer: string, label: string) =>
  actuator().write('answer', { run: 'as-found', item, answer, label })

describe('the fail test of a run', () => {
  it('says for each cause what is wanted, and that nobody has looked yet', () => {
    expect(table(actuator())).toEqual([
      { cause: 'Loss of air', expected: ['As its tag says'], seen: null, asExpected: false },
      { cause: 'Air on', expected: ['The other way, fully'], seen: null, asExpected: false },
    ])
  })
  it('holds what was seen against it', () => {
    expect(table(seen('fail', 'as-tag', 'As its tag says'))[0]).toMatchObject({
      seen: 'As its tag says',
      asExpected: true,
    })
    expect(table(seen('fail', 'stays', 'It stays'))[0]).toMatchObject({
      seen: 'It stays',
      asExpected: false,
    })
  })
  it('is none where a procedure has none', () => {
    const check = new Job({
      family: 'air-blow-check',
      kind: 'check valve',
      packId: 'larkhaven-valves-and-actuators',
    })
      .done('prepare')
      .must('identity', { outcome: 'confirmed' })
      .done('arrive')
      .startTest('as-found')
    expect(table(check)).toEqual([])
  })
})
