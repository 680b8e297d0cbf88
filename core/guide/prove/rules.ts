import { needsHands } from '../run/standing'
import type { PlacedStep } from '../schema/step'
import { outsetFaults } from './outset'
import {
  fromKit,
  goesBack,
  goesOff,
  isOut,
  isGreased,
  isRenewed,
  isTreated,
  openedBy,
} from './partRules'
import { fedBy, partOf, pressureSite, type Rule, type Say, title } from './rule'
import type { ProofState } from './state'
import type { PlacedVerb, StepOf } from '../schema/step'
import type { GuideZone } from '../schema/equipment'
import type { Guide } from '../schema/guide'
import { shutFor } from '../../pressure'

/** From here a check that failed may lead back to open-up. */
const OPEN_AGAIN: readonly PlacedStep['at'][] = ['rebuild', 'as-left']

/** Takes one step: what it presupposes is checked, what it does is noted. */
export function takeStep(guide: Guide, step: PlacedStep, state: ProofState, say: Say): void {
  if (needsHands(step) && state.air && !step.withAir) {
    say(
      'air-on',
      'hands go in while the air is on: take the air off first, or say “withAir” where it must be on',
    )
  }
  if (needsHands(step) && state.fedOpen.size > 0)
    say(
      'hands-live',
      `hands go in while ${[...state.fedOpen].map((id) => guide.zones?.find((z) => z.id === id)?.title ?? id).join(', ')} was fed and is not proved at zero: shut, vent and prove it first`,
    )
  if (step.withAir && !state.air) {
    say('air-missing', 'needs the air on, and it is off: put it on in a step before')
  }
  if (step.withAid && !state.aids.has(step.withAid))
    say('aid-missing', `is done with “${step.withAid}” in, and it is not: put it in before`)
  if (step.lying && step.lying !== state.lies)
    say(
      'wrong-way-up',
      `is done while it lies “${step.lying}”, and it ${state.lies ? `lies “${state.lies}”` : 'was not turned'}: put the position before it`,
    )
  if (step.redoFrom) {
    const at = state.named.get(step.redoFrom)
    if (at !== step.at && !(at === 'open-up' && OPEN_AGAIN.includes(step.at)))
      say(
        'redo-nowhere',
        at
          ? `“${step.redoFrom}” is at ${at}: work is taken up again within a station, or from rebuild and as-left at open-up`
          : `no step before is named “${step.redoFrom}”: name the one to take up again`,
      )
  }
  outsetFaults(guide, step, state, say)
  if (step.locked) for (const valve of state.shut) state.locked.add(valve)
  if (step.name) state.named.set(step.name, step.at)
  // The rule of a verb takes the steps of that verb, which the compiler cannot see through the table.
  const rule = rules[step.verb] as Rule<PlacedVerb> | null
  rule?.(guide, step as StepOf<PlacedVerb>, state, say)
}

/** One rule a verb; null where nothing is presupposed and nothing changes. */
const rules: { readonly [V in PlacedVerb]: Rule<V> | null } = {
  do: null,
  position(_guide, step, state) {
    state.lies = step.lies
  },
  require(_guide, _step, state, say) {
    if (state.touched)
      say('required-late', 'is asked when hands have been on the equipment: ask it before')
  },
  ask: null,
  photograph: null,
  hold(guide, step, state, say) {
    const missing = (step.of ?? []).filter(
      (id) => !state.renewed.has(id) && !state.refitted.has(id),
    )
    if (missing.length > 0)
      say(
        'held-early',
        `time is given to ${missing.map((id) => title(guide, id)).join(', ')}, not fitted yet: fit it before`,
      )
    for (const id of step.of ?? []) state.held.add(id)
  },
  count(guide, step, state, say) {
    const missing = (step.of ?? []).filter((id) => isOut(state, id))
    if (step.at !== 'open-up' && missing.length > 0)
      say(
        'counted-early',
        `is counted before ${missing.map((id) => title(guide, id)).join(', ')} is in: count it afterwards`,
      )
  },
  trial: null,
  repeat: null,
  gate: null,
  isolate(guide, step, state, say) {
    if (state.service === 'gas' && !state.gates.has('qualified')) {
      say(
        'unqualified',
        'gas is shut in before the qualified person is confirmed: put the gate “qualified” first',
      )
    }
    const later = after(guide.order?.shut, step.isolate).filter((v) => state.shut.has(v))
    if (later.length > 0 && !isOpen(guide, state))
      say(
        'shut-order',
        `“${step.isolate}” is shut after ${later.join(', ')}: the guide’s order is the other way`,
      )
    state.shut.add(step.isolate)
  },
  reopen(guide, step, state, say) {
    const valve = step.reopen
    state.locked.delete(valve)
    const earlier = before(guide.order?.opened, valve).filter((v) => state.shut.has(v))
    if (earlier.length > 0 && !isOpen(guide, state))
      say(
        'open-order',
        `“${valve}” is opened while ${earlier.join(', ')} is still shut: open that first`,
      )
    const wasCracked = state.cracked.delete(valve)
    if (!state.shut.delete(valve) && !wasCracked)
      say('not-shut', `“${valve}” is opened and was never shut: mend the name`)
    if (step.degree === 'crack' || step.degree === 'half') state.cracked.add(valve)
    // An empty space fills with a blow where its first valve is thrown open.
    const first = guide.order?.opened[0]
    const gently = step.speed === 'slow' || step.degree === 'crack' || step.degree === 'half'
    if (valve === first && !wasCracked && !gently)
      say(
        'rushed',
        `“${valve}” is opened at once, and what is behind it is empty: “speed: slow”, or crack it first`,
      )
    for (const zone of guide.zones ?? []) {
      if (!shutFor(pressureSite(guide), zone.id).includes(valve)) continue
      state.proved.delete(zone.id)
      if (isOpen(guide, state)) state.fedOpen.add(zone.id)
      const through = zone.filledThrough ?? []
      const vents = zone.ventedBy.filter((v) => state.openVents.has(v) && !through.includes(v))
      if (vents.length > 0 && step.degree !== 'crack') {
        say(
          'vents-open',
          `pressure comes back into ${zone.title} while ${vents.join(', ')} is open: shut it first, or crack the valve to purge`,
        )
      }
      const shut = through.filter((v) => !state.openVents.has(v))
      if (!wasCracked && shut.length > 0)
        say(
          'fills-trapped',
          `${zone.title} fills while ${shut.join(', ')} is shut, and the air stays in: leave it open until what comes out runs solid`,
        )
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
    for (const cock of step.vent) {
      for (const zone of guide.zones ?? []) {
        if (zone.neverVentedBy?.includes(cock)) {
          say('live-vent', `“${cock}” is live and stays shut: take it off the list`)
        }
        const open = fedBy(guide, state, zone.id)
        if (zone.ventedBy.includes(cock) && open.length > 0) {
          say(
            'vent-unshut',
            `“${cock}” is opened while ${zone.title} is still fed by ${open.join(', ')}: shut it first`,
          )
        }
      }
      for (const fed of downstreamOf(guide, cock)) {
        const trapped = fed.ventedBy.filter((v) => !state.openVents.has(v))
        if (trapped.length > 0)
          say(
            'vent-order',
            `“${cock}” is opened before ${trapped.join(', ')} of ${fed.title}, which lies downstream: vent downstream first`,
          )
      }
      state.openVents.add(cock)
    }
  },
  shut(guide, step, state) {
    for (const cock of step.shut) {
      state.openVents.delete(cock)
      // What seeps in behind a shut vent is seen by nobody: zero is proved again.
      for (const zone of guide.zones ?? [])
        if (zone.ventedBy.includes(cock)) state.proved.delete(zone.id)
    }
  },
  prove(guide, step, state, say) {
    const zone = guide.zones?.find((z) => z.id === step.prove)
    if (!zone) return
    const fed = fedBy(guide, state, zone.id)
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
    state.fedOpen.delete(zone.id)
    for (const part of guide.parts) if (part.closes === zone.id) state.onLast.delete(part.id)
  },
  relieve(guide, step, state, say) {
    // Which adjuster takes the load off, the spring does not say: none of them turns while it is locked.
    for (const { id } of guide.adjustments ?? []) setWhileLocked(guide, id, state, say)
    state.relieved.add(step.relieve)
  },
  snapshot(_guide, step, state, say) {
    const id = step.snapshot
    if (state.disturbed.has(id))
      say(
        'snapshot-late',
        `the as-found setting of “${id}” is taken after it was disturbed: take it before`,
      )
    state.snapshots.add(id)
  },
  restore(guide, step, state, say) {
    const id = step.restore
    setWhileOpen(guide, id, state, say)
    setWhileLocked(guide, id, state, say)
    if (!state.snapshots.delete(id))
      say(
        'restore-unknown',
        `“${id}” is restored, but its as-found setting was never taken: add a snapshot before`,
      )
    state.disturbed.delete(id)
    state.tested = false
  },
  set(guide, step, state, say) {
    const id = step.set
    setWhileOpen(guide, id, state, say)
    setWhileLocked(guide, id, state, say)
    state.disturbed.delete(id)
    // The school that always returns to nominal restores nothing: what was found is on record.
    state.snapshots.delete(id)
    state.tested = false
  },
  mark(guide, step, state, say) {
    const id = step.mark
    if (partOf(guide, id) && isOut(state, id))
      say(
        'mark-late',
        `${title(guide, id)} is marked when it is off: mark it before it is loosened`,
      )
    state.marks.add(id)
  },
  match(guide, step, state, say) {
    const id = step.match
    if (partOf(guide, id) && isOut(state, id))
      say('match-early', `marks are matched while ${title(guide, id)} is off: fit it first`)
    // A thread that is its own fastener meets its mark as it gets tight; a circle of bolts leaves no choice any more.
    const circles = guide.fasteners?.filter((f) => f.holds === id && f.count) ?? []
    const tight = circles.filter((f) => state.tight.has(f.id))
    if (tight.length > 0)
      say(
        'match-late',
        `marks are matched when ${tight.map((f) => f.title).join(', ')} are tight: match them before`,
      )
    if (!state.marks.delete(step.match))
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
  power(guide, step, state, say) {
    const out = [...state.off, ...state.gone]
    if (step.power === 'on' && out.length > 0)
      say(
        'power-open',
        `the power is put on while ${out.map((p) => title(guide, p)).join(', ')} is off: fit it first`,
      )
    state.power = step.power === 'on'
  },
  liftIn(_guide, step, state, say) {
    const aid = step.liftIn
    if (!state.touched)
      say('aid-early', `“${aid}” goes in before the equipment is made safe: put it in when it is`)
    if (state.aids.has(aid)) say('aid-twice', `“${aid}” is in already: take it out in between`)
    state.aids.add(aid)
  },
  liftOut(_guide, step, state, say) {
    if (!state.aids.delete(step.liftOut))
      say('aid-unknown', `“${step.liftOut}” comes out and was never put in`)
  },
  loosen(guide, step, state, say) {
    state.loose.add(step.loosen)
    state.tight.delete(step.loosen)
    const fastener = guide.fasteners?.find((f) => f.id === step.loosen)
    const part = partOf(guide, fastener?.holds)
    if (!part || isOut(state, part.id)) return
    const live = openedBy(guide, part).filter((z) => !state.proved.has(z.id))
    if (live.length > 0)
      say(
        'loosened-live',
        `${fastener?.title} of ${part.title} are loosened; not proved at zero: ${live.map((z) => z.title).join(', ')}. Isolate, vent and prove first`,
      )
    if (step.leavePart && part.closes) state.onLast.add(part.id)
  },
  remove: goesOff,
  discard(guide, step, state, say) {
    const id = step.discard
    if (!state.off.delete(id))
      say('discard-fitted', `${title(guide, id)} is thrown away, but is not off: remove it first`)
    state.gone.add(id)
  },
  inspect(guide, step, state, say) {
    const id = step.inspect
    // What was cleaned before it was looked at may be found dirty.
    state.cleaned.delete(id)
    // What can be seen from where is known of a machine, and held against it there.
    if (guide.machine) return
    const covered = partOf(guide, id)?.under?.filter((c) => !isOut(state, c)) ?? []
    if (covered.length > 0)
      say(
        'inspect-hidden',
        `${title(guide, id)} is looked at while ${covered.map((c) => title(guide, c)).join(', ')} is still over it`,
      )
  },
  clean(guide, step, state, say) {
    if (state.refitted.has(step.clean) && !isOut(state, step.clean))
      say(
        'cleaned-late',
        `${title(guide, step.clean)} is cleaned when it is in again: clean it before it goes in`,
      )
    state.clean.add(step.clean)
    state.cleaned.add(step.clean)
  },
  lubricate: isGreased,
  treat: isTreated,
  renew: isRenewed,
  fit: goesBack,
  tighten(guide, step, state, say) {
    const id = step.tighten
    fromKit(guide, step.from, 1, state, say)
    const holds = guide.fasteners?.find((f) => f.id === id)?.holds ?? ''
    if (isOut(state, holds))
      say('tightened-nothing', `is tightened while ${title(guide, holds)} is off: fit it first`)
    const treated = state.treated.delete(id)
    if (step.to.thread === 'treated' && !treated)
      say(
        'dry-thread',
        'is tightened to the figure for a treated thread, and nothing was put on it: add “treat”',
      )
    if (step.to.thread === 'dry' && treated)
      say(
        'greased-thread',
        'is tightened to the figure for a dry thread with compound on it: it would be overstretched',
      )
    state.loose.delete(id)
    state.tight.add(id)
  },
  test(guide, _step, state, say) {
    const hides = (id: string) => partOf(guide, id)?.offAtTest
    const away = [...state.off, ...state.gone]
    for (const { id } of guide.parts.filter((p) => p.offAtTest && !away.includes(p.id)))
      say('tested-hidden', `is tested with ${title(guide, id)} on, which hides what is looked at`)
    const out = away.filter((id) => !hides(id))
    if (!state.power && guide.steps.some((s) => s.power !== undefined))
      say('tested-off', 'is tested with the power off: put it on first')
    if (out.length > 0)
      say('tested-open', `is tested while ${out.map((p) => title(guide, p)).join(', ')} is off`)
    for (const zone of guide.zones ?? []) {
      const supplies = shutFor(pressureSite(guide), zone.id)
      if (fedBy(guide, state, zone.id).length === 0 && supplies.some((v) => state.shut.has(v)))
        say(
          'tested-dry',
          `is tested while ${zone.title} is still cut off by ${supplies.join(', ')}: let the medium in first`,
        )
    }
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

/** An order of valves spares what flows through; where a space stands open nothing does, and each is judged by itself. */
const isOpen = ({ parts }: Guide, state: ProofState) =>
  parts.some((p) => p.closes !== undefined && isOut(state, p.id))
const after = (list: readonly string[] = [], name: string) =>
  list.includes(name) ? list.slice(list.indexOf(name) + 1) : []
const before = (list: readonly string[] = [], name: string) =>
  list.slice(0, Math.max(0, list.indexOf(name)))

/** Zones that lie downstream of a vent’s own: they hold what they got past a seat. */
function downstreamOf(guide: Guide, vent: string): GuideZone[] {
  const own = guide.zones?.filter((z) => z.ventedBy.includes(vent)) ?? []
  const fed = own.flatMap((z) => z.feeds ?? [])
  return guide.zones?.filter((z) => fed.includes(z.id) && !z.ventedBy.includes(vent)) ?? []
}

function setWhileLocked(guide: Guide, adjustment: string, state: ProofState, say: Say): void {
  for (const f of guide.fasteners ?? [])
    if (f.locks === adjustment && !state.loose.has(f.id))
      say(
        'set-locked',
        `“${adjustment}” is turned while ${f.title} is tight: loosen it before, tighten it after`,
      )
}

function setWhileOpen(guide: Guide, adjustment: string, state: ProofState, say: Say): void {
  const out = guide.parts.filter((p) => p.disturbs === adjustment && isOut(state, p.id))
  for (const p of out)
    say('set-open', `“${adjustment}” is set while ${p.title} is off: fit it first`)
}
