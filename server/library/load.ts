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
  familySchema,
  type Library,
  policySchema,
  programmeSchema,
  sheetFaults,
  specSheetSchema,
} from '@uvanta/core/library'
import {
  expandProcedure,
  type Procedure,
  type ProcedureFile,
  procedureFaults,
  procedureFileSchema,
  rulePackFaults,
  rulePackSchema,
} from '@uvanta/core/procedure'
import * as yup from 'yup'
import { loadYaml } from './yamlFile'

/** Loads and cross-checks the whole library. @throws BadLibraryFile at the first file that is wrong */
export function loadLibrary(directory: string): Library {
  const known = loadProcedures(directory)
  const packs = loadFolder(directory, 'rulepacks', rulePackSchema)
  for (const p of packs) refuseIf(p, rulePackFaults(p.value, known))
  const one = <T>(name: string, schema: yup.Schema<T>) =>
    loadYaml(join(directory, name), name, yup.array(schema.required() as yup.Schema<T>).required())
      .value as T[]
  const guides = loadGuides(directory)
  const sheets = loadFolder(directory, 'specsheets', specSheetSchema)
  for (const s of sheets) refuseIf(s, sheetFaults(s.value, guides.guides))
  return {
    procedures: known,
    rulePacks: packs.map((p) => p.value),
    families: one('families.yaml', familySchema),
    programmes: one('programmes.yaml', programmeSchema),
    policies: one('policies.yaml', policySchema),
    specSheets: sheets.map((s) => s.value),
    ...guides,
    earlier: { guides: [], specSheets: [] },
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

/** Guides are proved when they are loaded: one that forgets a part is refused as one that is no YAML. */
function loadGuides(directory: string): Pick<Library, 'guides' | 'subGuides'> {
  const shared = loadFolder(
    directory,
    'guides/shared',
    subGuideSchema as unknown as yup.Schema<SubGuide>,
  )
  const files = loadFolder(directory, 'guides', guideSchema as unknown as yup.Schema<Guide>)
  const subGuides = shared.map((f) => f.value)
  for (const file of files) {
    const { faults } = proveGuide(file.value, subGuides)
    refuseIf(
      file,
      faults.map(({ path, message }) => ({ path, message })),
    )
  }
  return { guides: files.map((f) => f.value), subGuides }
}

function loadFolder<T extends { id: string }>(
  directory: string,
  folder: string,
  schema: yup.Schema<T>,
) {
  const files = readdirSync(join(directory, folder))
    .filter((f) => f.endsWith('.yaml'))
    .sort()
  return files.map((f) => {
    const loaded = loadYaml(join(directory, folder, f), `${folder}/${f}`, schema)
    if (`${loaded.value.id}.yaml` !== f) {
      throw loaded.refuse([
        { path: 'id', message: `is “${loaded.value.id}”, but the file is ${f}: use one name` },
      ])
    }
    return loaded
  })
}

function refuseIf(
  file: ReturnType<typeof loadYaml>,
  faults: ReturnType<typeof procedureFaults>,
): void {
  if (faults.length > 0) throw file.refuse(faults)
}
