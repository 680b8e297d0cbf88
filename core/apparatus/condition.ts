import type { Apparatus, Element, Role } from './types'

/** What can be wrong with a part, and with which parts. */
export const faultKinds = {
  fouled: { title: 'Fouled', roles: ['check', 'relief', 'regulator'] },
  'disc-cut': { title: 'Disc cut', roles: ['check', 'regulator'] },
  'spring-weak': { title: 'Spring weak', roles: ['check', 'relief', 'regulator'] },
  'spring-broken': { title: 'Spring broken', roles: ['check'] },
  'spring-stiff': { title: 'Spring stiff', roles: ['relief'] },
  'seat-nicked': { title: 'Seat nicked', roles: ['check', 'regulator'] },
  'diaphragm-torn': { title: 'Diaphragm torn', roles: ['relief'] },
  'passage-blocked': { title: 'Sensing passage blocked', roles: ['relief', 'regulator'] },
  'stem-bent': { title: 'Stem bent', roles: ['regulator'] },
  leaking: { title: 'Leaking when shut', roles: ['shutoff'] },
  stuck: { title: 'Stuck', roles: ['air-inlet', 'meter'] },
} as const satisfies Record<string, { title: string; roles: readonly Role[] }>
export type FaultKind = keyof typeof faultKinds

export interface Fault {
  readonly element: string
  readonly fault: FaultKind
  /** 0 barely noticeable … 1 as bad as it gets. */
  readonly severity: number
}

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

/** Every fault that equipment can have. */
export function possibleFaults({
  elements,
}: Pick<Apparatus, 'elements'>): { element: Element; fault: FaultKind }[] {
  return elements.flatMap((element) =>
    (Object.keys(faultKinds) as FaultKind[])
      .filter((f) => (faultKinds[f].roles as readonly Role[]).includes(element.role))
      .map((fault) => ({ element, fault })),
  )
}

/** What a rebuild or cleaning does away with. */
const cleanable: readonly FaultKind[] = ['fouled', 'passage-blocked']

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
