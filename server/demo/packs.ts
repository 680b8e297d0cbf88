import { isAssemblyKind } from '@uvanta/core/apparatus/backflow'

/** The rule pack by which the demo’s technicians test backflow assemblies. */
export const DEMO_PACK = 'larkhaven-relief-first'

const GAS: readonly string[] = [
  'spring regulator',
  'pilot regulator',
  'dome regulator',
  'slam-shut regulator',
  'monitored regulator',
]
const REDUCERS: readonly string[] = ['pressure reducer', 'in-line regulator']

/** The rule pack that the demo’s house has for a kind. */
export function packFor(kind: string): string {
  if (isAssemblyKind(kind)) return DEMO_PACK
  if (GAS.includes(kind)) return 'larkhaven-gas-at-flow'
  return REDUCERS.includes(kind) ? 'larkhaven-pressure-reducers' : 'larkhaven-valves-and-actuators'
}
