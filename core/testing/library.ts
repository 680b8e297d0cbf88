import type { Library } from '../library'
import { expandProcedure, type ProcedureFile } from '../procedure'
import { shippedGuides, shippedSubGuides } from './guides'
import { yamlFile as file, yamlFolder as folder } from './yaml'

const procedureFiles = folder<ProcedureFile>('procedures')

/** The shipped library, for tests: computations are tested on the data people get. */
export const shippedLibrary: Library = {
  procedures: procedureFiles.map((p) => {
    const expanded = expandProcedure(p, procedureFiles)
    if ('faults' in expanded) throw new Error(JSON.stringify(expanded.faults))
    return expanded.procedure
  }),
  rulePacks: folder('demo/rulepacks'),
  families: file('families.yaml'),
  programmes: file('demo/programmes.yaml'),
  machines: folder('machines'),
  guides: shippedGuides,
  subGuides: shippedSubGuides,
  specSheets: folder('demo/specsheets'),
  policies: file('demo/policies.yaml'),
  earlier: {
    guides: [],
    specSheets: [],
    procedures: folder('earlier/procedures'),
    rulePacks: folder('demo/earlier/rulepacks'),
    programmes: folder('demo/earlier/programmes'),
    policies: [],
  },
}
