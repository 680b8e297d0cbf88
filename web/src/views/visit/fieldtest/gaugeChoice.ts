import type { Gauge } from '@uvanta/contract'
import { toSi, valueToSi } from '@uvanta/core/quantity'
import type { PayloadOf } from '@uvanta/core/visit'

type Nominals = NonNullable<PayloadOf<'planned'>['equipment']['nominals']>

/** Pressures at the outlet may rise this far over the set point while it is tested. */
const ROOM = 1.8

/**
 * The gauges that a test with several of them is begun with: for each pressure that is to be read the
 * one with the smallest range that holds it.
 * @param fit gauges in calibration
 */
export function gaugesFor(nominals: Nominals, fit: readonly Gauge[]): Gauge[] {
  const kpa = (name: Nominals[number]['name']) => {
    const value = nominals.find((n) => n.name === name)?.value
    return value ? toSi(value) : undefined
  }
  const span = (g: Gauge) => valueToSi('differential', Number(g.span), g.spanUnit)
  const bySpan = [...fit].sort((a, b) => span(a) - span(b))
  const set = kpa('set-point')
  const wanted = [
    ...(set ? [set * ROOM] : []),
    ...[kpa('inlet-maximum'), kpa('supply')].flatMap((v) => v ?? []),
  ]
  const found = wanted.flatMap((most) => bySpan.find((g) => span(g) >= most) ?? bySpan.at(-1) ?? [])
  return [...new Set(found.length > 0 ? found : fit.slice(0, 1))]
}
