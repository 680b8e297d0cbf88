import { type Link, type Network, Passage, passageLaw, type Volume } from '../../fluid'
import { faultFinder } from '../condition'
import type { SiteSpec } from '../site'
import { type Protection, type RegulatorKind, regulatorTraits } from './kinds'

export interface RegulatorSpec extends SiteSpec {
  readonly kind: RegulatorKind
}

/** By how much the adjusters of a regulator were turned, kPa each. */
export type Turned = Readonly<
  Partial<Record<'regulator' | 'relief' | 'monitor' | 'slam-shut', number>>
>

/** What a regulator that nothing is known of is set to, as a part of its inlet pressure. */
const USUAL_PART = 0.4
/** What protects it where nothing is known, over the set pressure. */
const USUAL_OVER: Readonly<Record<Protection, number>> = {
  relief: 1.3,
  monitor: 1.15,
  'slam-shut': 1.4,
}
const USUAL_LOW_TRIP = 0.6
/** The flow tap against the pipe, the orifice against the flow tap, the relief against the orifice wide open. */
const FLOW_TAP = 0.05
const RESERVE = 3
const RELIEF_RESERVE = 1.3
/** A tester raises the outlet no further than this over the nominal opening of what protects it. */
const TEST_SUPPLY = 1.25
/** Part of the full lift at the small flow at which a regulator is set. */
const AT_SMALL_FLOW = 0.03

export const setKpaOf = ({ nominals, condition }: RegulatorSpec): number =>
  nominals?.['set-point'] ?? condition.supplyKpa * USUAL_PART

/** Nominal pressure at which what protects the outlet acts, kPa; of one that has no protection that of a relief. */
export function protectionKpaOf(spec: RegulatorSpec): number {
  const protection = regulatorTraits[spec.kind].protection ?? 'relief'
  const named = {
    relief: 'relief-set',
    monitor: 'monitor-set',
    'slam-shut': 'slam-shut-high',
  } as const
  return spec.nominals?.[named[protection]] ?? setKpaOf(spec) * USUAL_OVER[protection]
}

/**
 * What the spring of a regulator asks for at present: the outlet pressure under which it opens.
 * @param inletKpa pressure before it; a direct seat is lifted by it, so that a falling inlet raises the outlet
 * @param turned by how much its adjuster was turned, kPa
 */
export function opensBelow(spec: RegulatorSpec, inletKpa: number, turned: number): number {
  const { droop, inletEffect } = regulatorTraits[spec.kind]
  const fault = faultFinder(spec.condition.faults)
  const set = setKpaOf(spec)
  const spring = spec.condition.springs?.regulator ?? 1
  const weak = 1 - 0.35 * fault('regulator', 'spring-weak')
  const byInlet = inletEffect * (spec.condition.supplyKpa - inletKpa)
  return (set * spring + turned) * weak * (1 + AT_SMALL_FLOW * droop) + byInlet
}

/** How long one swing of a hunting regulator takes, s, and how wide its diaphragm is thrown at worst, part of its set pressure. */
const SWING_S = 8
const SWING_PART = 0.7
/** By how much a regulator that hunts is off what it is set to, kPa. @param timeS time of the model */
export const huntsBy = (spec: RegulatorSpec, timeS: number): number =>
  (faultFinder(spec.condition.faults)('regulator', 'undamped') *
    (setKpaOf(spec) * SWING_PART * Math.sin((2 * Math.PI * timeS) / SWING_S))) /
  2

/** What the spring of a monitor asks for. @param turned by how much its adjuster was turned, kPa */
export function monitorOpensBelow(spec: RegulatorSpec, turned: number): number {
  const weak = 1 - 0.35 * faultFinder(spec.condition.faults)('monitor', 'spring-weak')
  return (protectionKpaOf(spec) * (spec.condition.springs?.monitor ?? 1) + turned) * weak
}

/** Opening pressure of the relief valve. @param turned by how much its adjuster was turned, kPa */
export function reliefOpensAt(spec: RegulatorSpec, turned: number): number {
  const fault = faultFinder(spec.condition.faults)
  return (
    (protectionKpaOf(spec) * (spec.condition.springs?.relief ?? 1) + turned) *
    (1 - 0.4 * fault('relief', 'spring-weak')) *
    (1 + 0.5 * fault('relief', 'spring-stiff') + 0.8 * fault('relief', 'passage-blocked'))
  )
}

/** The outlet pressures at which a slam-shut trips. @param turned by how much its high trip was turned, kPa */
export function tripsAt(
  spec: RegulatorSpec,
  turned: number,
): { readonly highKpa: number; readonly lowKpa: number } {
  const fault = faultFinder(spec.condition.faults)
  const spring = spec.condition.springs?.['slam-shut'] ?? 1
  const off =
    (1 - 0.4 * fault('slam-shut', 'spring-weak')) * (1 + 0.5 * fault('slam-shut', 'spring-stiff'))
  return {
    highKpa: (protectionKpaOf(spec) * spring + turned) * off,
    lowKpa: (spec.nominals?.['slam-shut-low'] ?? setKpaOf(spec) * USUAL_LOW_TRIP) * spring * off,
  }
}

/**
 * A regulator with its taps, what protects it, and the instrument hose, as a network. The regulator is
 * a passage that its diaphragm opens when the outlet falls under what the spring asks for, and that
 * friction and seat shut only some way above it: that way is its lock-up.
 */
export function regulatorNetwork(spec: RegulatorSpec): Network {
  const { kind, sizeIn, condition } = spec
  const traits = regulatorTraits[kind]
  const { protection } = traits
  const fault = faultFinder(condition.faults)
  const set = setKpaOf(spec)
  const reliefKpa = reliefOpensAt(spec, 0)
  const pipeCv = traits.cvPerIn2 * sizeIn ** 2
  const tapCv = pipeCv * FLOW_TAP
  const passes = (cv: number, from: number, to: number) => {
    const out = new Passage()
    passageLaw(traits.medium)(out, cv, from, to, 0)
    return out.flow
  }
  // An orifice is chosen for its inlet: wide open it passes some times what the flow tap draws.
  const most = RESERVE * passes(tapCv, set, 0)
  const orificeCv = most / passes(1, condition.supplyKpa, set)
  const reliefCv = (RELIEF_RESERVE * most) / passes(1, reliefKpa, 0)
  const water = traits.medium.kind === 'water'
  const pipe = (id: string, m3: number, startKpa: number): Volume => ({
    id,
    volumeM3: m3 * sizeIn,
    startKpa,
    // A run of pipe with a little air caught in it, which is what lets water be set at all.
    ...(water ? { elasticityPerKpa: 2e-6, airM3: m3 * sizeIn * 0.02 } : {}),
  })
  const valve = (id: string, from: string, to: string, size: number, opening = 0): Link => ({
    type: 'valve',
    id,
    from,
    to,
    cv: size,
    opening,
  })
  const leaks = (id: string, cv: number) => ({
    leakCv:
      cv *
      (6e-4 * fault(id, 'fouled') + 5e-3 * fault(id, 'disc-cut') + 4e-4 * fault(id, 'seat-nicked')),
  })
  /** A diaphragm that opens a seat when the outlet falls under what a spring asks for. */
  const governs = (
    id: string,
    from: string,
    to: string,
    opensBelowKpa: number,
    cv: number,
  ): Link => ({
    type: 'relief',
    id,
    from,
    to,
    senseHigh: 'body-2',
    senseLow: 'air',
    opensBelowKpa,
    fullLiftKpa: Math.max(set * traits.droop * (1 + 3 * fault(id, 'stem-bent')), 0.01),
    hysteresisKpa:
      set * traits.lockUp * (1 + 4 * fault(id, 'passage-blocked')) +
      set * 0.15 * fault(id, 'disc-cut'),
    cv: cv * (1 - 0.8 * fault(id, 'stem-bent')),
    ...leaks(id, cv),
  })
  const first: readonly Link[] =
    protection === 'monitor'
      ? [governs('monitor', 'body-1', 'between', monitorOpensBelow(spec, 0), orificeCv * 3)]
      : protection === 'slam-shut'
        ? [
            {
              type: 'valve',
              id: 'slam-shut',
              from: 'body-1',
              to: 'between',
              cv: pipeCv * 3,
              opening: 1,
              leakCv: orificeCv * 0.02 * fault('slam-shut', 'fouled'),
            },
          ]
        : []
  const taps = ['inlet-tap', 'outlet-tap', 'flow-tap']
  const at = (tap: string) => (tap === 'inlet-tap' ? 'body-1' : 'body-2')
  return {
    medium: traits.medium,
    volumes: [
      pipe('body-1', 0.002, condition.supplyKpa),
      ...(first.length > 0 ? [pipe('between', 0.001, condition.supplyKpa)] : []),
      pipe('body-2', 0.01, set),
      pipe('outlet', 0.05, set),
      { id: 'hose', volumeM3: 2e-4, ...(water ? { elasticityPerKpa: 1e-5 } : {}) },
    ],
    reservoirs: [
      { id: 'inlet', pressureKpa: condition.supplyKpa },
      { id: 'air', pressureKpa: 0 },
      { id: 'bottle', pressureKpa: protectionKpaOf(spec) * TEST_SUPPLY },
    ],
    links: [
      valve('shutoff-1', 'inlet', 'body-1', 30 * sizeIn ** 2, 1),
      ...first,
      governs(
        'regulator',
        first.length > 0 ? 'between' : 'body-1',
        'body-2',
        opensBelow(spec, condition.supplyKpa, 0),
        orificeCv,
      ),
      ...(protection === 'relief'
        ? [
            {
              type: 'relief' as const,
              id: 'relief',
              from: 'body-2',
              to: 'air',
              senseHigh: 'air',
              senseLow: 'body-2',
              opensBelowKpa: -reliefKpa,
              fullLiftKpa: Math.max(reliefKpa * 0.1, 0.02),
              hysteresisKpa: reliefKpa * 0.04 * (1 + 2 * fault('relief', 'diaphragm-torn')),
              cv: reliefCv,
              leakCv:
                leaks('relief', reliefCv).leakCv +
                0.01 * reliefCv * fault('relief', 'diaphragm-torn'),
            },
          ]
        : []),
      valve('shutoff-2', 'body-2', 'outlet', 30 * sizeIn ** 2, 1),
      ...taps.flatMap((tap) => [
        valve(`${tap}>gauge`, at(tap), 'hose', 0.05),
        valve(`${tap}>air`, at(tap), 'air', tap === 'flow-tap' ? tapCv : 0.1),
      ]),
      valve('hose-bleed', 'hose', 'air', 0.02),
      valve('hose>air', 'hose', 'air', 0.5),
      valve('test-supply', 'bottle', 'body-2', pipeCv * 0.02),
      { type: 'demand', id: 'demand', from: 'outlet', flow: (condition.demandLMin ?? 0) / 60_000 },
    ],
  }
}
