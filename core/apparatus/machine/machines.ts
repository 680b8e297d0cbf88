import type { NominalName } from '../nominal'
import type { Apparatus } from '../types'

/** A machine that is proved on the spot: its parts that are cleaned or renewed, and what it is judged by. */
const machine = (
  kind: string,
  title: string,
  parts: readonly string[],
  nominals: readonly NominalName[] = [],
): Apparatus => ({
  kind,
  title,
  places: [],
  elements: parts.map((label) => {
    const id = label.toLowerCase().replaceAll(' ', '-')
    return { id, name: id, role: 'machine', label, line: 'main', at: 'body' }
  }),
  bench: [],
  shows: null,
  hoses: [],
  nominals,
  lines: [],
})

/** Check valves, actuators, control and process valves, couplers, samplers, injectors. */
export const machines: readonly Apparatus[] = [
  machine(
    'check valve',
    'air-blow check valve',
    ['Main seat', 'Coupling seals', 'Actuator seals'],
    ['supply'],
  ),
  machine(
    'actuator',
    'spring-return cylinder actuator',
    ['Piston seal', 'Stem seal', 'Bushings', 'Spring'],
    ['travel', 'supply', 'bench-low', 'bench-high'],
  ),
  machine(
    'cylinder',
    'threaded-lid cylinder',
    ['Quad ring', 'Lid seals', 'Shaft seals', 'Spring'],
    ['supply'],
  ),
  machine(
    'control valve',
    'motor-operated control valve',
    ['Seat', 'Cone', 'Top gasket', 'Drive'],
    ['travel'],
  ),
  machine('mix-proof valve', 'double-seat mix-proof valve', [
    'Upper plug seal',
    'Lower plug seal',
    'Lip seals',
    'Actuator seals',
  ]),
  machine(
    'on-off valve',
    'high-pressure water valve',
    ['Needle and seat', 'Stem seal', 'Adapter', 'Actuator seals'],
    ['supply'],
  ),
  machine(
    'spool valve',
    'spool valve',
    ['Spool rings', 'Sleeve O-rings', 'Port seals'],
    ['supply'],
  ),
  machine('cycling valve', 'cycling valve', ['Spool rings', 'Sleeve rings', 'Bumpers'], ['supply']),
  machine(
    'pulse valve',
    'pulse valve',
    ['Piston rings', 'Spindle rings', 'Foot O-ring', 'Spring'],
    ['supply'],
  ),
  machine('transfer valve', 'shuttle transfer valve', [
    'Outer O-rings',
    'Disc O-ring',
    'Shaft seals',
    'Shuttle faces',
  ]),
  machine('coupler', 'dry-break coupler', ['Nose seal', 'Poppet', 'Shaft seal', 'Interlocks']),
  machine(
    'sampler',
    'captive-piston sampler',
    ['Plunger seals', 'Rod seals', 'Piston seals'],
    ['stroke-volume', 'supply'],
  ),
  machine(
    'injector',
    'proportional injector',
    ['Plunger seal', 'Check valve', 'Stem O-rings'],
    ['ratio'],
  ),
]
