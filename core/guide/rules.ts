import { lubricantAdvice } from '../craft'
import type { PlacedStep } from './expand'
import type { ProofState } from './state'
import { type Guide, type GuidePart, type Verb, verbOf } from './types'

/** Says what is wrong: short name of the rule, and the sentence with its remedy. */
type Say = (rule: string, message: string) => void
type Rule = (guide: Guide, step: PlacedStep, state: ProofState, say: Say) => void

const partOf = (guide: Guide, id: string | undefined): GuidePart | undefined =>
  guide.parts.find((p) => p.id === id)
const title = (guide: Guide, id: string) => partOf(guide, id)?.title ?? id

/** Work in which hands are in the equipment. */
const HANDS: readonly Verb[] = [
  'remove',
  'discard',
  'inspect',
  'clean',
  'lubricate',
  'renew',
  'fit',
]

/** Takes one step: what it presupposes is checked, what it does is noted. */
export function takeStep(guide: Guide, step: PlacedStep, state: ProofState, say: Say): void {
  const verb = verbOf(step)
  if (!verb) return
  if (HANDS.includes(verb) && state.air && !step.withAir) {
    say(
      'air-on',
      'hands go in while the air is on: take the air off first, or say “withAir” where it must be on',
    )
  }
  if (step.withAir && !state.air) {
    say('air-missing', 'needs the air on, and it is off: put it on in a step before')
  }
  rules[verb]?.(guide, step, state, say)
}

const rules: Partial<Record<Verb, Rule>> = {
  gate(_guide, step, state) {
    if (step.gate) state.gates.add(step.gate)
  },
  isolate(guide, step, state, say) {
    if (guide.service === 'gas' && !state.gates.has('qualified')) {
      say(
        'unqualified',
        'gas is shut in before the qualified person is confirmed: put the gate “qualified” first',
      )
    }
    if (step.isolate) state.shut.add(step.isolate)
  },
  reopen(guide, step, state, say) {
    const valve = step.reopen ?? ''
    if (!state.shut.delete(valve))
      say('not-shut', `“${valve}” is opened and was never shut: mend the name`)
    for (const zone of guide.zones ?? []) {
      if (!zone.shutBy.includes(valve)) continue
      state.proved.delete(zone.id)
      const open = guide.parts.filter((p) => p.closes === zone.id && isOut(state, p.id))
      for (const p of open) {
        say(
          'pressure-into-open',
          `pressure comes back into ${zone.title} while ${p.title} is off: fit it first`,
        )
      }
    }
  },
  vent(guide, step, state, say) {
    for (const cock of step.vent ?? []) {
      for (const zone of guide.zones ?? []) {
        if (zone.neverVentedBy?.includes(cock)) {
          say('live-vent', `“${cock}” is live and stays shut: take it off the list`)
        }
        const open = zone.shutBy.filter((v) => !state.shut.has(v))
        if (zone.ventedBy.includes(cock) && open.length > 0) {
          say(
            'vent-unshut',
            `“${cock}” is opened while ${zone.title} is still fed by ${open.join(', ')}: shut it first`,
          )
        }
      }
      state.openVents.add(cock)
    }
  },
  shut(_guide, step, state) {
    for (const cock of step.shut ?? []) state.openVents.delete(cock)
  },
  prove(guide, step, state, say) {
    const zone = guide.zones?.find((z) => z.id === step.prove)
    if (!zone) return
    const fed = zone.shutBy.filter((v) => !state.shut.has(v))
    if (fed.length > 0)
      say('prove-fed', `${zone.title} cannot be proved: ${fed.join(', ')} is open. Shut it first`)
    if (!zone.ventedBy.some((v) => state.openVents.has(v))) {
      say(
        'prove-unvented',
        `${zone.title} cannot be proved: nothing of ${zone.ventedBy.join(', ')} is open. Vent it first`,
      )
    }
    state.proved.add(zone.id)
  },
  relieve(_guide, step, state) {
    if (step.relieve) state.relieved.add(step.relieve)
  },
  snapshot(_guide, step, state, say) {
    const id = step.snapshot ?? ''
    if (state.disturbed.has(id))
      say(
        'snapshot-late',
        `the as-found setting of “${id}” is taken after it was disturbed: take it before`,
      )
    state.snapshots.add(id)
  },
  restore(_guide, step, state, say) {
    const id = step.restore ?? ''
    if (!state.snapshots.delete(id))
      say(
        'restore-unknown',
        `“${id}” is restored, but its as-found setting was never taken: add a snapshot before`,
      )
    state.disturbed.delete(id)
  },
  set(_guide, step, state) {
    state.disturbed.delete(step.set ?? '')
  },
  mark(_guide, step, state) {
    state.marks.add(step.mark ?? '')
  },
  match(_guide, step, state, say) {
    if (!state.marks.delete(step.match ?? ''))
      say(
        'match-unmarked',
        `the joint “${step.match}” was never marked: add a witness mark before it is opened`,
      )
  },
  air(_guide, step, state) {
    state.air = step.air === 'on'
  },
  power(_guide, step, state) {
    state.power = step.power === 'on'
  },
  liftIn(_guide, step, state, say) {
    const aid = step.liftIn ?? ''
    if (state.aids.has(aid)) say('aid-twice', `“${aid}” is in already: take it out in between`)
    state.aids.add(aid)
  },
  liftOut(_guide, step, state, say) {
    if (!state.aids.delete(step.liftOut ?? ''))
      say('aid-unknown', `“${step.liftOut}” comes out and was never put in`)
  },
  loosen(_guide, step, state) {
    state.loose.add(step.loosen ?? '')
  },
  remove: takeOff,
  discard(guide, step, state, say) {
    const id = step.discard ?? ''
    if (!state.off.delete(id))
      say('discard-fitted', `${title(guide, id)} is thrown away, but is not off: remove it first`)
    state.gone.add(id)
  },
  inspect(guide, step, state, say) {
    const id = step.inspect ?? ''
    const covered = partOf(guide, id)?.under?.filter((c) => !isOut(state, c)) ?? []
    if (covered.length > 0)
      say(
        'inspect-hidden',
        `${title(guide, id)} is looked at while ${covered.map((c) => title(guide, c)).join(', ')} is still over it`,
      )
  },
  clean(_guide, step, state) {
    state.clean.add(step.clean ?? '')
  },
  lubricate: grease,
  renew: putNew,
  fit: putBack,
  tighten(guide, step, state, say) {
    const id = step.tighten ?? ''
    const holds = guide.fasteners?.find((f) => f.id === id)?.holds ?? ''
    if (isOut(state, holds))
      say('tightened-nothing', `is tightened while ${title(guide, holds)} is off: fit it first`)
    state.loose.delete(id)
  },
  test(guide, _step, state, say) {
    const out = [...state.off, ...state.gone]
    if (out.length > 0)
      say('tested-open', `is tested while ${out.map((p) => title(guide, p)).join(', ')} is off`)
    state.tested = true
  },
  temporary(_guide, step, state, say) {
    if (!state.gates.has('permission'))
      say('temporary-unpermitted', 'a temporary repair needs the gate “permission” before it')
    if (!step.expires)
      say(
        'temporary-endless',
        'a temporary repair needs “expires”: the date by which it is renewed',
      )
    state.temporary = true
  },
}

const isOut = (state: ProofState, part: string) => state.off.has(part) || state.gone.has(part)

function takeOff(guide: Guide, step: PlacedStep, state: ProofState, say: Say): void {
  const id = step.remove ?? ''
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
  if (part.closes && !state.proved.has(part.closes)) {
    say(
      'opened-live',
      `${part.title} opens “${part.closes}”, which is not proved at zero: isolate, vent and prove it first`,
    )
  }
  if (part.spring && !state.relieved.has(part.spring) && !step.controlled) {
    say(
      'loaded-spring',
      `the spring “${part.spring}” pushes against ${part.title}: relieve it first, or take it off “controlled”`,
    )
  }
  if (part.mass && state.aids.size === 0)
    say('heavy', `${part.title} is heavy: put a lifting aid in first`)
  if (state.power) say('power-on', 'the power is still on: take it off and prove it dead first')
  const fast = guide.fasteners?.filter((f) => f.holds === id && !state.loose.has(f.id)) ?? []
  if (fast.length > 0)
    say(
      'still-fastened',
      `${part.title} is still held by ${fast.map((f) => f.title).join(', ')}: loosen them first`,
    )
  if (part.disturbs) state.disturbed.add(part.disturbs)
  state.opened = true
  state.tested = false
  state.clean.delete(id)
  if (step.keepFor === 'discard') state.gone.add(id)
  else state.off.add(id)
}

function grease(guide: Guide, step: PlacedStep, state: ProofState, say: Say): void {
  const part = partOf(guide, step.lubricate)
  if (!part || !step.with) return
  if (part.dry) say('never-there', `${part.title} never gets lubricant: leave it dry`)
  if (part.rubber) {
    const { verdict, reasons } = lubricantAdvice(part.rubber, step.with, 'air')
    if (verdict === 'clash')
      say('lubricant-clash', `${reasons.join(' ')} Choose another for ${part.title}`)
  }
  if (state.off.has(part.id) && !state.clean.has(part.id)) {
    say('greased-dirty', `${part.title} is lubricated before it was cleaned: clean it first`)
  }
}

function putNew(guide: Guide, step: PlacedStep, state: ProofState, say: Say): void {
  const id = step.renew ?? ''
  if (!isOut(state, id)) {
    say(
      'renewed-in-place',
      `a new ${title(guide, id)} is put in while the old one is in: remove it first`,
    )
  }
  const item = guide.kit?.find((k) => k.id === step.from)
  if (item) {
    const used = (state.used.get(item.id) ?? 0) + 1
    state.used.set(item.id, used)
    if (used > item.count)
      say(
        'kit-over',
        `the kit has ${item.count} × ${item.title}, this is number ${used}: correct the count`,
      )
  }
  goesIn(guide, id, step, state, say)
  state.off.delete(id)
  state.gone.delete(id)
}

function putBack(guide: Guide, step: PlacedStep, state: ProofState, say: Say): void {
  const id = step.fit ?? ''
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
}

/** What holds for a part that goes in, old or new. */
function goesIn(guide: Guide, id: string, step: PlacedStep, state: ProofState, say: Say): void {
  const part = partOf(guide, id)
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

/** What must not be when a guide ends. */
export function endFaults(guide: Guide, state: ProofState, say: Say): void {
  for (const p of state.off)
    say('left-on-tray', `${title(guide, p)} is left on the tray: fit it, or discard and renew it`)
  for (const p of state.gone)
    say(
      'not-renewed',
      `${title(guide, p)} was thrown away and never renewed: add “renew” from the kit`,
    )
  for (const f of state.loose) {
    const fastener = guide.fasteners?.find((x) => x.id === f)
    say('left-loose', `${fastener?.title ?? f} is loosened and never tightened`)
  }
  for (const a of state.aids) say('aid-left', `“${a}” is left in: take it out`)
  for (const a of state.disturbed)
    say('not-set', `the setting “${a}” was disturbed and never set again`)
  for (const a of state.snapshots)
    say('not-restored', `the as-found setting “${a}” is never restored`)
  for (const m of state.marks) say('mark-unmatched', `the witness mark “${m}” is never matched`)
  for (const v of state.shut) say('left-shut', `“${v}” is shut and never opened again`)
  for (const v of state.openVents) say('vent-open', `“${v}” is opened and never shut again`)
  if (state.air) say('air-left-on', 'the air is left on')
  if (!state.power && guide.steps.some((s) => s.power !== undefined))
    say('power-left-off', 'the power is never put on again')
  if (state.opened && !state.tested)
    say('untested', 'something was opened and no function test follows: add “test”')
}
