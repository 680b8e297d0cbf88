import { existsSync, readdirSync } from 'node:fs'
import { basename, join } from 'node:path'
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
import { familySchema, policySchema, type Programme, programmeSchema } from '@uvanta/core/catalogue'
import {
  expandProcedure,
  type Procedure,
  type ProcedureFile,
  procedureFaults,
  procedureFileSchema,
  procedureSchema,
} from '@uvanta/core/procedure'
import { type RulePack, rulePackFaults, rulePackSchema } from '@uvanta/core/rules'
import { type FieldFault, strictObject } from '@uvanta/core/schema'
import * as yup from 'yup'
import { type LoadedFile, loadYaml } from './yamlFile'

const listOf = <T>(schema: yup.Schema<T>) =>
  yup.array(schema.required() as yup.Schema<T>).required() as unknown as yup.Schema<T[]>
const idList = () => yup.array(yup.string().required()).default([])
const familyList = listOf(familySchema)
const programmeList = listOf(programmeSchema)
const policyList = listOf(policySchema)

/**
 * Loads and cross-checks the whole library.
 * @param layers directories of the same shape, each over the ones before it: an entry of a later one takes the place
 *   of an earlier one of its id. The first is what ships; then comes the demo’s, or a utility’s own. That a version
 *   keeps its text is checked where versions are kept.
 * @throws BadLibraryFile at the first file that is wrong
 */
export function loadLibrary(layers: readonly string[]): Library {
  const known = loadProcedures(layers)
  const packs = loadRulePacks(layers, known)
  const hidden = loadHidden(layers)
  const starters = loadStarters(layers[0] ?? '')
  const families = loadList(layers, 'families.yaml', familyList, (f) => f.id)
  const programmes = loadList(layers, 'programmes.yaml', programmeList, (p) => p.id)
  const policies = loadList(layers, 'policies.yaml', policyList, (p) => p.family)
  const machines = loadFolder(layers, 'machines', machineSchema)
  for (const m of machines) refuseIf(m, machineFaults(m.value))
  const { files: guideFiles, ...guides } = loadGuides(layers)
  const sheets = loadFolder(layers, 'specsheets', specSheetSchema)
  for (const s of sheets) refuseIf(s, sheetFaults(s.value, guides.guides))
  const library: Library = {
    procedures: known,
    rulePacks: packs.map((p) => p.value),
    families: families.all,
    programmes: programmes.all,
    policies: policies.all,
    specSheets: sheets.map((s) => s.value),
    machines: machines.map((m) => m.value),
    ...guides,
    earlier: loadEarlier(layers),
  }
  for (const f of families.files)
    refuseIf(f, familyFaults({ ...library, families: f.value }, starters.programmes))
  for (const f of programmes.files) refuseIf(f, twiceFaults(f.value))
  for (const f of policies.files) refuseIf(f, policyFaults({ ...library, policies: f.value }))
  for (const p of packs) refuseIf(p, packReferenceFaults(p.value))
  for (const s of sheets) refuseIf(s, sheetReferenceFaults(s.value, library))
  for (const m of machines) refuseIf(m, machineReferenceFaults(m.value, library))
  for (const g of guideFiles) {
    refuseIf(g, guideReferenceFaults(g.value, library))
    refuseIf(g, onMachineFaults(g.value, library))
  }
  return withoutHidden(library, hidden)
}

/**
 * The library of which each list is read and checked when it is first asked for, for a program that answers one
 * question: most need no guide, whose proofs take most of the time.
 * @param layers as for `loadLibrary`
 * @throws BadLibraryFile where a list is asked for
 */
export function libraryOnDemand(layers: readonly string[]): Library {
  const once = <T>(read: () => T): (() => T) => {
    let kept: { readonly value: T } | undefined
    return () => (kept ??= { value: read() }).value
  }
  const whole = once(() => loadLibrary(layers))
  const procedures = once(() => loadProcedures(layers))
  const rulePacks = once(() => {
    const packs = loadRulePacks(layers, procedures()).map((p) => p.value)
    return shownOf('rulePacks', packs, loadHidden(layers))
  })
  return {
    get procedures() {
      return procedures()
    },
    get rulePacks() {
      return rulePacks()
    },
    get families() {
      return whole().families
    },
    get programmes() {
      return whole().programmes
    },
    get machines() {
      return whole().machines
    },
    get guides() {
      return whole().guides
    },
    get subGuides() {
      return whole().subGuides
    },
    get specSheets() {
      return whole().specSheets
    },
    get policies() {
      return whole().policies
    },
    get earlier() {
      return whole().earlier
    },
  }
}

/** What a utility may begin with: copied into its own library, named and confirmed there. */
export interface Starters {
  readonly rulePacks: readonly RulePack[]
  readonly programmes: readonly Programme[]
}

/** @param shipped the library that ships @throws BadLibraryFile */
export function loadStarters(shipped: string): Starters {
  const home = [join(shipped, 'starters')]
  return {
    rulePacks: loadFolder(home, 'rulepacks', rulePackSchema).map((p) => p.value),
    programmes: loadList(home, 'programmes.yaml', programmeList, (p) => p.id).all,
  }
}

const hiddenSchema = strictObject({
  guides: idList(),
  specSheets: idList(),
  rulePacks: idList(),
  programmes: idList(),
})
type Hidden = yup.InferType<typeof hiddenSchema>

/** What a layer takes out of sight that one before it has: visits that rest on it keep it. */
function loadHidden(layers: readonly string[]): Hidden[] {
  return layers
    .filter((layer) => existsSync(join(layer, 'hidden.yaml')))
    .map(
      (layer) =>
        loadYaml(join(layer, 'hidden.yaml'), nameIn(layers, layer, 'hidden.yaml'), hiddenSchema)
          .value,
    )
}

const shownOf = <T extends { readonly id: string }>(
  kind: keyof Hidden,
  entries: readonly T[],
  hidden: readonly Hidden[],
) => entries.filter(({ id }) => !hidden.some((h) => h[kind].includes(id)))

const withoutHidden = (library: Library, hidden: readonly Hidden[]): Library => ({
  ...library,
  guides: shownOf('guides', library.guides, hidden),
  specSheets: shownOf('specSheets', library.specSheets, hidden),
  rulePacks: shownOf('rulePacks', library.rulePacks, hidden),
  programmes: shownOf('programmes', library.programmes, hidden),
})

/** The name of a file for people: of what ships without its directory. */
const nameIn = (layers: readonly string[], layer: string, file: string) =>
  layer === layers[0] ? file : `${basename(layer)}/${file}`

/** Each layer’s file of a list, and the entries that count. */
function loadList<T>(
  layers: readonly string[],
  file: string,
  schema: yup.Schema<T[]>,
  idOf: (entry: T) => string,
): { files: LoadedFile<T[]>[]; all: T[] } {
  const files = layers
    .filter((layer) => existsSync(join(layer, file)))
    .map((layer) => loadYaml(join(layer, file), nameIn(layers, layer, file), schema))
  let all: T[] = []
  for (const loaded of files) {
    const ids = loaded.value.map(idOf)
    all = [...all.filter((e) => !ids.includes(idOf(e))), ...loaded.value]
  }
  return { files, all }
}

/**
 * Versions that were in force before this installation wrote down what was: packs, programmes and
 * procedures, these with everything that they take over written out.
 */
function loadEarlier(layers: readonly string[]): Library['earlier'] {
  const of = <T extends { id: string; version: number }>(folder: string, schema: yup.Schema<T>) =>
    layers.flatMap((layer) =>
      loadFolder([layer], `earlier/${folder}`, schema, (v) => `${v.id}.${v.version}.yaml`).map(
        (f) => f.value,
      ),
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

function loadRulePacks(
  layers: readonly string[],
  known: readonly Procedure[],
): LoadedFile<RulePack>[] {
  const packs = loadFolder(layers, 'rulepacks', rulePackSchema)
  for (const p of packs) refuseIf(p, rulePackFaults(p.value, known))
  return packs
}

function loadProcedures(layers: readonly string[]): Procedure[] {
  const schema = procedureFileSchema as unknown as yup.Schema<ProcedureFile>
  const files = loadFolder(layers, 'procedures', schema)
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
function loadGuides(layers: readonly string[]) {
  const shared = loadFolder(
    layers,
    'guides/shared',
    subGuideSchema as unknown as yup.Schema<SubGuide>,
  )
  const files = loadFolder(layers, 'guides', guideSchema as unknown as yup.Schema<Guide>)
  const subGuides = shared.map((f) => f.value)
  for (const file of files) refuseIf(file, proofOf(file.value, subGuides))
  return { files, guides: files.map((f) => f.value), subGuides }
}

/** The files of a folder in all layers: of each id the one that counts. */
function loadFolder<T extends { id: string }>(
  layers: readonly string[],
  folder: string,
  schema: yup.Schema<T>,
  nameOf: (value: T) => string = (value) => `${value.id}.yaml`,
): LoadedFile<T>[] {
  const byName = new Map<string, LoadedFile<T>>()
  for (const layer of layers.filter((l) => existsSync(join(l, folder)))) {
    const files = readdirSync(join(layer, folder)).filter((f) => f.endsWith('.yaml'))
    for (const f of files) {
      const loaded = loadYaml(
        join(layer, folder, f),
        nameIn(layers, layer, `${folder}/${f}`),
        schema,
      )
      const name = nameOf(loaded.value)
      if (name !== f) {
        throw loaded.refuse([
          {
            path: 'id',
            message: `asks for the file name ${name}, but the file is ${f}: use one name`,
          },
        ])
      }
      byName.set(f, loaded)
    }
  }
  // By the name of the file, as ever: the text of a guide, by which a version is known, lists what it takes over in this
  // order.
  return [...byName.entries()].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, file]) => file)
}

function refuseIf(file: ReturnType<typeof loadYaml>, faults: readonly FieldFault[]): void {
  if (faults.length > 0) throw file.refuse(faults)
}
