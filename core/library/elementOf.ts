import { type Guide, standsFor } from '../guide'
import type { Library } from './library'

/**
 * The element of the apparatus that a part of a guide is: what is cleaned or renewed on the bench is
 * cleaned or renewed on the site. The guide’s own word goes before that of its machine.
 */
export function elementOf(
  { machines }: Pick<Library, 'machines'>,
  guide: Pick<Guide, 'machine' | 'parts'>,
  id: string | undefined,
): string | undefined {
  const part = guide.parts.find((p) => p.id === id)
  if (!part || part.element) return part?.element
  const names = standsFor(part)
  const parts = machines.find((m) => m.id === guide.machine)?.parts ?? []
  return parts.find((p) => names.includes(p.id) && p.element)?.element
}
