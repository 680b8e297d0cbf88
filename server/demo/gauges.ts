import { type Gauge, gaugeUnder } from '@uvanta/contract'
import { isAssemblyKind } from '@uvanta/core/apparatus/backflow'
import { dimensionShown } from '@uvanta/core/instrument'
import type { Procedure } from '@uvanta/core/procedure'
import { type Dimension, toSi, valueToSi } from '@uvanta/core/quantity'
import { isPressure } from '@uvanta/core/rules'
import type { Nominal } from '@uvanta/core/apparatus'

const inCalibrationOn = (date: string) => (g: Gauge) =>
  g.calibrations.some((c) => c.calibratedOn <= date && date <= c.validUntil)
const shows = (dimension: Dimension) => (g: Gauge) => dimensionShown(g.spanUnit) === dimension
const spanKpa = (g: Gauge) => valueToSi('differential', Number(g.span), g.spanUnit)

/** What a regulator’s outlet may rise to while it is tested, over its set point. */
const ROOM = 1.8

/** The instruments that a test is made with on a day: for a backflow assembly the gauge of 15 psi. */
export function gaugesFor(
  { kind, steps }: Pick<Procedure, 'kind' | 'steps'>,
  nominals: readonly Nominal[],
  gauges: readonly Gauge[],
  date: string,
): Gauge[] {
  const calibrated = gauges.filter(inCalibrationOn(date))
  const read = [...new Set(steps.flatMap((s) => s.record?.dimension ?? []))]
  const others = read.flatMap((d) => (isPressure(d) ? [] : (calibrated.find(shows(d)) ?? [])))
  if (!read.some(isPressure)) return others
  const fit = calibrated.filter(shows('differential')).sort((a, b) => spanKpa(a) - spanKpa(b))
  const [fine] = fit.filter((g) => g.spanUnit === 'psi' && g.span === '15')
  const widest = fit.at(-1)
  if (!fine || !widest) throw new Error(`no gauge in calibration on ${date}`)
  if (isAssemblyKind(kind)) return [fine]
  const set = nominals.find((n) => n.name === 'set-point')?.value
  const most = set ? toSi(set) * ROOM : Infinity
  const small = fit.find((g) => spanKpa(g) >= most) ?? widest
  return [...new Set([small, widest]), ...others]
}

/** A gauge as the instrument of a test on a day. */
export function instrumentOf(g: Gauge, date: string) {
  const c = g.calibrations.find((k) => k.calibratedOn <= date && date <= k.validUntil)
  if (!c) throw new Error(`gauge ${g.tag} is not in calibration on ${date}`)
  return gaugeUnder(g, c)
}
