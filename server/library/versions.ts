import { createHash } from 'node:crypto'
import { canonicalJson } from '@uvanta/core/visit'
import type { FamilyPolicy, Programme } from '@uvanta/core/catalogue'
import type { Library, SpecSheet } from '@uvanta/core/library'
import type { Procedure } from '@uvanta/core/procedure'
import type { RulePack } from '@uvanta/core/rules'
import type { GuideText, SubGuide } from '@uvanta/core/guide'
import type { DateTime } from 'luxon'
import { BadLibraryFile } from './yamlFile'
import type { Database } from '../store/database'
import type { LibraryVersionRow } from '../store/tables'

type Kept = Pick<LibraryVersionRow, 'kind' | 'id' | 'version' | 'hash' | 'content'>

const kept = (kind: Kept['kind'], id: string, version: number, content: object): Kept => {
  const text = canonicalJson(content)
  const hash = createHash('sha256').update(text).digest('hex')
  return { kind, id, version, hash, content: text }
}

/** A guide together with the sub-guides that it takes steps from, theirs included. */
export function textOf(guide: GuideText['guide'], subGuides: readonly SubGuide[]): GuideText {
  const wanted = new Set<string>()
  const look = (steps: GuideText['guide']['steps']) => {
    for (const step of steps) {
      if (step.repeat) look(step.repeat)
      if (!step.include || wanted.has(step.include)) continue
      wanted.add(step.include)
      const sub = subGuides.find((s) => s.id === step.include)
      if (sub) look(sub.steps)
    }
  }
  look(guide.steps)
  return { guide, subGuides: subGuides.filter((s) => wanted.has(s.id)) }
}

/** Remembers a version that was in force before this installation knew of it. */
export async function keepEarlier(db: Database, text: GuideText, at: Date): Promise<void> {
  const { id, version } = text.guide
  await db.libraryVersions.bulkCreate([{ ...kept('guide', id, version, text), firstSeenAt: at }], {
    ignoreDuplicates: true,
  })
}

/** Where the author of an entry mends it. */
const fileOf: Readonly<Record<Kept['kind'], (id: string) => string>> = {
  guide: (id) => `guides/${id}.yaml`,
  'spec-sheet': (id) => `specsheets/${id}.yaml`,
  procedure: (id) => `procedures/${id}.yaml`,
  'rule-pack': (id) => `rulepacks/${id}.yaml`,
  family: () => 'families.yaml',
  programme: () => 'programmes.yaml',
  policy: () => 'policies.yaml',
}

const entriesOf = (library: Omit<Library, 'earlier'>): Kept[] => [
  ...library.guides.map((g) => kept('guide', g.id, g.version, textOf(g, library.subGuides))),
  ...library.specSheets.map((s) => kept('spec-sheet', s.id, s.version, s)),
  ...library.procedures.map((p) => kept('procedure', p.id, p.version, p)),
  ...library.rulePacks.map((p) => kept('rule-pack', p.id, p.version, p)),
  ...library.families.map((f) => kept('family', f.id, f.version, f)),
  ...library.programmes.map((p) => kept('programme', p.id, p.version, p)),
  ...library.policies.map((p) => kept('policy', p.family, p.version, p)),
]

/** The versions that the library ships as no longer in force. */
const shippedEarlier = ({ earlier }: Library): Kept[] => [
  ...earlier.procedures.map((p) => kept('procedure', p.id, p.version, p)),
  ...earlier.rulePacks.map((p) => kept('rule-pack', p.id, p.version, p)),
  ...earlier.programmes.map((p) => kept('programme', p.id, p.version, p)),
]

/**
 * Remembers every version of everything that comes into force, and adds to the library those that no
 * longer are: what a visit rests on stays readable by id and version, whatever becomes of the files.
 * @throws BadLibraryFile when a version that was in force comes with another text
 */
export async function keepVersions(
  db: Database,
  library: Library,
  now: DateTime<true>,
): Promise<Library> {
  const inForce = entriesOf(library)
  const shipped = [...inForce, ...shippedEarlier(library)]
  const known = await db.libraryVersions.findAll()
  const key = (v: Pick<Kept, 'kind' | 'id' | 'version'>) => `${v.kind} ${v.id} ${v.version}`
  const byKey = new Map<string, Kept>(known.map((row) => [key(row), row]))
  const changed = shipped.find((v) => (byKey.get(key(v))?.hash ?? v.hash) !== v.hash)
  if (changed) {
    const part =
      changed.kind === 'guide' || changed.kind === 'procedure' ? ', or a step it takes over,' : ''
    throw new BadLibraryFile(fileOf[changed.kind](changed.id), [
      {
        line: 1,
        message: `“${changed.id}” in version ${changed.version} was in force with another text. It${part} was changed: raise its version`,
      },
    ])
  }
  const fresh = shipped.filter((v) => !byKey.has(key(v)))
  await db.libraryVersions.bulkCreate(
    fresh.map((v) => ({ ...v, firstSeenAt: now.toJSDate() })),
    { ignoreDuplicates: true },
  )
  const current = new Set(inForce.map(key))
  const past = [...byKey.values(), ...fresh].filter((v) => !current.has(key(v)))
  const contents = <T>(kind: Kept['kind']) =>
    past.filter((v) => v.kind === kind).map((v) => JSON.parse(v.content) as T)
  return {
    ...library,
    earlier: {
      guides: contents<GuideText>('guide'),
      specSheets: contents<SpecSheet>('spec-sheet'),
      procedures: contents<Procedure>('procedure'),
      rulePacks: contents<RulePack>('rule-pack'),
      programmes: contents<Programme>('programme'),
      policies: contents<FamilyPolicy>('policy'),
    },
  }
}
