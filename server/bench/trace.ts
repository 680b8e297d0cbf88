import { analyseTrace } from '@uvanta/core/trace'
import { Seeded } from '../demo/random'
import { percentile } from './measure'

const SAMPLES = 1_000_000
const RUNS = 7

/** Analysing a million samples against JSON.parse of the same samples, turn by turn. */
export function benchTrace(): object {
  const random = new Seeded(7)
  const values = Float64Array.from({ length: SAMPLES }, (_, i) => {
    const level = i % 60_000 < 30_000 ? 7.6 : 4.6
    return Math.round((level + 0.03 * (random.next() - 0.5)) * 1000) / 1000
  })
  const text = JSON.stringify([...values])
  const time = (work: () => unknown) => {
    const start = performance.now()
    work()
    return performance.now() - start
  }
  const ratios: number[] = []
  for (let n = 0; n < RUNS; n++) {
    const parsed = time(() => JSON.parse(text))
    const analysed = time(() =>
      analyseTrace(values, { periodS: 0.01, resolution: 0.001, span: 15 }),
    )
    ratios.push(analysed / parsed)
  }
  return {
    name: 'analysis of 1,000,000 samples ÷ JSON.parse of the same',
    ratio: Number(percentile(ratios, 50).toFixed(3)),
    aimUnder: 0.5,
  }
}
