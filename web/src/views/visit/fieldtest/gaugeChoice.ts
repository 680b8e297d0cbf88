import type { Gauge } from '@uvanta/contract'
import { dimensionShown } from '@uvanta/core/instrument'
import type { Procedure } from '@uvanta/core/procedure'
import { toSi, valueToSi } from '@uvanta/core/quantity'
import { isPressure } from '@uvanta/core/rules'
import type { PayloadOf } from '@uvanta/core/visit'

type Nominals = NonNullable<PayloadOf<'planned'>['equipment']['nominals']>

/** Pressures at the outlet may rise this far over the set point while it is tested. */
const ROOM = 1.8

/**
 * The instruments that a test with several of them is begun with: for each pressure that is to be read the
 * gauge with the smallest range that holds it (the widest where nothing says how much there is), and one for every other quantity that an instrument shows.
 * @param fit instruments in calibration
 */
export function gaugesFor(
  nominals: Nominals,
  fit: readonly Gauge[],
  { steps }: Pick<Procedure, 'steps'>,
): Gauge[] {
  const read = [...new Set(steps.flatMap((s) => s.record?.dimension ?? []))]
  const others = read.flatMap((d) =>
    isPressure(d) ? [] : (fit.find((g) => dimensionShown(g.spanUnit) === d) ?? []),
  )
  if (!read.some(isPressure)) return others

  const kpa = (name: Nominals[number]['name']) => {
    const value = nominals.find((n) => n.name === name)?.value
    return value ? toSi(value) : undefined
  }
  const pressures = fit.filter((g) => dimensionShown(g.spanUnit) === 'differential')
  const span = (g: Gauge) => valueToSi('differential', Number(g.span), g.spanUnit)
  const bySpan = [...pressures].sort((a, b) => span(a) - span(b))
  const set = kpa('set-point')
  const wanted = [
    ...(set ? [set * ROOM] : []),
    ...[kpa('inlet-maximum'), kpa('supply')].flatMap((v) => v ?? []),
  ]
  const found = wanted.flatMap((most) => bySpan.find((g) => span(g) >= most) ?? bySpan.at(-1) ?? [])
  return [...new Set(found.length > 0 ? found : bySpan.slice(-1)), ...others]
}
