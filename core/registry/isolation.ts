import * as yup from 'yup'
import { type Opening, openings } from '../apparatus'
import { guideRun, storedEnergy } from '../guide'
import { planIsolation, type IsolationSite, siteOf, spaceStates } from '../pressure'
import { guideOf, type Library } from '../library'
import { line, slug, strictObject } from '../schema'
import { CannotCompute } from '../errors'
import { computation } from './computation'

const subject = {
  /** Kind of equipment, as RP or “pilot regulator”. */
  kind: line(30).required(),
  /** The job guide; without one the whole inside of an assembly is made safe. */
  guide: slug(),
}
const SOURCE =
  'Reachability on the equipment’s spaces, checks passing forward only; order of shutting in by the practice of the trade.'

/** Positions of valves by name: `{ "shutoff-2": "shut" }`. */
const positions = () =>
  yup
    .mixed<Readonly<Record<string, Opening>>>()
    .test('positions', `must give one of ${openings.join(', ')} for each valve`, (v) =>
      Object.values(v ?? {}).every((o) => openings.includes(o)),
    )

/** @throws CannotCompute when there is nothing to make safe */
function subjectOf(library: Library, kind: string, guideId: string | undefined) {
  const guide = guideId ? guideOf(library, guideId) : undefined
  const site = siteOf(guide, kind)
  if (site) return { guide, site }
  throw new CannotCompute(
    'spaces-unknown',
    `Nothing is known of where “${kind}” holds pressure.`,
    'Name its job guide.',
  )
}

function checkValves(site: IsolationSite, named: readonly string[]): void {
  const unknown = named.filter((id) => !site.valves.some((v) => v.id === id))
  if (unknown.length === 0) return
  const known = site.valves.map((v) => v.id).join(', ')
  throw new CannotCompute(
    'valve-unknown',
    `There is no valve “${unknown.join(', ')}”.`,
    `Choose from ${known}.`,
  )
}

export const zones = computation({
  name: 'zones',
  title: 'Which spaces are under pressure',
  summary:
    'Of every space of a piece of equipment: live, trapped, vented or proved, by how its valves stand.',
  source: SOURCE,
  input: strictObject({
    ...subject,
    openings: positions(),
    proved: yup.array(slug().required()).strict(true).max(20),
  }),
  output: yup.object({ spaces: yup.array().required() }),
  example: { kind: 'RP', openings: { 'shutoff-1': 'shut', 'shutoff-2': 'shut' } },
  run({ kind, guide, openings: given = {}, proved = [] }, library) {
    const { site } = subjectOf(library, kind, guide)
    checkValves(site, Object.keys(given))
    const states = spaceStates(site, given, proved)
    return { spaces: site.spaces.map((s) => ({ ...s, state: states[s.id] })) }
  },
})

export const isolationPlan = computation({
  name: 'plan-isolation',
  title: 'Plan making safe',
  summary:
    'What is shut, vented and proved, in which order, how fast and how far; what stays shut because it is live; where energy is stored.',
  source: SOURCE,
  input: strictObject({ ...subject, variant: slug() }),
  output: yup.object({
    moves: yup.array().required(),
    leftAlone: yup.array().required(),
    stored: yup.array().required(),
  }),
  example: { kind: 'RP', guide: 'cartridge-check' },
  run({ kind, guide: guideId, variant }, library) {
    const { guide, site } = subjectOf(library, kind, guideId)
    if (!guide) return { ...planIsolation(site), stored: [] }
    const chosen = guide.variants.find((v) => v.id === (variant ?? guide.variants[0]?.id))
    if (!chosen) {
      const known = guide.variants.map((v) => v.id).join(', ')
      throw new CannotCompute(
        'variant-unknown',
        `The guide has no variant “${variant}”.`,
        `Choose one of ${known}.`,
      )
    }
    const { steps } = guideRun(guide, library.subGuides, chosen.id, [])
    return { ...planIsolation(site, steps), stored: storedEnergy(guide, steps) }
  },
})
