import * as actuated from './actuated'
import * as handling from './handling'
import * as shifting from './shifting'
import type { Work } from './work'

export type { Tried, Work } from './work'

/** What every kind of machine shows, by kind. */
export const works: Readonly<Record<string, Work>> = {
  actuator: actuated.actuator,
  'control valve': actuated.controlValve,
  cylinder: actuated.cylinder,
  'check valve': actuated.checkValve,
  'mix-proof valve': shifting.mixProof,
  'on-off valve': shifting.onOff,
  'spool valve': shifting.spool,
  'cycling valve': shifting.cycling,
  'pulse valve': shifting.pulse,
  'transfer valve': shifting.transfer,
  coupler: handling.coupler,
  sampler: handling.sampler,
  injector: handling.injector,
}
