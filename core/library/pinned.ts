import type * as yup from 'yup'
import { integer, slug, strictObject } from '../schema'
import { NotInLibrary, packTestOf, type TestPlan, testPlanOf } from './lookup'
import type { Library } from './library'

/** An entry of the library in one of its versions. */
const refSchema = () =>
  strictObject({ id: slug().required(), version: integer(1, 9999).required() })
    .default(undefined)
    .optional()

/** What the verdicts of a visit rest on, each by id and version. */
export const pinsSchema = strictObject({
  pack: refSchema(),
  procedure: refSchema(),
  policy: refSchema(),
  programme: refSchema(),
})
export type Pins = yup.InferType<typeof pinsSchema>
export type Ref = NonNullable<Pins['pack']>

interface Versioned {
  readonly id: string
  readonly version: number
}

/**
 * The entry of that id and version, in force or not.
 * @throws NotInLibrary when the library never had it
 */
function pinned<T extends Versioned>(what: string, lists: readonly (readonly T[])[], ref: Ref): T {
  const all = lists.flat()
  const found = all.find((e) => e.id === ref.id && e.version === ref.version)
  if (found) return found
  const known = all.filter((e) => e.id === ref.id).map((e) => `version ${e.version}`)
  throw new NotInLibrary(`${what} in version ${ref.version}`, ref.id, known)
}

/** The oldest version that is known of an id: what held before versions were written down. */
export function oldest(lists: readonly (readonly Versioned[])[], id: string): Ref | undefined {
  const versions = lists.flat().flatMap((e) => (e.id === id ? [e.version] : []))
  return versions.length > 0 ? { id, version: Math.min(...versions) } : undefined
}

const byFamily = (library: Pick<Library, 'policies'>) =>
  library.policies.map((p) => ({ ...p, id: p.family }))

/** A list of the library with its earlier versions behind it. */
export const versionsOf = {
  packs: (l: Library) => [l.rulePacks, l.earlier.rulePacks],
  procedures: (l: Library) => [l.procedures, l.earlier.procedures],
  programmes: (l: Library) => [l.programmes, l.earlier.programmes],
  policies: (l: Library) => [byFamily(l), byFamily(l.earlier)],
} as const

export const pinnedPack = (library: Library, ref: Ref) =>
  pinned('rule pack', versionsOf.packs(library), ref)
export const pinnedProcedure = (library: Library, ref: Ref) =>
  pinned('procedure', versionsOf.procedures(library), ref)
export const pinnedProgramme = (library: Library, ref: Ref) =>
  pinned('programme', versionsOf.programmes(library), ref)
export const pinnedPolicy = (library: Library, ref: Ref) =>
  pinned('policy for', versionsOf.policies(library), ref)

/** The field test of a kind under a pack and procedure in their versions. */
export function pinnedPlan(library: Library, pack: Ref, procedure: Ref, kind: string): TestPlan {
  const found = pinnedPack(library, pack)
  const test = packTestOf(found, kind)
  return { pack: found, test, procedure: pinnedProcedure(library, procedure) }
}

/** What is in force now for a piece of equipment. @throws NotInLibrary for a pack or programme that is not */
export function pinsInForce(
  library: Library,
  about: {
    readonly family: string
    readonly kind: string
    readonly programme: string
    readonly packId?: string | undefined
  },
): Pins {
  const ref = ({ id, version }: Versioned): Ref => ({ id, version })
  const plan = about.packId ? testPlanOf(library, about.packId, about.kind) : undefined
  const policy = byFamily(library).find((p) => p.id === about.family)
  const programme = library.programmes.find((p) => p.id === about.programme)
  return {
    ...(plan ? { pack: ref(plan.pack), procedure: ref(plan.procedure) } : {}),
    ...(policy ? { policy: ref(policy) } : {}),
    ...(programme ? { programme: ref(programme) } : {}),
  }
}
