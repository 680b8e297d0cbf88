import { coldWater, type Link, type Network, type Volume } from '../../fluid'
import type { SiteSpec } from '../site'
import { type Condition, type FaultFinder, faultFinder } from '../condition'
import { type AssemblyKind, type HoseName, hoseNames, kindTraits } from './kinds'
import { HOSE_CV, kitLinks, kitVolumes } from './kit'
import { type Element, onLine, type Place } from '../types'
import { type Layout, layoutOf } from './layout'
import { springKpa, springsBeforeOf } from './springs'

/** The customer’s own pipe between the assembly and what holds pressure there, per inch squared. */
const CUSTOMER_CV = 10

/** Bypass lines of detector assemblies are ¾ in, whatever the main. */
const BYPASS_IN = 0.75

/** Volume and give of a body of a size, m³ and 1/kPa: a cylinder three diameters long, rubber and a little air. */
function body(id: string, sizeIn: number, extraMlPerKpa: number): Volume {
  const d = sizeIn * 0.0254
  const volumeM3 = (Math.PI / 4) * d * d * 3 * d
  const givesMlPerKpa = 0.004 * sizeIn + extraMlPerKpa
  return { id, volumeM3, elasticityPerKpa: Math.min((givesMlPerKpa * 1e-6) / volumeM3, 0.01) }
}

/**
 * mL/kPa by which a body gives beyond its metal: the relief valve’s diaphragm at the zone, the
 * poppet and the air under the bonnet of a vacuum breaker.
 */
function extraGives({ kind, elements }: Layout, place: Place, sizeIn: number): number {
  if (elements.some((e) => e.role === 'relief' && e.at === place.id)) return 0.15 * sizeIn ** 0.7
  return kindTraits[kind].breaker && !place.source ? 0.1 : 0
}

export interface AssemblySpec extends SiteSpec {
  readonly kind: AssemblyKind
}

/**
 * The hydraulic network of an assembly with the three-hose test kit beside it. Each cock leads to
 * each hose and to the air; which of these is open is decided by `site.ts`.
 */
export function assemblyNetwork({ kind, sizeIn, condition }: AssemblySpec): Network {
  const layout = layoutOf(kind)
  const size = (line: string) => (line === 'main' ? sizeIn : BYPASS_IN)
  const faults = faultFinder(condition.faults)
  const springsBefore = springsBeforeOf(layout, condition)
  const volumes = layout.places.map((p) => ({
    ...body(p.id, size(p.line), extraGives(layout, p, size(p.line))),
    startKpa: condition.supplyKpa - (springsBefore[p.id] ?? 0),
  }))
  const links = layout.elements.flatMap((e) =>
    elementLinks(e, layout, size(e.line), condition, faults),
  )
  return {
    medium: coldWater,
    volumes: [...volumes, ...kitVolumes(), ...senseVolumes(layout, condition)],
    reservoirs: [
      { id: 'supply', pressureKpa: condition.supplyKpa },
      { id: 'air', pressureKpa: 0 },
      ...(condition.downstreamKpa === undefined
        ? []
        : [{ id: 'beyond', pressureKpa: condition.downstreamKpa }]),
    ],
    links: [
      {
        type: 'valve',
        id: 'supply-pipe',
        from: 'supply',
        to: 'inlet',
        cv: 25 * sizeIn ** 2,
        opening: 1,
      },
      ...links,
      ...kitLinks(),
      ...(condition.downstreamKpa === undefined
        ? []
        : [
            {
              type: 'valve' as const,
              id: 'customer-pipe',
              from: 'outlet',
              to: 'beyond',
              cv: CUSTOMER_CV * sizeIn ** 2,
              opening: 1,
            },
          ]),
      {
        type: 'demand',
        id: 'demand',
        from: 'outlet',
        flow: (condition.demandLMin ?? 0) / 60_000,
      },
    ],
  }
}

/** Flow past a disc that does not close, by cause; Cv grows with the size. */
function checkLeak(element: string, sizeIn: number, fault: FaultFinder): number {
  return (
    sizeIn *
    (0.08 * fault(element, 'fouled') +
      0.06 * fault(element, 'disc-cut') +
      0.03 * fault(element, 'seat-nicked'))
  )
}

function elementLinks(
  e: Element,
  layout: Layout,
  sizeIn: number,
  condition: Condition,
  fault: FaultFinder,
): Link[] {
  const { id, at, to = 'air' } = e
  switch (e.role) {
    case 'shutoff':
      return [
        {
          type: 'valve',
          id,
          from: at,
          to,
          cv: 30 * sizeIn ** 2,
          opening: 1,
          leakCv: 0.1 * sizeIn * fault(id, 'leaking'),
        },
      ]
    case 'check':
      return [
        {
          type: 'check',
          id,
          from: at,
          to,
          cv: 12 * sizeIn ** 2,
          loadKpa: springKpa(layout.kind, id, condition),
          fullLiftKpa: 35,
          leakCv: checkLeak(id, sizeIn, fault),
        },
      ]
    case 'relief':
      return reliefLinks(e, layout, sizeIn, condition, fault)
    case 'air-inlet':
      return [
        {
          type: 'relief',
          id,
          from: at,
          to: 'air',
          // The spill-resistant breaker’s poppet is held by the inlet pressure on a diaphragm.
          senseHigh: layout.kind === 'SVB' ? 'body-1' : at,
          senseLow: 'air',
          opensBelowKpa: springKpa(layout.kind, id, condition),
          fullLiftKpa: 3,
          hysteresisKpa: 1,
          cv: 6 * sizeIn ** 2,
        },
      ]
    case 'meter':
      return [
        {
          type: 'valve',
          id,
          from: at,
          to,
          cv: 8,
          opening: 1,
        },
      ]
    // Only backflow assemblies are built here.
    case 'regulator':
    case 'slam-shut':
    case 'machine':
      return []
    case 'cock':
      return [
        ...hoseNames.map((hose): Link => cockLink(id, at, hose)),
        { type: 'valve', id: `${id}>air`, from: at, to: 'air', cv: HOSE_CV * 1.5, opening: 0 },
      ]
  }
}

const cockLink = (cock: string, at: string, hose: HoseName): Link => ({
  type: 'valve',
  id: `${cock}>${hose}`,
  from: at,
  to: `${hose}-hose`,
  cv: HOSE_CV,
  opening: 0,
})

const senseOf = (relief: string) => `${relief}-chamber`

/** A chamber of its own between inlet and diaphragm, fed by the sensing passage. */
function senseVolumes(layout: Layout, condition: Condition): Volume[] {
  return layout.elements
    .filter((e) => e.role === 'relief')
    .map((e) => ({
      id: senseOf(e.id),
      volumeM3: 3e-5,
      elasticityPerKpa: 1e-5,
      startKpa: condition.supplyKpa,
    }))
}

/**
 * How much of the differential a clogged sensing passage loses, as lost ÷ arriving. A trace always
 * passes the diaphragm’s stem seal; through a free passage that costs nothing, through a clogged one
 * the chamber stands the lower the worse it is.
 */
const lostInPassage = (severity: number) => 3 * severity ** 2

function reliefLinks(
  e: Element,
  layout: Layout,
  sizeIn: number,
  condition: Condition,
  fault: FaultFinder,
): Link[] {
  const before = onLine(e.line, 'body-1')
  const chamber = senseOf(e.id)
  const torn = fault(e.id, 'diaphragm-torn')
  return [
    {
      type: 'relief',
      id: e.id,
      from: e.at,
      to: 'air',
      senseHigh: chamber,
      senseLow: e.at,
      opensBelowKpa:
        springKpa(layout.kind, e.id, condition) *
        (1 + lostInPassage(fault(e.id, 'passage-blocked'))),
      fullLiftKpa: 9,
      hysteresisKpa: 1.5,
      cv: 4 * sizeIn ** 1.5,
      leakCv: 0.05 * sizeIn * fault(e.id, 'fouled'),
    },
    { type: 'valve', id: `${e.id}-passage`, from: before, to: chamber, cv: 0.3, opening: 1 },
    {
      type: 'valve',
      id: `${e.id}-diaphragm`,
      from: chamber,
      to: e.at,
      cv: 0.25 * torn,
      opening: 1,
    },
  ]
}
