import { CannotCompute } from '../errors'
import { describe, expect, it } from 'vitest'
import { normalNumbers, randomNumbers } from '../testing/random'
import {
  analyseTrace,
  decodeTrace,
  encodeTrace,
  pickOpening,
  pickPlateau,
  swingOf,
  type TraceSource,
} from '.'

const source: TraceSource = { periodS: 0.1, resolution: 0.01, span: 15 }
const NOISE = 0.01

/** Samples of a curve over seconds, with noise and the steps of the display. */
function samples(
  seconds: number,
  curve: (t: number) => number,
  seed = 1,
  noise = NOISE,
): Float64Array {
  const normal = normalNumbers(seed)
  return Float64Array.from({ length: Math.round(seconds / source.periodS) }, (_, i) => {
    const value = curve(i * source.periodS) + noise * normal()
    return Math.round(value / source.resolution) * source.resolution
  })
}

describe('a rest', () => {
  it('is found with its mean and deviation', () => {
    const { plateaus } = analyseTrace(
      samples(20, () => 7.61),
      source,
    )
    expect(plateaus).toHaveLength(1)
    expect(plateaus[0]?.mean).toBeCloseTo(7.61, 2)
    expect(plateaus[0]?.deviation).toBeGreaterThan(0.7 * NOISE)
    expect(plateaus[0]?.deviation).toBeLessThan(1.4 * NOISE)
    expect(Math.abs(plateaus[0]?.driftPerMinute ?? 9)).toBeLessThan(0.05)
  })
  it('shows its drift', () => {
    const { plateaus } = analyseTrace(
      samples(10, (t) => 5 + (0.06 * t) / 60),
      source,
    )
    expect(plateaus.at(-1)?.driftPerMinute).toBeCloseTo(0.06, 1)
  })
  it('is not seen in a fall', () => {
    expect(
      analyseTrace(
        samples(20, (t) => 8 - 0.2 * t),
        source,
      ).plateaus,
    ).toEqual([])
  })
  it('is told from the next one', () => {
    const { plateaus } = analyseTrace(
      samples(30, (t) => (t < 12 ? 2 : 6)),
      source,
    )
    expect(plateaus.map((p) => Math.round(p.mean))).toEqual([2, 6])
  })
  it('is picked only while the trace still rests', () => {
    expect(
      pickPlateau(
        samples(10, () => 3),
        source,
      )?.value,
    ).toBeCloseTo(3, 2)
    expect(
      pickPlateau(
        samples(16, (t) => (t < 10 ? 3 : 3 - 0.3 * (t - 10))),
        source,
      ),
    ).toBeNull()
  })
})

describe('a rest with a limit to its movement', () => {
  const creeping = (perMinute: number) => (t: number) => 3 + (perMinute * t) / 60
  it('is taken when it has lasted, for noise over a moment looks like movement', () => {
    expect(pickPlateau(samples(30, creeping(0)), source, 0.1)?.value).toBeCloseTo(3, 1)
  })
  it('is none while it moves faster, and one without the limit', () => {
    const slow = samples(30, creeping(0.2))
    expect(pickPlateau(slow, source, 0.1)).toBeNull()
    expect(pickPlateau(slow, source)?.driftPerMinute).toBeGreaterThan(0.1)
  })
})

describe('an opening', () => {
  it.each([1, 2, 3, 4, 5])('ends a fall: the first drip is where it stops, seed %i', (seed) => {
    const curve = (t: number) => (t < 20 ? 7.6 - 0.24 * t : 2.8 + 0.02 * Math.sin(t))
    const { openings } = analyseTrace(samples(26, curve, seed), source)
    expect(openings).toHaveLength(1)
    expect(openings[0]?.then).toBe('stops')
    expect(openings[0]?.value).toBeGreaterThan(2.72)
    expect(openings[0]?.value).toBeLessThan(2.9)
    expect(Math.abs((openings[0]?.index ?? 0) * source.periodS - 20)).toBeLessThan(0.6)
  })
  it.each([1, 2, 3])('lets a fall drop away: an air inlet, seed %i', (seed) => {
    const curve = (t: number) => (t < 12 ? 4 - 0.18 * t : 0)
    const { openings } = analyseTrace(samples(16, curve, seed), source)
    expect(openings.map((o) => o.then)).toEqual(['drops'])
    expect(openings[0]?.value).toBeGreaterThan(1.75)
    expect(openings[0]?.value).toBeLessThan(1.95)
  })
  it('is not seen where nothing opens', () => {
    expect(
      analyseTrace(
        samples(20, (t) => 8 - 0.3 * t),
        source,
      ).openings,
    ).toEqual([])
    expect(
      analyseTrace(
        samples(20, () => 4),
        source,
      ).openings,
    ).toEqual([])
  })
  it('belongs to the press that follows it, and else to the moment before the press', () => {
    const fall = (t: number) => (t < 10 ? 6 - 0.3 * t : 3)
    expect(pickOpening(samples(12, fall), source)?.value).toBeCloseTo(3, 1)
    const falling = pickOpening(samples(8, fall), source)
    expect(falling?.value).toBeGreaterThan(3.6)
    expect(falling?.index).toBeLessThan(79)
  })
  it('is where the site itself says that it was seen, when the trace does not show it', () => {
    const fall = samples(20, (t) => 6 - 0.2 * t)
    // Seen after ten seconds, pressed after twenty.
    expect(pickOpening(fall, source, 100)?.value).toBeCloseTo(4, 1)
    expect(pickOpening(fall, source)?.value).toBeLessThan(2.3)
  })
})

describe('what makes a trace doubtful', () => {
  const kinds = (values: Float64Array) => analyseTrace(values, source).doubts.map((d) => d.kind)
  it('nothing, when all is well', () => {
    expect(kinds(samples(20, (t) => (t < 8 ? 2 : 7)))).toEqual([])
  })
  it('a display that stands still although it flickers elsewhere', () => {
    const values = samples(30, () => 5)
    values.fill(5, 100, 160)
    expect(kinds(values)).toContain('frozen')
  })
  it('the end of the scale', () => {
    expect(kinds(samples(10, () => 16).map((v) => Math.min(v, 15)))).toContain('saturated')
  })
  it('air in a hose', () => {
    const bounce = samples(20, (t) => 5 + (t > 8 && t < 14 ? Math.sin(t * 25) : 0))
    expect(kinds(bounce)).toContain('bounce')
  })
  it('samples that were lost', () => {
    const values = samples(20, () => 5)
    values.fill(NaN, 50, 60)
    expect(kinds(values)).toEqual(['gaps'])
  })
})

describe('the answer of a gauge', () => {
  it.each([0.3, 0.8, 1.5])('is measured: time constant %d s', (tau) => {
    const curve = (t: number) => (t < 6 ? 1 : 1 + 8 * (1 - Math.exp(-(t - 6) / tau)))
    const { lagS } = analyseTrace(samples(24, curve), source)
    expect(lagS).toBeGreaterThan(0.75 * tau - 0.05)
    expect(lagS).toBeLessThan(1.25 * tau + 0.15)
  })
})

describe('a trace as text', () => {
  it.each([1, 2, 3, 4])('comes back sample for sample, seed %i', (seed) => {
    const random = randomNumbers(seed)
    const values = Float64Array.from({ length: 400 }, () =>
      random() < 0.05 ? NaN : Math.round(1500 * random() - 200) * 0.01,
    )
    const back = decodeTrace(encodeTrace({ ...source, unit: 'psi', values }))
    expect(back.unit).toBe('psi')
    const hundredths = (list: Float64Array) => [...list].map((v) => Math.round(v * 100))
    expect(hundredths(back.values)).toEqual(hundredths(values))
    expect(back.values.length).toBe(400)
  })
  it('is short for a minute at rest', () => {
    const values = samples(60, () => 7.6)
    expect(encodeTrace({ ...source, unit: 'psi', values }).length).toBeLessThan(1800)
  })
  it.each(['', 'T9 0.1 0.01 psi|0', 'T1 0 0.01 psi|0', 'T1 0.1 0.01 psi|? 3'])(
    'refuses %j',
    (text) => {
      expect(() => decodeTrace(text)).toThrow(CannotCompute)
    },
  )
})

describe('any samples', () => {
  it('are analysed without failing, however short or wild', () => {
    const random = randomNumbers(5)
    for (let n = 0; n < 200; n++) {
      const values = Float64Array.from({ length: Math.floor(random() * 60) }, () =>
        random() < 0.1 ? NaN : 1e6 * (random() - 0.5),
      )
      const analysis = analyseTrace(values, source)
      for (const p of analysis.plateaus) expect(p.to).toBeGreaterThan(p.from)
      for (const o of analysis.openings) expect(o.index).toBeLessThan(values.length)
    }
  })
})

describe('a swing', () => {
  const sine = (seconds: number, width: number, slope = 0) =>
    samples(seconds, (t) => 7 + slope * t + (width / 2) * Math.sin((2 * Math.PI * t) / 6))
  it('is measured from trough to crest, whatever the needle drifts', () => {
    // Half-second means cut a crest of a six-second sine by 1 − sinc(π/12) ≈ 1 %.
    expect(swingOf(sine(30, 1), source.periodS)).toBeCloseTo(1, 1)
    expect(swingOf(sine(30, 1, 0.01), source.periodS)).toBeCloseTo(1, 1)
  })
  it('is no wider than the noise where nothing swings', () => {
    expect(swingOf(sine(30, 0), source.periodS)).toBeLessThan(3 * NOISE)
  })
  it('says nothing of a trace that is too short, or of which too much is lost', () => {
    expect(swingOf(sine(9, 1), source.periodS)).toBeUndefined()
    const lost = sine(30, 1).map((v, n) => (n % 100 < 70 ? NaN : v))
    expect(swingOf(lost, source.periodS)).toBeUndefined()
  })
})
