import type { TestSite } from '@uvanta/core/apparatus'
import { convertValue, type Dimension } from '@uvanta/core/quantity'
import { isPressure } from '@uvanta/core/rules'

/** A pressure gauge that the stand-in can play. */
export interface SimulatedGauge {
  readonly tag: string
  readonly serial: string
  readonly unit: string
  readonly span: number
  readonly resolution: number
  /** Standard deviation of its noise, in `unit`. */
  readonly noise: number
  /** Time constant, s. */
  readonly lagS: number
}

/** By range: the differential gauge of 15 psi, a manometer in inches of water, a gauge of 200 psi. */
const FINE: SimulatedGauge = {
  tag: 'G-01',
  serial: 'DG-48211',
  unit: 'psi',
  span: 15,
  resolution: 0.01,
  noise: 0.009,
  lagS: 0.15,
}
const MANOMETER: SimulatedGauge = {
  tag: 'G-06',
  serial: 'MM-20417',
  unit: 'inH2O',
  span: 100,
  resolution: 0.05,
  noise: 0.02,
  lagS: 0.3,
}
const HIGH: SimulatedGauge = {
  tag: 'G-05',
  serial: 'DX-11910',
  unit: 'psi',
  span: 200,
  resolution: 0.1,
  noise: 0.05,
  lagS: 0.2,
}
/** A travel indicator, a counter of drops and bubbles, and a thermometer. */
const INDICATOR: SimulatedGauge = {
  tag: 'G-07',
  serial: 'TI-70312',
  unit: '%',
  span: 120,
  resolution: 0.1,
  noise: 0.04,
  lagS: 0.2,
}
const COUNTER: SimulatedGauge = {
  tag: 'G-08',
  serial: 'LC-55018',
  unit: '/min',
  span: 600,
  resolution: 1,
  noise: 0,
  lagS: 0.5,
}
const THERMOMETER: SimulatedGauge = {
  tag: 'G-09',
  serial: 'TM-31877',
  unit: '°C',
  span: 120,
  resolution: 0.1,
  noise: 0.03,
  lagS: 1,
}
export const gauges = [FINE, MANOMETER, HIGH, INDICATOR, COUNTER, THERMOMETER] as const

/** A gauge must hold what is there, and what it may rise to. */
const ROOM = 1.8
const bySpan = [MANOMETER, FINE, HIGH]
const holding = (kpa: number) =>
  bySpan.find((g) => convertValue('differential', g.span, g.unit, 'kPa') >= kpa) ?? HIGH

/** The gauge that a tester takes for a port: of a backflow assembly the differential one, else by its range. */
export function gaugeFor(site: TestSite | null, port: string): SimulatedGauge {
  if (!site?.layout.streams.includes('gaugePressure')) return FINE
  const place = site.layout.elements.find((e) => e.id === port)?.at
  const kpa = place ? Math.max(site.pressure(place), 0) : 0
  return holding(kpa * (place === 'body-1' ? 1.05 : ROOM))
}

/** The instrument that shows an item of a machine’s test; undefined for one that is looked at or timed. */
export function instrumentFor(dimension: Dimension): SimulatedGauge | undefined {
  if (dimension === 'fraction') return INDICATOR
  if (dimension === 'frequency') return COUNTER
  if (dimension === 'temperature') return THERMOMETER
  return isPressure(dimension) ? HIGH : undefined
}
