import type { Role } from '../role'
import { type Apparatus, type Element, onLine, type Place } from '../types'
import { type AssemblyKind, assemblyKinds, hoseNames, kindTitles, kindTraits } from './kinds'

/** What a kind of assembly consists of, in flow order. */
export interface Layout {
  readonly kind: AssemblyKind
  readonly places: readonly Place[]
  readonly elements: readonly Element[]
}

type Line = 'main' | 'bypass'
const words = (line: Line, text: string) =>
  line === 'main' ? text.charAt(0).toUpperCase() + text.slice(1) : `Bypass ${text}`

/** Shutoff 1, cock 2, check 1, cock 3, check 2, cock 4, shutoff 2; cock 1 stands before shutoff 1. */
function twoChecks(line: Line, relief: boolean, ends: { from: string; to: string }): Layout {
  const name = (id: string) => onLine(line, id)
  const body1 = name('body-1')
  const zone = name('zone')
  const body2 = name('body-2')
  const element = (id: string, role: Role, text: string, at: string, to?: string): Element => ({
    id: name(id),
    name: id,
    role,
    label: words(line, text),
    line,
    at,
    ...(to ? { to } : {}),
  })
  const cock = (number: number, at: string): Element => ({
    ...element(`cock-${number}`, 'cock', `cock ${number}`, at),
    number,
  })
  return {
    kind: relief ? 'RP' : 'DC',
    places: [
      { id: body1, label: words(line, 'body before check 1'), line },
      { id: zone, label: words(line, relief ? 'zone' : 'space between the checks'), line },
      { id: body2, label: words(line, 'body after check 2'), line },
    ],
    elements: [
      cock(1, ends.from),
      element('shutoff-1', 'shutoff', 'shutoff 1', ends.from, body1),
      cock(2, body1),
      element('check-1', 'check', 'check 1', body1, zone),
      cock(3, zone),
      ...(relief ? [element('relief', 'relief', 'relief valve', zone)] : []),
      element('check-2', 'check', 'check 2', zone, body2),
      cock(4, body2),
      element('shutoff-2', 'shutoff', 'shutoff 2', body2, ends.to),
    ],
  }
}

const inlet: Place = { id: 'inlet', label: 'Inlet', line: 'main', source: true }
const outlet: Place = { id: 'outlet', label: 'Outlet', line: 'main', source: true }

function plain(kind: AssemblyKind): Layout {
  const { places, elements } = twoChecks('main', kind === 'RP', { from: 'inlet', to: 'outlet' })
  return { kind, places: [inlet, ...places, outlet], elements }
}

/** The bypass leaves the main body before check 1 and comes back after check 2, through its meter. */
function detector(kind: 'RPDA' | 'DCDA'): Layout {
  const { relief } = kindTraits[kind]
  const main = twoChecks('main', relief, { from: 'inlet', to: 'outlet' })
  const bypass = twoChecks('bypass', relief, { from: 'body-1', to: 'bypass-meter-in' })
  const meterIn: Place = { id: 'bypass-meter-in', label: 'Bypass before the meter', line: 'bypass' }
  const meter: Element = {
    id: 'bypass-meter',
    name: 'meter',
    role: 'meter',
    label: 'Bypass meter',
    line: 'bypass',
    at: 'bypass-meter-in',
    to: 'body-2',
  }
  return {
    kind,
    places: [inlet, ...main.places, ...bypass.places, meterIn, outlet],
    elements: [...main.elements, ...bypass.elements, meter],
  }
}

/** One check with an air inlet behind it. Cock 1 is before the check, cock 2 (a vent screw on the SVB) after. */
function vacuumBreaker(kind: 'PVB' | 'SVB'): Layout {
  const second = kind === 'PVB' ? 'Cock 2' : 'Vent screw'
  const element = (id: string, role: Role, label: string, at: string, to?: string): Element => ({
    id,
    name: id,
    role,
    label,
    line: 'main',
    at,
    ...(to ? { to } : {}),
  })
  return {
    kind,
    places: [
      inlet,
      { id: 'body-1', label: 'Body before the check', line: 'main' },
      { id: 'body-2', label: 'Body under the air inlet', line: 'main' },
      outlet,
    ],
    elements: [
      element('shutoff-1', 'shutoff', 'Shutoff 1', 'inlet', 'body-1'),
      { ...element('cock-1', 'cock', 'Cock 1', 'body-1'), number: 1 },
      element('check-1', 'check', 'Check', 'body-1', 'body-2'),
      element('air-inlet', 'air-inlet', 'Air inlet', 'body-2'),
      { ...element('cock-2', 'cock', second, 'body-2'), number: 2 },
      element('shutoff-2', 'shutoff', 'Shutoff 2', 'body-2', 'outlet'),
    ],
  }
}

const layouts: Readonly<Record<AssemblyKind, Layout>> = {
  RP: plain('RP'),
  DC: plain('DC'),
  RPDA: detector('RPDA'),
  DCDA: detector('DCDA'),
  PVB: vacuumBreaker('PVB'),
  SVB: vacuumBreaker('SVB'),
}

export const layoutOf = (kind: AssemblyKind): Layout => layouts[kind]

/** Valves of the three-hose test kit, which a procedure moves like those of the assembly. */
export const kitValves = [
  { id: 'high-control', label: 'High control' },
  { id: 'low-control', label: 'Low control' },
  { id: 'bypass-control', label: 'Bypass control' },
  { id: 'high-bleed', label: 'High bleed' },
  { id: 'low-bleed', label: 'Low bleed' },
] as const
export type KitValve = (typeof kitValves)[number]['id']

/** Every kind as what it is to a test. */
export const backflow: readonly Apparatus[] = assemblyKinds.map((kind) => {
  const { places, elements } = layoutOf(kind)
  return {
    kind,
    title: kindTitles[kind],
    places,
    elements,
    bench: kitValves,
    streams: ['differential'],
    recorded: [],
    sources: [],
    adjusters: [],
    hoses: hoseNames,
    nominals: [],
    lines: kindTraits[kind].detector ? ['bypass'] : [],
  }
})
