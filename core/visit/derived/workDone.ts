import { elementOf, type Library } from '../../library'
import type { PayloadOf } from '../log/events'
import { guideOfVisit, kitOfVisit, runOfGuide } from './guide'
import type { VisitState } from '../log/state'

/** What the record of a guide says of the repair: a draft of its entry. */
export type WorkDone = Pick<PayloadOf<'repair'>, 'text' | 'parts'> & {
  readonly services: { element: string; service: 'cleaned' | 'renewed' }[]
}

/** Parts renewed with their numbers, parts cleaned, in words and by their place on the drawing. */
export function workDone(state: VisitState, library: Library): WorkDone {
  const guide = guideOfVisit(state, library)?.guide
  const run = runOfGuide(state, library)
  const kit = kitOfVisit(state, library)
  const partOf = (id: string | undefined) => guide?.parts.find((p) => p.id === id)
  const done = run?.steps.filter((s) => run.done.has(s.id)) ?? []
  const renewed = done.flatMap((s) => partOf(s.renew) ?? [])
  // Everything is wiped before it is lubricated; what counts is what was found fouled.
  const cleaned = done.flatMap((s) => (s.when ? (partOf(s.clean) ?? []) : []))
  const services = new Map<string, 'cleaned' | 'renewed'>()
  const note = (service: 'cleaned' | 'renewed') => (part: { readonly id: string }) => {
    const element = guide && elementOf(library, guide, part.id)
    if (element) services.set(element, service)
  }
  cleaned.forEach(note('cleaned'))
  renewed.forEach(note('renewed'))
  const used = new Map<string, number>()
  for (const { from } of done) if (from) used.set(from, (used.get(from) ?? 0) + 1)
  const untouched = renewed.length === 0 && cleaned.length === 0 && done.some((s) => s.remove)
  const list = (parts: readonly { title: string }[]) => parts.map((p) => p.title).join(', ')
  return {
    text: [
      renewed.length > 0 ? `Renewed: ${list(renewed)}.` : '',
      cleaned.length > 0 ? `Cleaned: ${list(cleaned)}.` : '',
      untouched ? 'Opened, looked at and put back: nothing renewed.' : '',
    ]
      .filter(Boolean)
      .join(' '),
    parts: [...used].map(([item, quantity]) => {
      const number = kit?.items.find((i) => i.item === item)?.number
      const name = guide?.kit?.find((k) => k.id === item)?.title ?? item
      return { name, quantity, ...(number ? { number } : {}) }
    }),
    services: [...services].map(([element, service]) => ({ element, service })),
  }
}
