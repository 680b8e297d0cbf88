import { type AnyQuantity, fromSi, roundTo, toSi, unitDefinition } from '../quantity'
import type { Nominal, NominalName } from './nominal'

/** The ends of the signal that a positioner takes, electric or of air. */
export const signals = ['signal-low', 'signal-high', 'air-signal-low', 'air-signal-high'] as const
const pairs = [
  ['signal-low', 'signal-high'],
  ['air-signal-low', 'air-signal-high'],
] as const

/**
 * What a calibrator is set to for a part of the signal, as 12.00 mA for half of 4–20 mA or 9.0 psi for
 * half of 3–15 psi; null where the range of the equipment is not known.
 *
 * @param part 0 the lower end … 1 the upper
 */
export function signalAt(nominals: readonly Nominal[], part: number): AnyQuantity | null {
  const of = (name: NominalName) => nominals.find((n) => n.name === name)?.value
  for (const [from, to] of pairs) {
    const [low, high] = [of(from), of(to)]
    if (!low || high?.dimension !== low.dimension) continue
    const { dimension, unit } = low
    const si = toSi(low) + part * (toSi(high) - toSi(low))
    const { digits } = unitDefinition(dimension, unit)
    return { dimension, unit, value: roundTo(fromSi(dimension, si, unit), digits) } as AnyQuantity
  }
  return null
}
