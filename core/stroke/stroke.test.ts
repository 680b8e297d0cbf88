import { describe, expect, it } from 'vitest'
import { judgeStroke } from '.'

type Pair = readonly [number, number]
const run = (way: 'up' | 'down', pairs: readonly Pair[], cycle?: number) =>
  pairs.map(([signal, travel]) => ({ way, signal, travel, ...(cycle ? { cycle } : {}) }))
const judged = (up: readonly Pair[], down: readonly Pair[], more: object = {}) =>
  judgeStroke({
    points: [...run('up', up), ...run('down', down)],
    action: 'direct',
    tolerance: 1,
    ...more,
  })
const FIVE = [0, 25, 50, 75, 100]
const line = (f: (signal: number) => number): Pair[] => FIVE.map((s) => [s, f(s)])
const back = (pairs: Pair[]) => [...pairs].reverse()

describe('a stroke', () => {
  it('that follows its signal passes, with nothing to adjust', () => {
    const ideal = line((s) => s)
    expect(judged(ideal, back(ideal))).toMatchObject({
      outcome: 'pass',
      zeroError: 0,
      spanError: 0,
      worstError: 0,
      hysteresis: 0,
      linearity: 0,
    })
  })
  it('reverse follows it the other way', () => {
    const ideal = line((s) => 100 - s)
    const found = judged(ideal, back(ideal), { action: 'reverse' })
    expect(found).toMatchObject({ outcome: 'pass', zeroError: 0, spanError: 0 })
  })
  it('with its zero off wants the zero first, even where the span is off as well', () => {
    const off = line((s) => 3 + 1.02 * s)
    const found = judged(off, back(off))
    expect(found.outcome).toBe('fail')
    expect(found.zeroError).toBeCloseTo(3, 9)
    expect(found.spanError).toBeCloseTo(2, 9)
    expect([found.first, found.zeroError]).toEqual(['zero', 3])
  })
  it('with a short span wants the span', () => {
    const short = line((s) => 0.96 * s)
    const found = judged(short, back(short))
    expect(found.first).toBe('span')
    expect(found.spanError).toBeCloseTo(-4, 6)
    expect(found.linearity).toBeCloseTo(0, 9)
  })
  it('that hangs behind on the way down has friction, and nothing is adjusted before that is found', () => {
    const up = line((s) => (s === 0 || s === 100 ? s : s - 2))
    const down = line((s) => (s === 0 || s === 100 ? s : s + 2))
    const found = judged(up, back(down))
    expect(found.hysteresis).toBe(4)
    expect(found.first).toBe('friction')
  })
  it('bent in the middle shows in its linearity, not in zero and span', () => {
    const bent = line((s) => (s === 50 ? 55 : s))
    expect(judged(bent, back(bent))).toMatchObject({ zeroError: 0, spanError: 0, linearity: 5 })
  })
  it('takes its linearity from the mean of up and down, and shows that of the way up beside it', () => {
    // Up 1 % high in the middle, down 2 % high: the mean is 1.5 % off the line through its ends.
    const up = line((s) => (s === 50 ? 51 : s))
    const down = line((s) => (s === 50 ? 52 : s))
    const found = judged(up, back(down))
    expect(found.linearity).toBeCloseTo(1.5, 9)
    expect(found.linearityUp).toBeCloseTo(1, 9)
  })
  it('gone through twice shows how well it repeats', () => {
    const points = [
      ...run(
        'up',
        line((s) => s),
        1,
      ),
      ...run('down', [[50, 50]], 1),
      ...run(
        'up',
        line((s) => s + 0.4),
        2,
      ),
    ]
    const found = judgeStroke({ points, action: 'direct', tolerance: 1 })
    expect(found.repeatability).toBeCloseTo(0.4, 9)
  })
  it('is never better for a wider error', () => {
    const worst = [0, 0.5, 1, 2, 4].map((e) =>
      Math.abs(
        judged(
          line((s) => s + e),
          [[50, 50]],
        ).worstError,
      ),
    )
    expect(worst).toEqual([...worst].sort((a, b) => a - b))
  })
  it('is not assessed from too few points, without its ends, or one way alone', () => {
    expect(
      judged(
        [
          [0, 0],
          [100, 100],
        ],
        [[50, 50]],
      ).outcome,
    ).toBe('not-assessed')
    expect(
      judged(
        [
          [10, 10],
          [50, 50],
          [90, 90],
        ],
        [[50, 50]],
      ).outcome,
    ).toBe('not-assessed')
    expect(
      judged(
        line((s) => s),
        [],
      ).outcome,
    ).toBe('not-assessed')
  })
  it('refuses points of a signal that goes back on its way, and none at all', () => {
    expect(() =>
      judged(
        [
          [0, 0],
          [50, 50],
          [25, 25],
        ],
        [],
      ),
    ).toThrow(/goes back to 25 %/)
    expect(() =>
      judged(
        [[0, 0]],
        [
          [25, 25],
          [50, 50],
        ],
      ),
    ).toThrow(/goes back to 50 %/)
    expect(() => judged([], [])).toThrow(/no point/)
  })
})
