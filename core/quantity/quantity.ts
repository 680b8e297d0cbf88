import { CannotCompute } from '../errors'
import { type Dimension, type UnitOf, unitDefinition } from './units'

/**
 * A measured or stated value. `value` is the text as it was displayed, so that 5.0 and 5.00 stay
 * different readings; the dimension keeps a pressure from being taken for a differential or a
 * torque, by the compiler and at run time.
 */
export interface Quantity<D extends Dimension> {
  readonly dimension: D
  readonly value: string
  readonly unit: UnitOf<D>
}

/** A quantity whose dimension is known at run time only, as it comes over the wire. */
export interface AnyQuantity {
  readonly dimension: Dimension
  readonly value: string
  readonly unit: string
}

export function quantity<D extends Dimension>(
  dimension: D,
  value: string | number,
  unit: UnitOf<D>,
): Quantity<D> {
  return { dimension, value: String(value), unit }
}

/** A plain decimal as an instrument shows it: optional sign, digits, optional fraction. */
const DECIMAL = /^[+-]?(\d{1,9})(\.\d{1,9})?$/

/**
 * The number behind a displayed text.
 * @throws CannotCompute when it is not a plain decimal (NaN, 1e9, "12,5" and "" are not).
 */
export function parseDisplayed(text: string): number {
  const trimmed = text.trim()
  if (!DECIMAL.test(trimmed)) {
    throw new CannotCompute(
      'not-a-reading',
      `“${text.slice(0, 40)}” is not a reading.`,
      'Write digits with a point, as 5.4.',
    )
  }
  return Number(trimmed)
}

/** Digits shown after the point: 5.40 → 2. */
export function displayedDigits(text: string): number {
  return /\.(\d+)$/.exec(text.trim())?.[1]?.length ?? 0
}

/** The value in the dimension's SI unit (kPa, N·m, m³/s, K, m). */
export function toSi(q: AnyQuantity): number {
  return valueToSi(q.dimension, parseDisplayed(q.value), q.unit)
}

/** A number in a unit, in the dimension's SI unit. */
export function valueToSi(dimension: Dimension, value: number, unit: string): number {
  const { factor, offset = 0 } = unitDefinition(dimension, unit)
  return value * factor + offset
}

/** An SI number expressed in a unit. */
export function fromSi(dimension: Dimension, si: number, unit: string): number {
  const { factor, offset = 0 } = unitDefinition(dimension, unit)
  return (si - offset) / factor
}

/** A number moved from one unit of a dimension to another. */
export function convertValue(
  dimension: Dimension,
  value: number,
  from: string,
  to: string,
): number {
  return from === to ? value : fromSi(dimension, valueToSi(dimension, value, from), to)
}

/** Rounds half away from zero, which is what a person does with a reading. */
export function roundTo(value: number, digits: number): string {
  const scaled = Math.abs(value) * 10 ** digits
  const rounded = Math.floor(scaled + 0.5 + 1e-9) / 10 ** digits
  return (value < 0 && rounded !== 0 ? -rounded : rounded).toFixed(digits)
}

/** A quantity read in another unit, rounded to the digits usual there. The original is kept by the caller. */
export function inUnit<D extends Dimension>(q: Quantity<D>, unit: UnitOf<D>): Quantity<D> {
  if (q.unit === unit) return q
  const value = fromSi(q.dimension, toSi(q), unit)
  return { ...q, unit, value: roundTo(value, unitDefinition(q.dimension, unit).digits) }
}

/** “5.4 psid” */
export function formatQuantity(q: AnyQuantity): string {
  return `${q.value} ${unitDefinition(q.dimension, q.unit).label}`
}
