import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import {
  type Guide,
  guideSchema,
  proveGuide,
  type SubGuide,
  subGuideSchema,
} from '@uvanta/core/guide'
import {
  familyFaults,
  guideReferenceFaults,
  machineReferenceFaults,
  onMachineFaults,
  type Library,
  packReferenceFaults,
  policyFaults,
  sheetFaults,
  sheetReferenceFaults,
  specSheetSchema,
  twiceFaults,
} from '@uvanta/core/library'
import { machineFaults, machineSchema } from '@uvanta/core/machine'
import { familySchema, policySchema, programmeSchema } from '@uvanta/core/catalogue'
import {
  expandProcedure,
  type Procedure,
  type ProcedureFile,
  procedureFaults,
  procedureFileSchema,
  procedureSchema,
} from '@uvanta/core/procedure'
import { rulePackFaults, rulePackSchema } from '@uvanta/core/rules'
import type { FieldFault } from '@uvanta/core/schema'
import * as yup from 'yup'
import { loadYaml } from './yamlFile'

const listOf = <T>(schema: yup.Schema<T>) =>
  yup.array(schema.required() as yup.Schema<T>).required() as unknown as yup.Schema<T[]>
const familyList = listOf(familySchema)
const programmeList = listOf(programmeSchema)
const policyList = listOf(policySchema)

/** Loads and cross-checks the whole library. @throws BadLibraryFile at the first file that is wrong */
export function loadLibrary(directory: string): Library {
  const known = loadProcedures(directory)
  const packs = loadFolder(directory, 'rulepacks', rulePackSchema)
  for (const p of packs) refuseIf(p, rulePackFaults(p.value, known))
  const list = <T>(name: string, schema: yup.Schema<T[]>) =>
    loadYaml(join(directory, name), name, schema)
  const families = list('families.yaml', familyList)
  const programmes = list('programmes.yaml', programmeList)
  const policies = list('policies.yaml', policyList)
  const machines = loadFolder(directory, 'machines', machineSchema)
  for (const m of machines) refuseIf(m, machineFaults(m.value))
  const { files: guideFiles, ...guides } = loadGuides(directory)
  const sheets = loadFolder(directory, 'specsheets', specSheetSchema)
  for (const s of sheets) refuseIf(s, sheetFaults(s.value, guides.guides))
  const library: Library = {
    procedures: known,
    rulePacks: packs.map((p) => p.value),
    families: families.value,
    programmes: programmes.value,
    policies: policies.value,
    specSheets: sheets.map((s) => s.value),
    machines: machines.map((m) => m.value),
    ...guides,
    earlier: loadEarlier(directory),
  }
  refuseIf(families, familyFaults(library))
  refuseIf(programmes, twiceFaults(library.programmes))
  refuseIf(policies, policyFaults(library))
  for (const p of packs) refuseIf(p, packReferenceFaults(p.value))
  for (const s of sheets) refuseIf(s, sheetReferenceFaults(s.value, library))
  for (const m of machines) refuseIf(m, machineReferenceFaults(m.value, library))
  for (const g of guideFiles) {
    refuseIf(g, guideReferenceFaults(g.value, library))
    refuseIf(g, onMachineFaults(g.value, library))
  }
  return library
}

/**
 * Versions that were in force before this installation wrote down what was: packs, programmes and
 * procedures, these with everything that they take over written out.
 */
function loadEarlier(directory: string): Library['earlier'] {
  const of = <T extends { id: string; version: number }>(folder: string, schema: yup.Schema<T>) =>
    loadFolder(directory, `earlier/${folder}`, schema, (v) => `${v.id}.${v.version}.yaml`).map(
      (f) => f.value,
    )
  return {
    guides: [],
    specSheets: [],
    policies: [],
    procedures: of('procedures', procedureSchema as yup.Schema<Procedure>),
    rulePacks: of('rulepacks', rulePackSchema),
    programmes: of('programmes', programmeSchema),
  }
}

function loadProcedures(directory: string): Procedure[] {
  const schema = procedureFileSchema as unknown as yup.Schema<ProcedureFile>
  const files = loadFolder(directory, 'procedures', schema)
  const all = files.map((f) => f.value)
  return files.map((file) => {
    const expanded = expandProcedure(file.value, all)
    if ('faults' in expanded) throw file.refuse(expanded.faults)
    const { procedure, origins } = expanded
    const inFile = (path: string) =>
      path.replace(/^steps\[(\d+)\]/, (_, n: string) => `steps[${origins[Number(n)] ?? 0}]`)
    refuseIf(
      file,
      procedureFaults(procedure).map((f) => ({ ...f, path: inFile(f.path) })),
    )
    return procedure
  })
}

/** What the proof of a guide said, while it and what it takes over are as they were. */
const proofs = new WeakMap<Guide, { over: readonly SubGuide[]; faults: FieldFault[] }>()

function proofOf(guide: Guide, subGuides: readonly SubGuide[]): FieldFault[] {
  const before = proofs.get(guide)
  const same = before?.over.length === subGuides.length
  if (same && before.over.every((s, i) => s === subGuides[i])) return before.faults
  const faults = proveGuide(guide, subGuides).faults.map(({ path, message }) => ({ path, message }))
  proofs.set(guide, { over: subGuides, faults })
  return faults
}

/** Guides are proved when they are loaded: one that forgets a part is refused as one that is no YAML. */
function loadGuides(directory: string) {
  const shared = loadFolder(
    directory,
    'guides/shared',
    subGuideSchema as unknown as yup.Schema<SubGuide>,
  )
  const files = loadFolder(directory, 'guides', guideSchema as unknown as yup.Schema<Guide>)
  const subGuides = shared.map((f) => f.value)
  for (const file of files) refuseIf(file, proofOf(file.value, subGuides))
  return { files, guides: files.map((f) => f.value), subGuides }
}

function loadFolder<T extends { id: string }>(
  directory: string,
  folder: string,
  schema: yup.Schema<T>,
  nameOf: (value: T) => string = (value) => `${value.id}.yaml`,
) {
  const files = readdirSync(join(directory, folder))
    .filter((f) => f.endsWith('.yaml'))
    .sort()
  return files.map((f) => {
    const loaded = loadYaml(join(directory, folder, f), `${folder}/${f}`, schema)
    const name = nameOf(loaded.value)
    if (name !== f) {
      throw loaded.refuse([
        {
          path: 'id',
          message: `asks for the file name ${name}, but the file is ${f}: use one name`,
        },
      ])
    }
    return loaded
  })
}

function refuseIf(file: ReturnType<typeof loadYaml>, faults: readonly FieldFault[]): void {
  if (faults.length > 0) throw file.refuse(faults)
}
