import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parse } from 'yaml'
import type { Library } from '../library'
import { shippedGuides, shippedSubGuides } from './guides'
import { expandProcedure, type ProcedureFile } from '../procedure'

const home = join(import.meta.dirname, '../../library/')
const folder = <T>(name: string): T[] =>
  readdirSync(`${home}${name}`)
    .filter((f) => f.endsWith('.yaml'))
    .map((f) => parse(readFileSync(`${home}${name}/${f}`, 'utf8')) as T)
const file = <T>(name: string): T => parse(readFileSync(`${home}${name}`, 'utf8')) as T

const procedureFiles = folder<ProcedureFile>('procedures')

/** The shipped library, for tests: computations are tested on the data people get. */
export const shippedLibrary: Library = {
  procedures: procedureFiles.map((p) => {
    const expanded = expandProcedure(p, procedureFiles)
    if ('faults' in expanded) throw new Error(JSON.stringify(expanded.faults))
    return expanded.procedure
  }),
  rulePacks: folder('rulepacks'),
  families: file('families.yaml'),
  programmes: file('programmes.yaml'),
  guides: shippedGuides,
  subGuides: shippedSubGuides,
  specSheets: folder('specsheets'),
  policies: file('policies.yaml'),
  earlier: {
    guides: [],
    specSheets: [],
    procedures: folder('earlier/procedures'),
    rulePacks: folder('earlier/rulepacks'),
    programmes: folder('earlier/programmes'),
    policies: [],
  },
}
