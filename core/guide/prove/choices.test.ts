import { describe, expect, it } from 'vitest'
import type { PlacedStep } from '../schema/step'
import { choicesAt, mostFindings, waysThrough } from './choices'

const look = (...ids: string[]) =>
  ({ inspect: 'disc', verdicts: ids.map((id) => ({ id, title: id })) }) as unknown as PlacedStep
const ask = (...ids: string[]) =>
  ({ ask: 'port', answers: ids.map((id) => ({ id, title: id })) }) as unknown as PlacedStep
const plain = { do: true } as unknown as PlacedStep

describe('the findings of steps', () => {
  it('combine', () => {
    expect(waysThrough([look('keep', 'renew', 'stop'), plain, ask('dry', 'wet')])).toBe(6)
    expect(waysThrough([plain])).toBe(1)
  })
  it('are as many as the step with most of them has', () => {
    expect(mostFindings([ask('dry', 'wet'), look('keep', 'clean', 'renew'), plain])).toBe(3)
    expect(mostFindings([plain])).toBe(0)
  })
})

describe('a walk', () => {
  const ids = (step: PlacedStep, usual: number, mayDiffer: number) =>
    choicesAt(step, { usual, mayDiffer }).map((c) => [c.id, c.then.mayDiffer])
  it('takes the usual finding alone where none may differ, each in its turn', () => {
    const step = look('keep', 'renew', 'stop')
    expect(ids(step, 0, 0)).toEqual([['keep', 0]])
    expect(ids(step, 1, 0)).toEqual([['renew', 0]])
    // Of two after which work goes on the third is the first again, and never the one that ends it.
    expect(ids(step, 2, 0)).toEqual([['keep', 0]])
    expect(ids(look('stop', 'keep', 'order'), 0, 0)).toEqual([['keep', 0]])
  })
  it('takes all where one may differ, and has one less to differ after another', () => {
    expect(ids(look('keep', 'renew', 'stop'), 0, 2)).toEqual([
      ['keep', 2],
      ['renew', 1],
      ['stop', 1],
    ])
  })
  it('asks nothing where nothing is asked', () => {
    expect(ids(plain, 0, 2)).toEqual([])
  })
})
