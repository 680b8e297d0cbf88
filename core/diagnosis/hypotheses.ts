import {
  apparatusOf,
  type Fault,
  type FaultKind,
  possibleFaults,
  type SiteSpec,
  SPRUNG,
} from '../apparatus'
import { FluidError } from '../fluid'
import type { Procedure } from '../procedure'
import { runTest, type SimulatedTest, siteModelOf } from '../simulate'

/** Whether there is a model by which a kind of equipment can be diagnosed. */
export const hasModel = (kind: string): boolean => hypothesesOf(kind).length > 0

/** One thing that may be wrong with equipment; null where nothing is. */
export type Cause = Pick<Fault, 'element' | 'fault'> | null

/** A cause by degree: 0 … 1, or of sound equipment its springs against those that are usual. */
export interface Hypothesis {
  readonly cause: Cause
  readonly degree: number
}

/** What a test would read if a hypothesis were true. */
export interface Prediction extends Hypothesis {
  readonly test: SimulatedTest
}

/** Equipment as a person knows it: everything but its condition. */
export type KnownSite = Omit<SiteSpec, 'condition'> & {
  /** Pressure in the line, kPa. */
  readonly supplyKpa: number
  /** Height of the gauge above the port, m. */
  readonly gaugeAbovePortM?: number
}

/** A leak fails whole, however small it is: two degrees tell of it what there is to tell. */
const LEAKS: readonly FaultKind[] = [
  'fouled',
  'disc-cut',
  'seat-nicked',
  'leaking',
  'spring-broken',
]
const LEAK_DEGREES = [0.15, 0.6]
const DEGREES = [0.25, 0.5, 0.75, 1]

/** Springs of one kind are a few percent apart; a regulator was set by hand, to a percent or so. */
const SPRINGS = [0.94, 1, 1.06]
const SETTINGS = [0.985, 1, 1.015]

/**
 * Everything that may be wrong with a kind of equipment, one thing at a time and by degree, and that
 * nothing is; empty for a kind without a model.
 */
export function hypothesesOf(kind: string): Hypothesis[] {
  const apparatus = apparatusOf(kind)
  if (!apparatus) return []
  const byHand = apparatus.elements.some((e) => e.role === 'regulator')
  return [
    ...(byHand ? SETTINGS : SPRINGS).map((degree) => ({ cause: null, degree })),
    ...possibleFaults(apparatus).flatMap(({ element, fault }) =>
      (LEAKS.includes(fault) ? LEAK_DEGREES : DEGREES).map((degree) => ({
        cause: { element: element.id, fault },
        degree,
      })),
    ),
  ]
}

/**
 * Has a procedure carried out on the model of every hypothesis, one after the other: each takes some
 * hundredths of a second, and whoever asks for the next may stop. What the model cannot compute is left out.
 */
export function* predictions(
  procedure: Procedure,
  site: KnownSite,
): Generator<Prediction | null, void> {
  for (const hypothesis of hypothesesOf(site.kind)) yield predict(procedure, site, hypothesis)
}

/** Seconds between the looks of a modelled tester: coarser than a gauge’s, and nearly twice as fast. */
const PERIOD_S = 0.2

function predict(
  procedure: Procedure,
  { supplyKpa, gaugeAbovePortM = 0, ...spec }: KnownSite,
  { cause, degree }: Hypothesis,
): Prediction | null {
  const elements = apparatusOf(spec.kind)?.elements ?? []
  const sprung = elements.filter((e) => SPRUNG.includes(e.role)).map((e) => [e.id, degree])
  const condition = cause
    ? { supplyKpa, faults: [{ ...cause, severity: degree }] }
    : { supplyKpa, faults: [], springs: Object.fromEntries(sprung) }
  try {
    const model = siteModelOf({ ...spec, condition })
    if (!model) return null
    model.gaugeAbovePortM = gaugeAbovePortM
    return { cause, degree, test: runTest(procedure, model, { periodS: PERIOD_S }) }
  } catch (error) {
    if (error instanceof FluidError) return null
    throw error
  }
}
