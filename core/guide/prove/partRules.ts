import { lubricantAdvice } from '../../craft'
import type { PlacedStep, StepOf } from '../schema/step'
import { partOf, pressureSite, type Rule, type Say, title } from './rule'
import type { ProofState } from './state'
import { piecesOfPart } from '../run/pieces'
import { rubbersOf } from '../run/lubrication'
import type { GuidePart } from '../schema/equipment'
import type { Guide } from '../schema/guide'
import { connectedWith, shutFor, type SiteZone } from '../../pressure'

/** Whether a part is off the equipment, on the tray or thrown away. */
export const isOut = (state: ProofState, part: string) =>
  state.off.has(part) || state.gone.has(part)

/** What lifts: anything else that is put in, as a rag, only protects. */
export const liftingAids = ['eye', 'eyes', 'sling', 'hoist', 'strap', 'chain', 'crane', 'tripod']

/** Two people lift what one may not; else a lifting aid is in. */
function lifted(step: PlacedStep, state: ProofState): boolean {
  if ((step.people ?? 1) >= 2) return true
  return [...state.aids].some((aid) => aid.split('-').some((word) => liftingAids.includes(word)))
}

/** A part comes off. */
export const goesOff: Rule<'remove'> = (guide, step, state, say) => {
  const id = step.remove
  const part = partOf(guide, id)
  if (!part) return
  if (isOut(state, id)) {
    say('removed-twice', `${part.title} is off already: leave one of the two out`)
    return
  }
  const over = part.under?.filter((c) => !isOut(state, c)) ?? []
  if (over.length > 0)
    say(
      'buried',
      `${part.title} cannot come off under ${over.map((c) => title(guide, c)).join(', ')}: take that off first`,
    )
  const live = openedBy(guide, part).filter((z) => !state.proved.has(z.id))
  if (live.length > 0) {
    say(
      'opened-live',
      `${part.title} opens “${part.closes}”; not proved at zero: ${live.map((z) => z.title).join(', ')}. Isolate, vent and prove first`,
    )
  }
  const unlocked = openedBy(guide, part)
    .flatMap((z) => shutFor(pressureSite(guide), z.id))
    .filter((v) => state.shut.has(v) && !state.locked.has(v))
  if (unlocked.length > 0)
    say(
      'unlocked',
      `${part.title} comes off while ${[...new Set(unlocked)].join(', ')} carries no lock or tag: lock it first, with “locked”`,
    )
  if (part.spring && !state.relieved.has(part.spring) && !step.controlled) {
    say(
      'loaded-spring',
      `the spring “${part.spring}” pushes against ${part.title}: relieve it first, or take it off “controlled”`,
    )
  }
  if (part.mass && !lifted(step, state))
    say(
      'heavy',
      `${part.title} is heavy: put a lifting aid in first (${liftingAids.join(', ')}), or give “people”`,
    )
  // What holds neither pressure nor a spring may have to come off so that the rest can be made safe.
  if (step.at === 'make-safe' && (part.closes || part.spring || part.disturbs))
    say(
      'opened-early',
      `${part.title} comes off while it is made safe: give the step “at: open-up”`,
    )
  if (state.power) say('power-on', 'the power is still on: take it off and prove it dead first')
  if (step.mayComeWith && !isOut(state, step.mayComeWith))
    say(
      'with-what-is-on',
      `${part.title} may come away with ${title(guide, step.mayComeWith)}, which is still on: take that off first`,
    )
  const fast = guide.fasteners?.filter((f) => f.holds === id && !state.loose.has(f.id)) ?? []
  if (fast.length > 0)
    say(
      'still-fastened',
      `${part.title} is still held by ${fast.map((f) => f.title).join(', ')}: loosen them first`,
    )
  if (state.onLast.has(id))
    say(
      'unbroken',
      `${part.title} comes off its last bolts, and nobody has seen its joint break without pressure: prove zero once more in between`,
    )
  if (part.disturbs) state.disturbed.add(part.disturbs)
  state.opened = true
  state.tested = false
  state.clean.delete(id)
  // In its bag for the maker it goes back no more than on the scrap.
  if (step.keepFor === 'discard' || step.keepFor === 'warranty') state.gone.add(id)
  else state.off.add(id)
}

/** The zones that taking a part off opens: its own, and what stands in connection with it. */
export function openedBy(guide: Guide, part: GuidePart): SiteZone[] {
  const site = pressureSite(guide)
  const own = site.zones.find((z) => z.id === part.closes)
  return own ? connectedWith(site, own) : []
}

/** A step uses one up of the kit. */
export function fromKit(
  guide: Guide,
  id: string | undefined,
  pieces: number,
  state: ProofState,
  say: Say,
): void {
  const item = guide.kit?.find((k) => k.id === id)
  if (!item) return
  const used = (state.used.get(item.id) ?? 0) + pieces
  state.used.set(item.id, used)
  if (used > item.count)
    say(
      'kit-over',
      `the kit has ${item.count} × ${item.title}, this is number ${used}: correct the count`,
    )
}

/** A part is lubricated. */
export const isGreased: Rule<'lubricate'> = (guide, step, state, say) => {
  const part = partOf(guide, step.lubricate)
  if (!part) return
  // One tube does for several places.
  if (step.from && !state.used.has(step.from)) fromKit(guide, step.from, 1, state, say)
  if (part.dry) say('never-there', `${part.title} never gets lubricant: leave it dry`)
  const rubbers = rubbersOf(guide, part)
  if (rubbers.length > 0) {
    const { contact } = state
    if (!contact) {
      say(
        'no-contact',
        'is lubricated, and what the lubricant touches is not said: give the guide “contact”, as food or fuel',
      )
      return
    }
    for (const rubber of rubbers) {
      const { verdict, reasons } = lubricantAdvice(rubber, step.with, contact)
      if (verdict === 'clash')
        say('lubricant-clash', `${reasons.join(' ')} Choose another for ${part.title}`)
    }
  }
  if (state.off.has(part.id) && !state.clean.has(part.id)) {
    say('greased-dirty', `${part.title} is lubricated before it was cleaned: clean it first`)
  }
}

/** A compound goes on a thread or an edge. */
export const isTreated: Rule<'treat'> = (guide, step, state, say) => {
  const id = step.treat
  if (partOf(guide, id)?.dry)
    say('never-there', `${title(guide, id)} stays dry: put the compound on its mate`)
  const fastener = guide.fasteners?.find((f) => f.id === id)
  if (fastener && !state.loose.has(id))
    say(
      'treated-tight',
      `${fastener.title} get compound while they are tight: put it on before they go in`,
    )
  state.treated.add(id)
}

/** A new part takes the place of the old one. */
export const isRenewed: Rule<'renew'> = (guide, step, state, say) => {
  const id = step.renew
  if (!isOut(state, id)) {
    say(
      'renewed-in-place',
      `a new ${title(guide, id)} is put in while the old one is in: remove it first`,
    )
  }
  if (state.off.has(id))
    say(
      'old-kept',
      `the old ${title(guide, id)} still lies with what goes back: throw it away first, with “discard”`,
    )
  const item = guide.kit?.find((k) => k.id === step.from)
  if (item && !item.parts?.includes(id))
    say(
      'kit-of-another',
      `${item.title} is for another part than ${title(guide, id)}: take the right one, or add it to “parts” of the kit`,
    )
  fromKit(guide, step.from, piecesOfPart(guide, id), state, say)
  goesIn(guide, id, step, state, say)
  state.off.delete(id)
  state.gone.delete(id)
  state.renewed.add(id)
}

/** A part goes back as it was. */
export const goesBack: Rule<'fit'> = (guide, step, state, say) => {
  const id = step.fit
  if (state.gone.has(id)) {
    say('fitted-discarded', `${title(guide, id)} was thrown away: renew it from the kit`)
    state.gone.delete(id)
    return
  }
  if (!state.off.delete(id)) {
    say('fitted-twice', `${title(guide, id)} is fitted, but is not off: leave one of the two out`)
    return
  }
  const finding = state.inspected.get(id)
  if (finding === 'renew')
    say(
      'worn-refitted',
      `${title(guide, id)} was found worn and is put back: renew it under that finding`,
    )
  goesIn(guide, id, step, state, say)
  state.refitted.add(id)
}

/** What holds for a part that goes in, old or new. */
function goesIn(
  guide: Guide,
  id: string,
  step: StepOf<'renew' | 'fit'>,
  state: ProofState,
  say: Say,
): void {
  const part = partOf(guide, id)
  if (part?.mass && !lifted(step, state))
    say(
      'heavy',
      `${part.title} is heavy: put a lifting aid in first (${liftingAids.join(', ')}), or give “people”`,
    )
  if (part?.orient && !step.orient) {
    say(
      'no-orientation',
      `${part.title} can go in the wrong way round: give “orient”, which the step asks to confirm`,
    )
  }
  const beneath = guide.parts.filter((p) => p.under?.includes(id) && isOut(state, p.id))
  if (beneath.length > 0) {
    say(
      'buried-missing',
      `${part?.title ?? id} goes on while ${beneath.map((p) => p.title).join(', ')} is still off: fit that first`,
    )
  }
}
