type Points = Readonly<Record<string, readonly string[]>>

/** Assemblies: the diagnosis table of the trade (handbook, section 7). */
const assembly: Points = {
  'relief-at-rest': ['relief', 'check-1', 'check-2'],
  'relief-opening': ['relief'],
  'check-1': ['check-1'],
  'check-2': ['check-2'],
  'shutoff-1': ['shutoff-1'],
  'shutoff-2': ['shutoff-2'],
  'air-inlet': ['air-inlet'],
  'air-inlet-open': ['air-inlet'],
  spill: ['air-inlet'],
  // A cock or a vent that runs on is fed past a shutoff (handbook, section 3.1).
  'cock-2-stopped': ['shutoff-1', 'shutoff-2'],
  'cock-3-stopped': ['shutoff-1'],
  'cock-4-stopped': ['shutoff-1'],
  'vent-stopped': ['shutoff-1', 'shutoff-2'],
  check: ['check', 'check-1'],
}
/** Regulators: the same table, and the symptoms of the machines. */
const regulator: Points = {
  breath: ['relief', 'regulator'],
  vent: ['regulator', 'relief'],
  set: ['regulator'],
  'lock-up': ['regulator'],
  creep: ['regulator', 'shutoff-2'],
  settled: ['regulator'],
  'half-load': ['regulator'],
  load: ['regulator'],
  hunting: ['regulator'],
  'travel-free': ['regulator'],
  'loading-after': ['regulator'],
  loading: ['regulator'],
  'relief-start': ['relief'],
  reseat: ['relief'],
  'trip-high': ['slam-shut'],
  'trip-low': ['slam-shut'],
  'cut-off': ['slam-shut'],
  'take-over': ['monitor'],
  'monitor-lock-up': ['monitor'],
  'monitor-creep': ['monitor'],
}

/**
 * Parts that a failed item points to, the first first, by kind of equipment: what the trade looks at when no single
 * fault of the model explains a test. From the tables of symptoms of the machines and the handbook, section 7.
 */
const POINTS_TO: Readonly<Record<string, Points>> = {
  RP: assembly,
  RPDA: assembly,
  DC: assembly,
  DCDA: assembly,
  PVB: assembly,
  SVB: assembly,
  'spring regulator': regulator,
  'pilot regulator': regulator,
  'dome regulator': regulator,
  'slam-shut regulator': regulator,
  'monitored regulator': regulator,
  'in-line regulator': regulator,
  'pressure reducer': regulator,
  'check valve': {
    bubbles: ['main-seat'],
    contact: ['main-seat'],
    product: ['coupling-seals'],
    moves: ['actuator-seals'],
    cracking: ['actuator-seals'],
    outside: ['actuator-seals'],
  },
  actuator: {
    fail: ['spring'],
    'hold-end': ['piston-seal', 'stem-seal'],
    outside: ['bushings', 'stem-seal'],
    friction: ['piston-seal', 'bushings'],
    free: ['bushings', 'piston-seal'],
    'worst-error': ['positioner'],
    hysteresis: ['positioner', 'piston-seal'],
    repeatability: ['positioner'],
  },
  cylinder: {
    outside: ['shaft-seals', 'lid-seals'],
    'hold-end': ['quad-ring', 'shaft-seals', 'lid-seals'],
    breather: ['quad-ring'],
    home: ['spring', 'quad-ring'],
    'stroke-out': ['quad-ring'],
    'stroke-back': ['spring', 'quad-ring'],
    free: ['quad-ring'],
  },
  'control valve': {
    binding: ['drive'],
    'shut-tight': ['seat', 'cone'],
    detector: ['top-gasket'],
    dry: ['top-gasket', 'drive'],
    'worst-error': ['drive'],
    hysteresis: ['drive'],
  },
  'mix-proof valve': {
    upper: ['upper-plug-seal'],
    lower: ['lower-plug-seal'],
    lifts: ['lip-seals'],
    'lift-upper': ['lip-seals'],
    'lift-lower': ['lip-seals'],
    stroke: ['lip-seals'],
    air: ['actuator-seals'],
  },
  'on-off valve': {
    drip: ['needle-and-seat'],
    upper: ['stem-seal'],
    middle: ['adapter'],
    lower: ['needle-and-seat'],
    torque: ['needle-and-seat'],
    'opens-at': ['stem-seal', 'actuator-seals'],
    'open-time': ['stem-seal', 'actuator-seals'],
  },
  'spool valve': {
    exhaust: ['spool-rings', 'sleeve-o-rings'],
    joint: ['port-seals'],
    hand: ['spool-rings'],
    'shifts-at': ['spool-rings'],
  },
  'cycling valve': {
    exhaust: ['spool-rings', 'sleeve-rings'],
    smooth: ['bumpers', 'spool-rings'],
    'stall-end': ['spool-rings', 'sleeve-rings'],
  },
  'pulse valve': {
    fuel: ['spindle-rings', 'foot-o-ring'],
    'hold-end': ['piston-rings'],
    'moves-at': ['piston-rings'],
    'time-back': ['spring', 'piston-rings'],
  },
  'transfer valve': {
    crossing: ['disc-o-ring', 'outer-o-rings'],
    'control-line': ['outer-o-rings'],
    'tower-end': ['shuttle-faces'],
    'projection-other': ['shaft-seals'],
  },
  coupler: {
    nose: ['nose-seal'],
    shaft: ['shaft-seal'],
    joint: ['joint-seal'],
    poppet: ['poppet'],
    spill: ['poppet'],
    interlocks: ['interlocks'],
    fingers: ['interlocks'],
    strokes: ['interlocks'],
    handle: ['interlocks', 'shaft-seal'],
  },
  sampler: {
    drip: ['plunger-seals'],
    drain: ['rod-seals'],
    outside: ['joints'],
    'air-rest': ['piston-seals'],
    seals: ['plunger-seals', 'piston-seals'],
    volume: ['plunger-seals'],
  },
  injector: {
    bubbles: ['check-valve', 'plunger-seal'],
    column: ['check-valve'],
    drip: ['stem-o-rings'],
    ratio: ['plunger-seal'],
    clicks: ['plunger-seal'],
  },
}

/** Returns the parts that a failed item points to; empty where nothing is known of it. */
export const pointsTo = (kind: string, item: string): readonly string[] =>
  POINTS_TO[kind]?.[item] ?? []
