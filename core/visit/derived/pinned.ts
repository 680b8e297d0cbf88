import {
  type Library,
  oldest,
  pinnedPlan,
  pinnedPolicy,
  pinnedProgramme,
  type Ref,
  type TestPlan,
  testPlanOf,
  versionsOf,
} from '../../library'
import type { FamilyPolicy, Programme } from '../../catalogue'
import { asLeftProcedure } from '../../procedure'
import type { RunName } from '../log/words'
import type { EarlierRun, VisitState } from '../log/state'

/**
 * The field test of a visit: of a run that was started, under the versions it was started with; else
 * under those pinned last. Null for equipment without a field test.
 * @throws NotInLibrary when the library never had such a version
 */
export const planOfVisit = (state: VisitState, library: Library, run?: RunName): TestPlan | null =>
  planWith(state, library, run, run && state.runs[run]?.started)

/**
 * The field test of a run of a visit, under the versions it was started with, whatever came after it.
 * @throws NotInLibrary when the library never had such a version
 */
export const planOfRun = (
  state: VisitState,
  library: Library,
  { name, started }: Pick<EarlierRun, 'name' | 'started'>,
): TestPlan | null => planWith(state, library, name, started)

function planWith(
  state: VisitState,
  library: Library,
  run: RunName | undefined,
  started: EarlierRun['started'] | undefined,
): TestPlan | null {
  const { plan } = state
  if (!plan?.packId) return null
  const { kind } = plan.equipment
  const pins = state.pins.at(-1)
  const packVersion = started?.packVersion ?? pins?.pack?.version ?? plan.packVersion
  const pack = packVersion ? { id: plan.packId, version: packVersion } : undefined
  const procedure = started
    ? { id: started.procedureId, version: started.procedureVersion }
    : (pins?.procedure ?? procedureBefore(library, pack, kind))
  const found =
    pack && procedure
      ? pinnedPlan(library, pack, procedure, kind)
      : testPlanOf(library, plan.packId, kind)
  return run === 'as-left' ? { ...found, procedure: asLeftProcedure(found.procedure) } : found
}

/** Logs from before versions were pinned: the oldest procedure of the test that their pack names. */
function procedureBefore(library: Library, pack: Ref | undefined, kind: string): Ref | undefined {
  const found = versionsOf
    .packs(library)
    .flat()
    .find((p) => p.id === pack?.id && p.version === pack.version)
  const test = found?.tests.find((t) => t.kind === kind)
  return test && oldest(versionsOf.procedures(library), test.procedure)
}

/** Every pair of pack and procedure that was pinned for the visit: a device may have begun with an earlier one. */
export const pinnedTests = (state: VisitState, library: Library): TestPlan[] => {
  const { plan } = state
  if (!plan?.packId) return []
  const now = planOfVisit(state, library)
  const before = state.pins.flatMap(({ pack, procedure }) =>
    pack && procedure ? [pinnedPlan(library, pack, procedure, plan.equipment.kind)] : [],
  )
  return now ? [now, ...before] : before
}

/** The house’s policy for the visit’s family, as it was pinned; undefined where it has none. */
export function policyOfVisit(state: VisitState, library: Library): FamilyPolicy | undefined {
  const family = state.plan?.equipment.family ?? ''
  const ref = state.pins.at(-1)?.policy ?? oldest(versionsOf.policies(library), family)
  return ref && pinnedPolicy(library, ref)
}

/**
 * The programme by which the visit’s equipment falls due, as it was pinned.
 * @param programmeId of the equipment, for logs that pin none
 * @throws NotInLibrary when the library never had it
 */
export function programmeOfVisit(
  state: VisitState,
  library: Library,
  programmeId: string,
): Programme {
  const ref = state.pins.at(-1)?.programme ?? oldest(versionsOf.programmes(library), programmeId)
  return pinnedProgramme(library, ref ?? { id: programmeId, version: 1 })
}
