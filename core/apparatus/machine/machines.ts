import type { FaultKind } from '../faults'
import type { NominalName } from '../nominal'
import { signals } from '../signal'
import type { Adjuster, Apparatus, Source } from '../types'

/** A part that is cleaned or renewed, with what can be wrong with it. */
type Part = readonly [label: string, ...faults: readonly FaultKind[]]

interface About {
  readonly nominals?: readonly NominalName[]
  readonly sources?: readonly Source[]
  readonly adjusters?: readonly Adjuster[]
}

/** A machine that is proved on the spot: its parts, and what it is judged by. */
const machine = (
  kind: string,
  title: string,
  parts: readonly Part[],
  { nominals = [], sources = [], adjusters = [] }: About = {},
): Apparatus => ({
  kind,
  title,
  places: [],
  elements: parts.map(([label, ...faults]) => {
    const id = label.toLowerCase().replaceAll(' ', '-')
    return { id, name: id, role: 'machine', label, line: 'main', at: 'body', faults }
  }),
  bench: [],
  streams: ['gaugePressure', 'fraction', 'frequency', 'temperature'],
  recorded: [],
  sources,
  adjusters,
  hoses: [],
  nominals,
  lines: [],
})

const percent = (value: string) => ({ dimension: 'fraction', value, unit: '%' }) as const
const signal: Source = { id: 'signal', label: 'Signal', dimension: 'fraction' }
const positioned = {
  sources: [signal],
  adjusters: [
    {
      id: 'zero',
      label: 'Zero of the positioner',
      inwards: 'raises the travel at every signal',
      reads: { item: 'up-0', wanted: percent('0') },
    },
    {
      id: 'span',
      label: 'Span of the positioner',
      inwards: 'raises the travel at full signal',
      reads: { item: 'up-100', wanted: percent('100') },
      after: 'zero',
    },
  ],
}

/** Check valves, actuators, control and process valves, couplers, samplers, injectors. */
export const machines: readonly Apparatus[] = [
  machine(
    'check valve',
    'air-blow check valve',
    [
      ['Main seat', 'fouled', 'seal-worn'],
      ['Coupling seals', 'seal-worn'],
      ['Actuator seals', 'seal-worn', 'dry'],
    ],
    { nominals: ['supply'] },
  ),
  machine(
    'actuator',
    'spring-return cylinder actuator',
    [
      ['Piston seal', 'seal-worn', 'dry'],
      ['Stem seal', 'seal-worn'],
      ['Bushings', 'seal-worn', 'dry'],
      ['Spring', 'spring-weak'],
      ['Positioner', 'zero-off', 'span-off', 'linkage-worn'],
    ],
    { nominals: ['travel', 'supply', 'bench-low', 'bench-high', ...signals], ...positioned },
  ),
  machine(
    'cylinder',
    'threaded-lid cylinder',
    [
      ['Quad ring', 'seal-worn', 'dry'],
      ['Lid seals', 'seal-worn'],
      ['Shaft seals', 'seal-worn'],
      ['Spring', 'spring-weak'],
    ],
    { nominals: ['supply'] },
  ),
  machine(
    'control valve',
    'motor-operated control valve',
    [
      ['Seat', 'fouled', 'seal-worn'],
      ['Cone', 'seal-worn'],
      ['Top gasket', 'seal-worn'],
      ['Drive', 'zero-off', 'span-off', 'linkage-worn', 'dry'],
    ],
    { nominals: ['travel', ...signals], ...positioned },
  ),
  machine('mix-proof valve', 'double-seat mix-proof valve', [
    ['Upper plug seal', 'seal-worn'],
    ['Lower plug seal', 'seal-worn'],
    ['Lip seals', 'dry'],
    ['Actuator seals', 'seal-worn'],
  ]),
  machine(
    'on-off valve',
    'high-pressure water valve',
    [
      ['Needle and seat', 'fouled', 'seal-worn'],
      ['Stem seal', 'seal-worn', 'dry'],
      ['Adapter', 'seal-worn'],
      ['Actuator seals', 'dry'],
    ],
    { nominals: ['supply', 'test-pressure'] },
  ),
  machine(
    'spool valve',
    'spool valve',
    [
      ['Spool rings', 'seal-worn', 'dry'],
      ['Sleeve O-rings', 'seal-worn'],
      ['Port seals', 'seal-worn'],
    ],
    { nominals: ['supply', 'cycle-rate'] },
  ),
  machine(
    'cycling valve',
    'cycling valve',
    [
      ['Spool rings', 'seal-worn', 'dry'],
      ['Sleeve rings', 'seal-worn'],
      ['Bumpers', 'seal-worn'],
    ],
    { nominals: ['supply', 'cycle-rate'] },
  ),
  machine(
    'pulse valve',
    'pulse valve',
    [
      ['Piston rings', 'seal-worn', 'dry'],
      ['Spindle rings', 'seal-worn'],
      ['Foot O-ring', 'seal-worn'],
      ['Spring', 'spring-weak'],
    ],
    { nominals: ['supply'] },
  ),
  machine(
    'transfer valve',
    'shuttle transfer valve',
    [
      ['Outer O-rings', 'seal-worn', 'dry'],
      ['Disc O-ring', 'seal-worn'],
      ['Shaft seals', 'dry'],
      ['Shuttle faces', 'seal-worn'],
    ],
    { nominals: ['supply'] },
  ),
  machine(
    'coupler',
    'dry-break coupler',
    [
      ['Nose seal', 'seal-worn'],
      ['Poppet', 'fouled', 'seal-worn'],
      ['Shaft seal', 'seal-worn'],
      ['Joint seal', 'seal-worn'],
      ['Interlocks', 'dry'],
    ],
    { nominals: ['test-pressure', 'air-test'] },
  ),
  machine(
    'sampler',
    'captive-piston sampler',
    [
      ['Plunger seals', 'seal-worn', 'dry'],
      ['Rod seals', 'seal-worn'],
      ['Joints', 'seal-worn'],
      ['Piston seals', 'seal-worn', 'dry'],
    ],
    { nominals: ['stroke-volume', 'supply'] },
  ),
  machine(
    'injector',
    'proportional injector',
    [
      ['Plunger seal', 'seal-worn'],
      ['Check valve', 'fouled', 'seal-worn'],
      ['Stem O-rings', 'seal-worn'],
    ],
    { nominals: ['ratio'] },
  ),
]
