import type { FaultKind } from '../apparatus'

/**
 * How often a fault is met against the others, before anything was read: dirt first, then what it
 * damages, then springs. An order of likelihood as the trade tells it, no statistic.
 */
export const chances: Readonly<Record<FaultKind, number>> = {
  fouled: 6,
  'disc-cut': 2,
  'seat-nicked': 1.5,
  'spring-weak': 2,
  'spring-broken': 0.5,
  'spring-stiff': 1,
  'diaphragm-torn': 1.5,
  'passage-blocked': 1.5,
  'stem-bent': 1,
  undamped: 1,
  leaking: 2,
  stuck: 2,
  'seal-worn': 3,
  dry: 4,
  'zero-off': 4,
  'span-off': 2,
  'linkage-worn': 2,
}
