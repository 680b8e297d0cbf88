import { createHash } from 'node:crypto'
import { canonicalJson } from '@uvanta/core/visit'
import type { Library, SpecSheet } from '@uvanta/core/library'
import type { GuideText, SubGuide } from '@uvanta/core/guide'
import type { DateTime } from 'luxon'
import { BadLibraryFile } from '../library/yamlFile'
import type { Database } from '../store/database'
import type { LibraryVersionRow } from '../store/rows'

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

/**
 * Remembers every version of a guide or spec sheet that comes into force, and adds to the library
 * those that no longer are: a visit keeps the version with which it was begun.
 * @throws BadLibraryFile when a version that was in force comes with another text
 */
export async function keepVersions(
  db: Database,
  library: Library,
  now: DateTime<true>,
): Promise<Library> {
  const inForce = [
    ...library.guides.map((g) => kept('guide', g.id, g.version, textOf(g, library.subGuides))),
    ...library.specSheets.map((s) => kept('spec-sheet', s.id, s.version, s)),
  ]
  const known = await db.libraryVersions.findAll()
  const key = (v: Pick<Kept, 'kind' | 'id' | 'version'>) => `${v.kind} ${v.id} ${v.version}`
  const byKey = new Map(known.map((row) => [key(row), row]))
  const changed = inForce.find((v) => (byKey.get(key(v))?.hash ?? v.hash) !== v.hash)
  if (changed) {
    const folder = changed.kind === 'guide' ? 'guides' : 'specsheets'
    const part = changed.kind === 'guide' ? ', or a step it shares,' : ''
    throw new BadLibraryFile(`${folder}/${changed.id}.yaml`, [
      {
        line: 1,
        message: `version ${changed.version} was in force with another text. It${part} was changed: raise its version`,
      },
    ])
  }
  const fresh = inForce.filter((v) => !byKey.has(key(v)))
  await db.libraryVersions.bulkCreate(
    fresh.map((v) => ({ ...v, firstSeenAt: now.toJSDate() })),
    { ignoreDuplicates: true },
  )
  const current = new Set(inForce.map(key))
  const past = known.filter((row) => !current.has(key(row)))
  const contents = <T>(kind: Kept['kind']) =>
    past.filter((row) => row.kind === kind).map((row) => JSON.parse(row.content) as T)
  return {
    ...library,
    earlier: {
      guides: contents<GuideText>('guide'),
      specSheets: contents<SpecSheet>('spec-sheet'),
    },
  }
}
