import type { Apparatus, Element } from '../types'
import { type RegulatorKind, regulatorKinds, regulatorTraits } from './kinds'

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

/** Inlet shutoff, inlet tap, regulator, relief valve, outlet tap, flow tap, outlet shutoff, in flow order. */
function layoutOf(kind: RegulatorKind): Apparatus {
  const { relief, title } = regulatorTraits[kind]
  return {
    kind,
    title,
    places: [
      { id: 'inlet', label: 'Inlet', line: 'main', source: true },
      { id: 'body-1', label: 'Run before the regulator', line: 'main' },
      { id: 'body-2', label: 'Run behind the regulator', line: 'main' },
      { id: 'outlet', label: 'Outlet', line: 'main', source: true },
    ],
    elements: [
      element('shutoff-1', { role: 'shutoff', label: 'Inlet shutoff', at: 'inlet', to: 'body-1' }),
      element('inlet-tap', { role: 'cock', label: 'Inlet tap', at: 'body-1' }),
      element('regulator', { role: 'regulator', label: 'Regulator', at: 'body-1', to: 'body-2' }),
      ...(relief
        ? [element('relief', { role: 'relief', label: 'Relief valve', at: 'body-2' })]
        : []),
      element('outlet-tap', { role: 'cock', label: 'Outlet tap', at: 'body-2' }),
      element('flow-tap', { role: 'cock', label: 'Flow tap', at: 'body-2' }),
      element('shutoff-2', {
        role: 'shutoff',
        label: 'Outlet shutoff',
        at: 'body-2',
        to: 'outlet',
      }),
    ],
    bench: benchValves,
    shows: 'gaugePressure',
    hoses: ['gauge'],
    nominals: [
      'set-point',
      'accuracy-class',
      'lock-up-class',
      'inlet-maximum',
      'spring-low',
      'spring-high',
      ...(relief ? (['relief-set', 'maop', 'yield-limit'] as const) : []),
    ],
    lines: [],
  }
}

/** Every kind as what it is to a test. */
export const regulators: readonly Apparatus[] = regulatorKinds.map(layoutOf)
