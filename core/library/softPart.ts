import { type Guide, standsFor } from '../guide'
import type { Library } from './library'

/**
 * Whether a part of a guide is one of those that a house may renew whenever they are open. Where the
 * guide names no machine, everything that its inspections can renew is taken for soft.
 */
export function isSoftPart(
  { machines }: Pick<Library, 'machines'>,
  guide: Pick<Guide, 'machine' | 'parts'>,
  id: string,
): boolean {
  const machine = machines.find((m) => m.id === guide.machine)
  const part = guide.parts.find((p) => p.id === id)
  if (!machine || !part) return true
  const names = standsFor(part)
  return machine.parts.some((p) => names.includes(p.id) && p.soft)
}
