import type { Role } from './role'

/** What can be wrong with a part, and with which parts. */
export const faultKinds = {
  fouled: { title: 'Fouled', roles: ['check', 'relief', 'regulator', 'slam-shut'] },
  'disc-cut': { title: 'Disc cut', roles: ['check', 'regulator'] },
  'spring-weak': { title: 'Spring weak', roles: ['check', 'relief', 'regulator', 'slam-shut'] },
  'spring-broken': { title: 'Spring broken', roles: ['check'] },
  'spring-stiff': { title: 'Spring stiff', roles: ['relief', 'slam-shut'] },
  'seat-nicked': { title: 'Seat nicked', roles: ['check', 'regulator'] },
  'diaphragm-torn': { title: 'Diaphragm torn', roles: ['relief'] },
  'passage-blocked': { title: 'Sensing passage blocked', roles: ['relief', 'regulator'] },
  'stem-bent': { title: 'Stem bent', roles: ['regulator'] },
  undamped: { title: 'Damping lost, hunts', roles: ['regulator'] },
  leaking: { title: 'Leaking when shut', roles: ['shutoff'] },
  stuck: { title: 'Stuck', roles: ['air-inlet', 'meter'] },
  'seal-worn': { title: 'Seal worn', roles: [] },
  dry: { title: 'Dry, stiff', roles: [] },
  'zero-off': { title: 'Zero off', roles: [] },
  'span-off': { title: 'Span off', roles: [] },
  'linkage-worn': { title: 'Linkage worn', roles: [] },
} as const satisfies Record<string, { title: string; roles: readonly Role[] }>
export type FaultKind = keyof typeof faultKinds

export interface Fault {
  readonly element: string
  readonly fault: FaultKind
  /** 0 barely noticeable … 1 as bad as it gets. */
  readonly severity: number
}
