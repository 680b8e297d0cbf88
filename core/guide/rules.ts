import type { PlacedStep } from './expand'
import { goesBack, goesOff, isOut, isGreased, isRenewed, isTreated } from './partRules'
import { partOf, type Rule, type Say, title } from './rule'
import type { ProofState } from './state'
import { type Verb, verbOf } from './step'
import type { Guide } from './types'
import { shutFor } from './zones'

/** Work in which hands are in the equipment. */
const HANDS: readonly Verb[] = [
  'remove',
  'discard',
  'inspect',
  'clean',
  'lubricate',
  'treat',
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
  if (step.redoFrom) {
    const at = state.named.get(step.redoFrom)
    if (at !== step.at)
      say(
        'redo-nowhere',
        at
          ? `“${step.redoFrom}” is at ${at}: work is taken up again within a station`
          : `no step before is named “${step.redoFrom}”: name the one to take up again`,
      )
  }
  if (step.name) state.named.set(step.name, step.at)
  rules[verb]?.(guide, step, state, say)
}

const rules: Partial<Record<Verb, Rule>> = {
  gate(_guide, step, state) {
    if (step.gate) state.gates.add(step.gate)
  },
  isolate(_guide, step, state, say) {
    if (state.service === 'gas' && !state.gates.has('qualified')) {
      say(
        'unqualified',
        'gas is shut in before the qualified person is confirmed: put the gate “qualified” first',
      )
    }
    if (step.isolate) state.shut.add(step.isolate)
  },
  reopen(guide, step, state, say) {
    const valve = step.reopen ?? ''
    const wasCracked = state.cracked.delete(valve)
    if (!state.shut.delete(valve) && !wasCracked)
      say('not-shut', `“${valve}” is opened and was never shut: mend the name`)
    if (step.degree === 'crack' || step.degree === 'half') state.cracked.add(valve)
    for (const zone of guide.zones ?? []) {
      if (!shutFor(guide.zones ?? [], zone.id).includes(valve)) continue
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
        const open = shutFor(guide.zones ?? [], zone.id).filter((v) => !state.shut.has(v))
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
    const fed = shutFor(guide.zones ?? [], zone.id).filter((v) => !state.shut.has(v))
    if (fed.length > 0)
      say('prove-fed', `${zone.title} cannot be proved: ${fed.join(', ')} is open. Shut it first`)
    // Each of its vents: what stands behind a check or a seat is not emptied through another’s.
    const unopened = zone.ventedBy.filter((v) => !state.openVents.has(v))
    if (unopened.length > 0) {
      say(
        'prove-unvented',
        `${zone.title} cannot be proved: ${unopened.join(', ')} is still shut and may hold pressure behind it. Vent it first`,
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
  air(_guide, step, state, say) {
    const on = step.air === 'on'
    if (on === state.air)
      say('air-twice', `the air is put ${step.air} and is ${step.air} already: a step is missing`)
    state.air = on
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
  remove: goesOff,
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
  lubricate: isGreased,
  treat: isTreated,
  renew: isRenewed,
  fit: goesBack,
  tighten(guide, step, state, say) {
    const id = step.tighten ?? ''
    const holds = guide.fasteners?.find((f) => f.id === id)?.holds ?? ''
    if (isOut(state, holds))
      say('tightened-nothing', `is tightened while ${title(guide, holds)} is off: fit it first`)
    const treated = state.treated.delete(id)
    if (step.to?.thread === 'treated' && !treated)
      say(
        'dry-thread',
        'is tightened to the figure for a treated thread, and nothing was put on it: add “treat”',
      )
    if (step.to?.thread === 'dry' && treated)
      say(
        'greased-thread',
        'is tightened to the figure for a dry thread with compound on it: it would be overstretched',
      )
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
  for (const v of state.cracked)
    say('left-cracked', `“${v}” is opened in part and never fully: add a step that opens it`)
  for (const v of state.openVents) say('vent-open', `“${v}” is opened and never shut again`)
  if (state.air) say('air-left-on', 'the air is left on')
  if (!state.power && guide.steps.some((s) => s.power !== undefined))
    say('power-left-off', 'the power is never put on again')
  if (state.opened && !state.tested)
    say('untested', 'something was opened and no function test follows: add “test”')
}
