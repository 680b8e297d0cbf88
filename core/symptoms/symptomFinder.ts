import MiniSearch from 'minisearch'
import type { Guide } from '../guide'
import type { Library } from '../library'
import type { Machine } from '../machine'
import { pointsTo } from './pointsTo'
import { symptomWords } from './synonyms'

/** A symptom that fits what was seen, with where to look and what to do. */
export interface FoundSymptom {
  readonly id: string
  readonly machine: Pick<Machine, 'id' | 'title'>
  readonly sign: string
  /** The likeliest part first. */
  readonly parts: readonly {
    readonly id: string
    readonly title: string
    readonly element?: string
  }[]
  /** What is done first: the cheapest. */
  readonly first?: string
  /** Items of a field test that tell of one of these parts. */
  readonly checks: readonly { readonly item: string; readonly title: string }[]
  readonly guides: readonly Pick<Guide, 'id' | 'title'>[]
}

interface Indexed extends FoundSymptom {
  readonly families: readonly string[]
  readonly words: string
  readonly names: string
}

/** So many are shown: what stands further down fits too loosely. */
const MOST = 12
/** What fits less than this part of the best is another thing. */
const LEAST = 0.35

/**
 * Makes the search over everything that the machines of a library show: by what is seen, in whatever words, and by what
 * people call parts and machines. It asks nobody, and works without a line.
 * @returns a search that answers the best first; of one family alone where it is named
 */
export function symptomFinder(
  library: Pick<Library, 'machines' | 'guides' | 'families' | 'rulePacks'>,
): (seen: string, family?: string) => FoundSymptom[] {
  const all = library.machines.flatMap((machine) => symptomsOf(library, machine))
  const byId = new Map(all.map((s) => [s.id, s]))
  const index = new MiniSearch<Indexed>({
    fields: ['words', 'names'],
    tokenize: symptomWords,
    processTerm: (term) => term,
    searchOptions: { boost: { words: 3 }, prefix: (term) => term.length > 3, fuzzy: 0.2 },
  })
  index.addAll(all)
  return (seen, family) => {
    const found = index.search(seen).flatMap(({ id, score }) => {
      const symptom = byId.get(id as string)
      return symptom && (!family || symptom.families.includes(family)) ? [{ symptom, score }] : []
    })
    const best = found[0]?.score ?? 0
    return found
      .filter(({ score }) => score >= LEAST * best)
      .slice(0, MOST)
      .map(({ symptom }) => symptom)
  }
}

type Searched = Parameters<typeof symptomFinder>[0]

function symptomsOf(library: Searched, machine: Machine): Indexed[] {
  const kinds = library.families
    .filter((f) => machine.families.includes(f.id))
    .flatMap((f) => f.kinds)
  const guides = library.guides
    .filter((g) => g.machine === machine.id)
    .map(({ id, title }) => ({ id, title }))
  return (machine.symptoms ?? []).map(({ sign, look, first }, n) => {
    const parts = look.flatMap((id) => {
      const part = machine.parts.find((p) => p.id === id)
      return part
        ? [{ id, title: part.title, ...(part.element ? { element: part.element } : {}) }]
        : []
    })
    const called = machine.parts
      .filter((p) => look.includes(p.id))
      .flatMap((p) => [p.title, ...(p.also ?? [])])
    return {
      id: `${machine.id} ${n}`,
      machine: { id: machine.id, title: machine.title },
      sign,
      parts,
      ...(first ? { first } : {}),
      checks: checksOf(library, kinds, parts),
      guides,
      families: machine.families,
      words: sign,
      names: [machine.title, ...(machine.also ?? []), ...called].join(' '),
    }
  })
}

/** Items of the packs that point to one of the parts, the likeliest part first. */
function checksOf(
  { rulePacks }: Searched,
  kinds: readonly string[],
  parts: FoundSymptom['parts'],
): FoundSymptom['checks'] {
  const items = new Map<string, string>()
  for (const { element } of parts)
    for (const test of rulePacks.flatMap((p) => p.tests))
      if (element && kinds.includes(test.kind))
        for (const { id, title } of test.items)
          if (pointsTo(test.kind, id).includes(element)) items.set(id, title)
  return [...items].map(([item, title]) => ({ item, title }))
}
