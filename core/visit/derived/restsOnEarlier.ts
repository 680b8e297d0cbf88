import { type Library, type Ref, versionsOf } from '../../library'
import type { VisitState } from '../log/state'

/**
 * Whether a visit rests on a version of the know-how that is no longer in force, or was written before versions were
 * pinned, so that the earlier ones have to be looked through.
 * @param library what is in force; its earlier versions are not read
 */
export function restsOnEarlier(state: VisitState, library: Library): boolean {
  const [packs] = versionsOf.packs(library)
  const [procedures] = versionsOf.procedures(library)
  const [programmes] = versionsOf.programmes(library)
  const [policies] = versionsOf.policies(library)
  const { plan, guide } = state
  const pins = state.pins.at(-1)
  // What no pin names is the oldest that is known of it.
  if (!plan || !pins?.programme || !pins.policy) return true
  if (plan.packId && !(pins.pack && pins.procedure)) return true
  const tests = Object.values(state.runs).map(({ started }) => started)
  const packOf = (version: number) => ({ id: plan.packId ?? '', version })
  return !(
    state.pins.every(
      ({ pack, procedure, programme, policy }) =>
        isIn(packs, pack) &&
        isIn(procedures, procedure) &&
        isIn(programmes, programme) &&
        isIn(policies, policy),
    ) &&
    tests.every(
      ({ procedureId, procedureVersion, packVersion }) =>
        isIn(procedures, { id: procedureId, version: procedureVersion }) &&
        (packVersion === undefined || isIn(packs, packOf(packVersion))),
    ) &&
    isIn(library.guides, guide && { id: guide.guideId, version: guide.version }) &&
    isIn(library.specSheets, guide?.sheet)
  )
}

/** What is not named is nowhere missed. */
const isIn = (list: readonly Ref[] = [], ref: Ref | undefined): boolean =>
  !ref || list.some((e) => e.id === ref.id && e.version === ref.version)
