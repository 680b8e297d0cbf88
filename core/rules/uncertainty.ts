import { convertValue, displayedDigits, type Dimension } from '../quantity'

/** What a gauge's certificate says of its readings. */
export interface GaugeAccuracy {
  /** ± percent */
  readonly percent: number
  /** of the span, or of the reading */
  readonly of: 'span' | 'reading'
  /** Full range of the scale, in `unit`. */
  readonly span: number
  readonly unit: string
}

export interface UncertaintyParts {
  /** Standard uncertainties, in the unit of the reading. */
  readonly accuracy: number
  readonly resolution: number
  readonly head: number
  readonly repeatability: number
  /** Root sum of squares. */
  readonly combined: number
}

/**
 * Standard uncertainty of one reading, in its own unit.
 * The ± accuracy of a certificate is taken as a rectangular distribution (÷√3) and one digit of
 * the display as another (÷√12); source: JCGM 100:2008 (GUM) 4.3.7 and F.2.2.1.
 *
 * @param text the reading as displayed; its last digit is the resolution
 * @param headHalfWidth ± error of a head correction in the unit of the reading
 * @param deviation standard deviation when the reading was repeated or streamed
 */
export function readingUncertainty(
  dimension: Dimension,
  text: string,
  unit: string,
  gauge: GaugeAccuracy,
  headHalfWidth = 0,
  deviation = 0,
): UncertaintyParts {
  const span = convertValue(dimension, gauge.span, gauge.unit, unit)
  const base = gauge.of === 'span' ? span : Math.abs(Number(text))
  const accuracy = ((gauge.percent / 100) * base) / Math.sqrt(3)
  const resolution = 10 ** -displayedDigits(text) / Math.sqrt(12)
  const head = headHalfWidth / Math.sqrt(3)
  const combined = Math.hypot(accuracy, resolution, head, deviation)
  return { accuracy, resolution, head, repeatability: deviation, combined }
}

/** Coverage factor of the expanded uncertainty, about 95 %. */
export const COVERAGE = 2

/** Probability that a standard normal variable lies below z. Abramowitz & Stegun 7.1.26, |error| < 1.5e-7. */
export function normalBelow(z: number): number {
  const x = Math.abs(z) / Math.SQRT2
  const t = 1 / (1 + 0.3275911 * x)
  const poly =
    t *
    (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))))
  const erf = 1 - poly * Math.exp(-x * x)
  return z >= 0 ? (1 + erf) / 2 : (1 - erf) / 2
}
