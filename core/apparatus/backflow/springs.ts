import { type Condition, faultFinder } from '../condition'
import type { AssemblyKind } from './kinds'
import type { Layout } from './layout'

const PSI = 6.894757293168

/**
 * Springs of a healthy assembly, psi: typical values of the kinds, well over the usual acceptance
 * limits. A detector’s main line is stronger than its bypass, so that small flows go through the meter.
 */
const SPRINGS_PSI: Readonly<Record<AssemblyKind, Readonly<Record<string, number>>>> = {
  RP: { 'check-1': 7.6, 'check-2': 2.3, relief: 2.8 },
  DC: { 'check-1': 2.3, 'check-2': 2.0 },
  RPDA: {
    'check-1': 9,
    'check-2': 2.6,
    relief: 2.8,
    'bypass-check-1': 7,
    'bypass-check-2': 1.8,
    'bypass-relief': 2.8,
  },
  DCDA: { 'check-1': 3.4, 'check-2': 2.9, 'bypass-check-1': 1.9, 'bypass-check-2': 1.7 },
  PVB: { 'check-1': 2.1, 'air-inlet': 1.8 },
  SVB: { 'check-1': 2.4, 'air-inlet': 1.6 },
}

/** Spring of an element in kPa: healthy, this piece’s own, and what its faults leave of it. */
export function springKpa(kind: AssemblyKind, element: string, condition: Condition): number {
  const healthy = (SPRINGS_PSI[kind][element] ?? 2) * PSI * (condition.springs?.[element] ?? 1)
  const fault = faultFinder(condition.faults)
  const weak = 1 - 0.75 * fault(element, 'spring-weak')
  const broken = 1 - 0.97 * Math.min(1, 0.6 + 0.4 * fault(element, 'spring-broken'))
  const stiff = 1 + 1.2 * fault(element, 'spring-stiff')
  const stuck = 1 - 1.3 * fault(element, 'stuck')
  return healthy * weak * (fault(element, 'spring-broken') > 0 ? broken : 1) * stiff * stuck
}

/**
 * What the springs before each place take off the supply, kPa, when everything has come to rest: of
 * several ways to a place, the one with the weaker springs sets its pressure.
 */
export function springsBeforeOf({ kind, places, elements }: Layout, condition: Condition) {
  const lost: Record<string, number> = { inlet: 0 }
  const ways = elements.flatMap((e) => {
    if (!e.to) return []
    const spring = e.role === 'check' ? springKpa(kind, e.id, condition) : 0
    const on = { from: e.at, to: e.to, spring }
    // What is no check evens out both ways.
    return e.role === 'check' ? [on] : [on, { from: e.to, to: e.at, spring }]
  })
  for (let turn = 0; turn < places.length; turn++) {
    for (const { from, to, spring } of ways) {
      const through = (lost[from] ?? Infinity) + spring
      if (through < (lost[to] ?? Infinity)) lost[to] = through
    }
  }
  return lost
}
