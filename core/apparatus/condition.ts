import { type Fault, type FaultKind, faultKinds } from './faults'
import type { Role } from './role'
import type { Apparatus, Element } from './types'

/** The hidden condition of one piece of equipment and of the site around it. */
export interface Condition {
  readonly faults: readonly Fault[]
  readonly supplyKpa: number
  /** Drawn downstream while testing, L/min; of gas at line conditions. */
  readonly demandLMin?: number
  /** Pressure that the customer’s side holds by itself, as a pump or a tank does; it can push back. */
  readonly downstreamKpa?: number
  /** Spring and setting of this very piece against a new one of its kind, by element; 1 when absent. */
  readonly springs?: Readonly<Record<string, number>>
}

/** Every fault that equipment can have: what an element names of its own, else what its role can have. */
export function possibleFaults({
  elements,
}: Pick<Apparatus, 'elements'>): { element: Element; fault: FaultKind }[] {
  return elements.flatMap((element) =>
    (Object.keys(faultKinds) as FaultKind[])
      .filter(
        (f) =>
          element.faults?.includes(f) ??
          (faultKinds[f].roles as readonly Role[]).includes(element.role),
      )
      .map((fault) => ({ element, fault })),
  )
}

/** What cleaning and lubricating does away with. */
const cleanable: readonly FaultKind[] = ['fouled', 'passage-blocked', 'dry']

/** Faults that are left after a part was cleaned, or renewed with all its soft parts and spring. */
export function faultsAfter(
  faults: readonly Fault[],
  element: string,
  service: 'cleaned' | 'renewed',
): Fault[] {
  return faults.filter(
    (f) => f.element !== element || (service === 'cleaned' && !cleanable.includes(f.fault)),
  )
}

export type FaultFinder = (element: string, fault: FaultKind) => number
export const faultFinder =
  (faults: readonly Fault[]): FaultFinder =>
  (element, fault) =>
    faults.find((f) => f.element === element && f.fault === fault)?.severity ?? 0
