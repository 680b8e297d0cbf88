import type { NominalName } from '../nominal'
import type { Adjuster, Apparatus, Element } from '../types'
import { type Protection, type RegulatorKind, regulatorKinds, regulatorTraits } from './kinds'

/** Valves of what hangs on a regulator while it is tested. */
const benchValves = [
  { id: 'test-supply', label: 'Test supply' },
  { id: 'hose-bleed', label: 'Hose bleed' },
] as const

const element = (id: string, about: Omit<Element, 'id' | 'name' | 'line'>): Element => ({
  id,
  name: id,
  line: 'main',
  ...about,
})

const PROTECTED_BY: Readonly<
  Record<
    Protection,
    {
      readonly element: Element
      readonly nominals: readonly NominalName[]
      readonly adjuster: Adjuster
    }
  >
> = {
  relief: {
    element: element('relief', { role: 'relief', label: 'Relief valve', at: 'body-2' }),
    nominals: [
      'relief-set',
      'maop',
      'yield-limit',
      'regulator-cv',
      'regulator-cg',
      'regulator-c1',
      'relief-cv',
      'relief-cg',
      'relief-c1',
    ],
    adjuster: {
      id: 'relief',
      label: 'Adjuster of the relief',
      inwards: 'raises its opening',
      reads: { item: 'relief-start', wanted: 'relief-set' },
    },
  },
  'slam-shut': {
    element: element('slam-shut', {
      role: 'slam-shut',
      label: 'Slam-shut',
      at: 'body-1',
      to: 'between',
    }),
    nominals: ['slam-shut-high', 'slam-shut-low', 'maop', 'yield-limit'],
    adjuster: {
      id: 'slam-shut',
      label: 'High trip of the slam-shut',
      inwards: 'raises the trip',
      reads: { item: 'trip-high', wanted: 'slam-shut-high' },
    },
  },
  monitor: {
    element: element('monitor', {
      role: 'regulator',
      label: 'Monitor',
      at: 'body-1',
      to: 'between',
    }),
    nominals: ['monitor-set', 'maop', 'yield-limit'],
    adjuster: {
      id: 'monitor',
      label: 'Adjuster of the monitor',
      inwards: 'raises its set pressure',
      reads: { item: 'take-over', wanted: 'monitor-set' },
    },
  },
}

/** What stands before the regulator has a run of pipe of its own behind it. */
const standsBefore = (protection: Protection | null) =>
  protection === 'slam-shut' || protection === 'monitor'

/** Inlet shutoff, inlet tap, slam-shut or monitor, regulator, relief valve, taps, outlet shutoff, in flow order. */
function layoutOf(kind: RegulatorKind): Apparatus {
  const { protection, title } = regulatorTraits[kind]
  const guard = protection && PROTECTED_BY[protection]
  const before = standsBefore(protection)
  return {
    kind,
    title,
    places: [
      { id: 'inlet', label: 'Inlet', line: 'main', source: true },
      { id: 'body-1', label: 'Run before the regulator', line: 'main' },
      ...(before ? [{ id: 'between', label: 'Between the two', line: 'main' }] : []),
      { id: 'body-2', label: 'Run behind the regulator', line: 'main' },
      { id: 'outlet', label: 'Outlet', line: 'main', source: true },
    ],
    elements: [
      element('shutoff-1', { role: 'shutoff', label: 'Inlet shutoff', at: 'inlet', to: 'body-1' }),
      element('inlet-tap', { role: 'cock', label: 'Inlet tap', at: 'body-1' }),
      ...(guard && before ? [guard.element] : []),
      element('regulator', {
        role: 'regulator',
        label: 'Regulator',
        at: before ? 'between' : 'body-1',
        to: 'body-2',
      }),
      ...(guard && !before ? [guard.element] : []),
      element('outlet-tap', { role: 'cock', label: 'Outlet tap', at: 'body-2' }),
      element('flow-tap', { role: 'cock', label: 'Flow tap', at: 'body-2' }),
      element('shutoff-2', {
        role: 'shutoff',
        label: 'Outlet shutoff',
        at: 'body-2',
        to: 'outlet',
      }),
    ],
    bench: [
      ...benchValves,
      ...(protection === 'monitor' ? [{ id: 'worker-open', label: 'Worker held open' }] : []),
    ],
    streams: ['gaugePressure'],
    recorded: ['body-1', ...(before ? ['between'] : []), 'body-2'],
    sources: [],
    adjusters: [
      {
        id: 'regulator',
        label: 'Adjuster of the regulator',
        inwards: 'raises the set pressure',
        reads: { item: 'set', wanted: 'set-point' },
        range: ['spring-low', 'spring-high'],
      },
      ...(guard ? [guard.adjuster] : []),
    ],
    hoses: ['gauge'],
    nominals: [
      'set-point',
      'accuracy-class',
      'lock-up-class',
      'inlet-maximum',
      'spring-low',
      'spring-high',
      ...(guard?.nominals ?? []),
    ],
    lines: [],
  }
}

/** Every kind as what it is to a test. */
export const regulators: readonly Apparatus[] = regulatorKinds.map(layoutOf)
