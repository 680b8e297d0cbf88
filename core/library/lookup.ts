import { ExplainedError } from '../errors'
import { type Guide, serves } from '../guide'
import type { PackTest, RulePack } from '../rules'
import type { Procedure } from '../procedure'
import type { SpecSheet } from './sheet'
import type { Library } from './library'

/** A library entry that does not exist; the remedy names what there is. */
export class NotInLibrary extends ExplainedError {
  constructor(what: string, id: string, known: readonly string[]) {
    super(
      'not-in-library',
      `There is no ${what} “${id}”.`,
      known.length > 0 ? `Choose one of ${known.join(', ')}.` : 'Add it to the library first.',
    )
  }
}

function pick<T extends { id: string }>(what: string, list: readonly T[], id: string): T {
  const found = list.find((entry) => entry.id === id)
  if (!found)
    throw new NotInLibrary(
      what,
      id,
      list.map((e) => e.id),
    )
  return found
}

export const rulePackOf = (library: Library, id: string): RulePack =>
  pick('rule pack', library.rulePacks, id)
export const procedureOf = (library: Library, id: string): Procedure =>
  pick('procedure', library.procedures, id)
export const programmeOf = (library: Library, id: string) =>
  pick('programme', library.programmes, id)
export const guideOf = (library: Library, id: string): Guide => pick('guide', library.guides, id)
export const familyOf = (library: Library, id: string) => pick('family', library.families, id)

/** The test that a rule pack prescribes for a kind of assembly. */
export function packTestOf(pack: RulePack, kind: string): PackTest {
  const test = pack.tests.find((t) => t.kind === kind)
  if (!test)
    throw new NotInLibrary(
      'test in this rule pack for',
      kind,
      pack.tests.map((t) => t.kind),
    )
  return test
}

/** Everything needed to run and judge the field test of a kind. */
export interface TestPlan {
  readonly pack: RulePack
  readonly test: PackTest
  readonly procedure: Procedure
}

export function testPlanOf(library: Library, packId: string, kind: string): TestPlan {
  const pack = rulePackOf(library, packId)
  const test = packTestOf(pack, kind)
  return { pack, test, procedure: procedureOf(library, test.procedure) }
}

/** The guides by which a family is serviced. */
export const guidesOf = (library: Library, familyId: string): Guide[] =>
  library.guides.filter((g) => serves(g, familyId))

/** The spec sheets of a family’s models. */
export const sheetsOf = (library: Library, familyId: string): SpecSheet[] =>
  library.specSheets.filter((s) => s.family === familyId)
