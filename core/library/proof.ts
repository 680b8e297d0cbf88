import { type Guide, type Proof, proveGuide, proveOnMachine, type SubGuide } from '../guide'
import type { Library } from './library'

/** A guide proved in itself and, where it names one, against its machine. */
export function proofOf(
  guide: Guide,
  subGuides: readonly SubGuide[],
  { machines }: Pick<Library, 'machines'>,
): Proof {
  const proof = proveGuide(guide, subGuides)
  const machine = machines.find((m) => m.id === guide.machine)
  return machine
    ? { ...proof, faults: [...proof.faults, ...proveOnMachine(guide, subGuides, machine)] }
    : proof
}
