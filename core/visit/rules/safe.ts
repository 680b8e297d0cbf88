import { apparatusOf, movableElements, portsOf } from '../../apparatus'
import { movesOf, type PlacedStep } from '../../guide'
import { moveRefusal, connectedWith, type IsolationSite, spaceStates } from '../../pressure'
import { valueToSi } from '../../quantity'
import type { VisitEvent } from '../log/events'
import { guideOfVisit, runOfGuide, siteOfVisit } from '../derived/guide'
import { currentStation } from '../log/current'
import { type GuardContext, type Refusal, refuse } from './refusal'
import type { VisitState } from '../log/state'
import type { Station } from '../log/stations'

/**
 * kPa over which a reading is not zero. For water what the smallest division of a coarse gauge hides;
 * a gas service may live at 1.7 kPa, so that zero there is read on a fine one (0.4 in of water).
 */
const ZERO_WITHIN_KPA = { water: 1, gas: 0.1 } as const

/** Stations in which the equipment stands open or is being opened. */
const OPENED: readonly Station[] = ['make-safe', 'open-up', 'rebuild']

/** Only what the equipment has is turned, and while it is made safe only in an order that is safe to go by. */
export function guardMove(
  state: VisitState,
  event: VisitEvent<'valve-moved'> | VisitEvent<'hose-moved'>,
  { library }: GuardContext,
): Refusal | null {
  const site = siteOfVisit(state, library)
  const unknown = unknownElement(state, event, site)
  if (unknown || !('element' in event.payload)) return unknown
  const { element, to, departure } = event.payload
  const lock = state.locks[element]
  if (lock && to !== 'shut') {
    return refuse(
      'lock-on',
      `Lock ${lock.number} is on it, put there by ${lock.recordedBy}.`,
      'Whoever put it on takes it off first.',
      undefined,
      { lock: lock.number, recordedBy: lock.recordedBy },
    )
  }
  if (!site || departure || !OPENED.includes(currentStation(state))) return null
  const refusal = moveRefusal(site, state.valves, element, to)
  return refusal
    ? refuse(
        'move-out-of-order',
        refusal,
        'If it really was turned, record it with its reason.',
        'make-safe',
      )
    : null
}

function unknownElement(
  state: VisitState,
  event: VisitEvent<'valve-moved'> | VisitEvent<'hose-moved'>,
  site: IsolationSite | null,
): Refusal | null {
  const kind = state.plan?.equipment.kind ?? ''
  const apparatus = apparatusOf(kind)
  if (event.kind === 'hose-moved' && apparatus && !apparatus.hoses.includes(event.payload.hose)) {
    const { hoses } = apparatus
    return refuse(
      'hose-unknown',
      `A test of a ${kind} has no hose “${event.payload.hose}”.`,
      `Choose one of ${hoses.join(', ')}.`,
      undefined,
      { kind, hose: event.payload.hose },
    )
  }
  const named = event.kind === 'valve-moved' ? event.payload.element : event.payload.port
  if (named === undefined) return null
  const own = apparatus
    ? event.kind === 'valve-moved'
      ? movableElements(apparatus)
      : portsOf(apparatus)
    : []
  const known = [...own, ...(site?.valves.map((v) => v.id) ?? [])]
  if (known.length === 0 || known.includes(named)) return null
  return refuse(
    'element-unknown',
    `A ${kind} has no “${named}”.`,
    `Choose one of ${known.join(', ')}.`,
    undefined,
    { kind, element: named },
  )
}

export function guardProof(
  state: VisitState,
  { payload }: VisitEvent<'zone-proved'>,
  { library }: GuardContext,
): Refusal | null {
  const site = siteOfVisit(state, library)
  const zone = site?.zones.find((z) => z.id === payload.zone)
  if (!site || !zone)
    return refuse(
      'zone-unknown',
      `There is no zone “${payload.zone}” here.`,
      'Choose one of the drawing.',
      undefined,
      { zone: payload.zone },
    )
  const { dimension, value, unit } = payload.reading
  if (dimension !== 'gaugePressure')
    return refuse(
      'not-a-pressure',
      'Zero is proved by a pressure.',
      'Give the reading as a pressure.',
    )
  const states = spaceStates(site, state.valves)
  const live = zone.spaces.find((s) => states[s] === 'live')
  if (live)
    return refuse(
      'zone-fed',
      `${titleOf(site, live)} is still fed.`,
      'Shut it in first.',
      'make-safe',
    )
  const trapped = zone.spaces.find((s) => states[s] === 'trapped')
  if (trapped)
    return refuse(
      'zone-trapped',
      `${titleOf(site, trapped)} is shut in on all sides: what is trapped cannot be read.`,
      'Open its vent first.',
      'make-safe',
    )
  const gas = state.plan?.equipment.service === 'gas'
  const zero = gas ? ZERO_WITHIN_KPA.gas : ZERO_WITHIN_KPA.water
  if (Math.abs(valueToSi(dimension, Number(value), unit)) > zero) {
    return refuse(
      'not-zero',
      `${value} ${unit} is not zero: it is still under pressure.`,
      'Do not open it. Find what feeds it: a valve that leaks, a bypass, a second supply.',
      'make-safe',
      { value, unit },
    )
  }
  return null
}

const titleOf = (site: IsolationSite, space: string) =>
  site.spaces.find((s) => s.id === space)?.title ?? space

/** Shutoffs that are shut: what a lock or tag belongs on. */
export const shutOff = (site: IsolationSite, valves: VisitState['valves']) =>
  site.valves.filter((v) => v.role === 'shutoff' && valves[v.id] === 'shut')

export function guardLock(
  state: VisitState,
  { payload }: VisitEvent<'lock'>,
  { library }: GuardContext,
): Refusal | null {
  const { element, on } = payload
  const valve = siteOfVisit(state, library)?.valves.find((v) => v.id === element)
  if (!valve)
    return refuse(
      'element-unknown',
      `There is no “${element}” here.`,
      'Choose a valve of the drawing.',
      undefined,
      { element },
    )
  if (!on)
    return state.locks[element]
      ? null
      : refuse('lock-off', 'No lock is on it.', 'Nothing is to be taken off.')
  if (state.valves[element] !== 'shut')
    return refuse(
      'valve-not-shut',
      `${valve.title} is not on record as shut.`,
      'Shut it, then lock it.',
      'make-safe',
      { valve: valve.title },
    )
  return null
}

/** What a step of the guide presupposes of valves, proofs and locks. */
export function safeStepRefusal(
  state: VisitState,
  step: PlacedStep,
  { library }: GuardContext,
): Refusal | null {
  const site = siteOfVisit(state, library)
  if (!site) return null
  const titled = (id: string) => site.valves.find((v) => v.id === id)?.title ?? id
  const known = (id: string) => site.valves.some((v) => v.id === id)
  for (const { element, to } of movesOf(step)) {
    const stands = state.valves[element]
    const asWanted = stands !== undefined && (stands === 'shut') === (to === 'shut')
    if (known(element) && !asWanted) {
      return refuse(
        'valve-position-differs',
        `${titled(element)} is not on record as ${to === 'shut' ? 'shut' : 'open'}.`,
        'Press it on the drawing, then go on.',
      )
    }
  }
  const unlocked = step.locked ? shutOff(site, state.valves).find((v) => !state.locks[v.id]) : null
  if (unlocked)
    return refuse(
      'lock-missing',
      `${unlocked.title} has no lock or tag on record.`,
      'Lock it, and enter the number.',
      undefined,
      { valve: unlocked.title },
    )
  const zoneId = step.prove ?? opensZone(state, step, library)
  const zone = site.zones.find((z) => z.id === zoneId)
  if (!zone) return null
  const proved = state.proofs.map((p) => p.zone)
  const states = spaceStates(site, state.valves, proved)
  const asked = step.prove ? [zone] : connectedWith(site, zone)
  const doubtful = asked.flatMap((z) => z.spaces).find((s) => states[s] !== 'proved')
  if (doubtful === undefined) return null
  return refuse(
    'zone-not-proved',
    `${titleOf(site, doubtful)} is not proved at zero: ${states[doubtful]}.`,
    'Read zero there and record it first.',
  )
}

/** The zone that a step opens by taking a part off. */
function opensZone(
  state: VisitState,
  step: PlacedStep,
  library: GuardContext['library'],
): string | undefined {
  if (!step.remove) return undefined
  const part = guideOfVisit(state, library)?.guide.parts.find((p) => p.id === step.remove)
  // What is over it already opened the zone; proof was asked for there.
  const run = runOfGuide(state, library)
  const first = !run?.tray.some((t) => part?.under?.includes(t.id))
  return first ? part?.closes : undefined
}

/** Locks that are still on when the visit is to end. */
export function lockRefusal(state: VisitState): Refusal | null {
  const [left] = Object.values(state.locks)
  return left
    ? refuse(
        'lock-left',
        `Lock ${left.number} is still on.`,
        'Take every lock off and record it.',
        'as-left',
        { lock: left.number },
      )
    : null
}
