import { type Link, type Network, Passage, passageLaw, type Volume } from '../../fluid'
import { faultFinder } from '../condition'
import type { SiteSpec } from '../site'
import { type RegulatorKind, regulatorTraits } from './kinds'

export interface RegulatorSpec extends SiteSpec {
  readonly kind: RegulatorKind
}

/** What a regulator that nothing is known of is set to, as a part of its inlet pressure. */
const USUAL_PART = 0.4
/** Opening of a relief that nothing is known of, over the set pressure. */
const USUAL_RELIEF = 1.3
/** The flow tap against the pipe, the orifice against the flow tap, the relief against the orifice wide open. */
const FLOW_TAP = 0.05
const RESERVE = 3
const RELIEF_RESERVE = 1.3
/** A tester raises the outlet no further than this over the nominal opening of the relief. */
const TEST_SUPPLY = 1.25
/** Part of the full lift at the small flow at which a regulator is set. */
const AT_SMALL_FLOW = 0.03

export const setKpaOf = ({ setKpa, condition }: RegulatorSpec): number =>
  setKpa ?? condition.supplyKpa * USUAL_PART

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

/**
 * A regulator with its taps, its relief valve and the instrument hose, as a network. The regulator is
 * a passage that its diaphragm opens when the outlet falls under what the spring asks for, and that
 * friction and seat shut only some way above it: that way is its lock-up.
 */
export function regulatorNetwork(spec: RegulatorSpec): Network {
  const { kind, sizeIn, condition } = spec
  const traits = regulatorTraits[kind]
  const fault = faultFinder(condition.faults)
  const set = setKpaOf(spec)
  const nominalRelief = spec.reliefKpa ?? set * USUAL_RELIEF
  const reliefKpa =
    nominalRelief *
    (condition.springs?.relief ?? 1) *
    (1 - 0.4 * fault('relief', 'spring-weak')) *
    (1 + 0.5 * fault('relief', 'spring-stiff') + 0.8 * fault('relief', 'passage-blocked'))
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
  const taps = ['inlet-tap', 'outlet-tap', 'flow-tap']
  const at = (tap: string) => (tap === 'inlet-tap' ? 'body-1' : 'body-2')
  return {
    medium: traits.medium,
    volumes: [
      pipe('body-1', 0.002, condition.supplyKpa),
      pipe('body-2', 0.01, set),
      pipe('outlet', 0.05, set),
      { id: 'hose', volumeM3: 2e-4, ...(water ? { elasticityPerKpa: 1e-5 } : {}) },
    ],
    reservoirs: [
      { id: 'inlet', pressureKpa: condition.supplyKpa },
      { id: 'air', pressureKpa: 0 },
      { id: 'relief-spring', pressureKpa: reliefKpa },
      { id: 'bottle', pressureKpa: nominalRelief * TEST_SUPPLY },
    ],
    links: [
      valve('shutoff-1', 'inlet', 'body-1', 30 * sizeIn ** 2, 1),
      {
        type: 'relief',
        id: 'regulator',
        from: 'body-1',
        to: 'body-2',
        senseHigh: 'body-2',
        senseLow: 'air',
        opensBelowKpa: opensBelow(spec, condition.supplyKpa, 0),
        fullLiftKpa: Math.max(set * traits.droop * (1 + 3 * fault('regulator', 'stem-bent')), 0.01),
        hysteresisKpa:
          set * traits.lockUp * (1 + 4 * fault('regulator', 'passage-blocked')) +
          set * 0.15 * fault('regulator', 'disc-cut'),
        cv: orificeCv * (1 - 0.8 * fault('regulator', 'stem-bent')),
        ...leaks('regulator', orificeCv),
      },
      ...(traits.relief
        ? [
            {
              type: 'relief' as const,
              id: 'relief',
              from: 'body-2',
              to: 'air',
              senseHigh: 'relief-spring',
              senseLow: 'body-2',
              opensBelowKpa: 0,
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
