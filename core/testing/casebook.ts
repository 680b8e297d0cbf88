/**
 * What one test found, and the part that turned out to be to blame: written from the tables of symptoms of the
 * machines and of the trade, not from the model. What is not named was in order.
 */
export interface Case {
  readonly kind: string
  readonly pack: string
  /** By item: an answer, or a reading as a multiple of that of sound equipment (`x0.5`) or with so much more (`+0.4`). */
  readonly seen: Readonly<Record<string, string>>
  /** The part to blame, or the two. */
  readonly parts: readonly [string] | readonly [string, string]
}

const RELIEF_FIRST = 'larkhaven-relief-first'
const CHECK_FIRST = 'larkhaven-check-first'
const METRIC = 'larkhaven-metric-zone'
const AT_FLOW = 'larkhaven-gas-at-flow'
const AT_LOCK_UP = 'larkhaven-gas-at-lock-up'
const REDUCERS = 'larkhaven-pressure-reducers'
const VALVES = 'larkhaven-valves-and-actuators'

const of =
  (pack: string, kind: string) =>
  (part: string | readonly [string, string], seen: Readonly<Record<string, string>>): Case => ({
    kind,
    pack,
    seen,
    parts: typeof part === 'string' ? [part] : part,
  })

const rp = of(RELIEF_FIRST, 'RP')
const rpCheckFirst = of(CHECK_FIRST, 'RP')
const rpMetric = of(METRIC, 'RP')
const dc = of(RELIEF_FIRST, 'DC')
const dcCheckFirst = of(CHECK_FIRST, 'DC')
const dcda = of(RELIEF_FIRST, 'DCDA')
const rpda = of(RELIEF_FIRST, 'RPDA')
const pvb = of(RELIEF_FIRST, 'PVB')
const svb = of(RELIEF_FIRST, 'SVB')
const spring = of(AT_FLOW, 'spring regulator')
const springAtLockUp = of(AT_LOCK_UP, 'spring regulator')
const pilot = of(AT_FLOW, 'pilot regulator')
const dome = of(AT_FLOW, 'dome regulator')
const slam = of(AT_FLOW, 'slam-shut regulator')
const monitored = of(AT_FLOW, 'monitored regulator')
const reducer = of(REDUCERS, 'pressure reducer')
const inline = of(REDUCERS, 'in-line regulator')
const check = of(VALVES, 'check valve')
const actuator = of(VALVES, 'actuator')
const cylinder = of(VALVES, 'cylinder')
const control = of(VALVES, 'control valve')
const mixproof = of(VALVES, 'mix-proof valve')
const onOff = of(VALVES, 'on-off valve')
const spool = of(VALVES, 'spool valve')
const cycling = of(VALVES, 'cycling valve')
const pulse = of(VALVES, 'pulse valve')
const transfer = of(VALVES, 'transfer valve')
const coupler = of(VALVES, 'coupler')
const sampler = of(VALVES, 'sampler')
const injector = of(VALVES, 'injector')

/** One part to blame. */
export const casebook: readonly Case[] = [
  // Relief drips steadily and check 1 reads low: check 1. Both checks good: the relief.
  rp('check-1', { 'relief-at-rest': 'drips', 'relief-opening': 'x1', 'check-1': 'x0.37' }),
  rp('check-1', { 'relief-at-rest': 'drips', 'relief-opening': 'x0.95', 'check-1': 'x0.35' }),
  rp('check-1', { 'relief-at-rest': 'drips', 'check-2': 'leaked', 'check-1': 'x0.38' }),
  rp('check-1', { 'check-1': 'x0.55' }),
  rp('check-1', { 'check-1': 'x0.45' }),
  rp('relief', { 'relief-at-rest': 'drips' }),
  rp('relief', { 'relief-at-rest': 'drips', 'relief-opening': 'x1.1' }),
  rp('relief', { 'relief-opening': 'x0.5' }),
  rp('relief', { 'relief-opening': 'x0.1' }),
  rp('relief', { 'relief-opening': 'x2.2' }),
  rp('check-2', { 'check-2': 'leaked' }),
  rp('shutoff-2', { 'shutoff-2': 'leaks' }),
  rpCheckFirst('check-1', { 'relief-at-rest': 'drips', 'check-1': 'x0.4' }),
  rpCheckFirst('check-1', { 'check-1': 'x0.5' }),
  rpCheckFirst('relief', { 'relief-opening': 'x0.4' }),
  rpCheckFirst('relief', { 'relief-at-rest': 'drips' }),
  rpCheckFirst('check-2', { 'check-2': 'leaked' }),
  rpCheckFirst('check-2', { 'check-2-flow': 'x0.3' }),
  rpCheckFirst('check-2', { 'check-2': 'leaked', 'check-2-flow': 'x0.1' }),
  rpMetric('check-1', { 'relief-at-rest': 'drips', 'check-1': 'x0.4' }),
  rpMetric('relief', { 'relief-opening': 'x0.5' }),
  rpMetric('check-2', { 'check-2': 'leaked' }),
  // A double check under its limit.
  dc('check-1', { 'check-1': 'x0.2' }),
  dc('check-1', { 'check-1': 'x0.5' }),
  dc('check-1', { 'check-1': 'x0' }),
  dc('check-2', { 'check-2': 'x0.2' }),
  dc('check-2', { 'check-2': 'x0.5' }),
  dc('check-2', { 'check-2': 'x0' }),
  dc('shutoff-2', { 'shutoff-2': 'leaks' }),
  dc('shutoff-1', { 'cock-3-stopped': 'runs-on' }),
  dcCheckFirst('check-1', { 'check-1': 'x0.3' }),
  dcCheckFirst('check-2', { 'check-2': 'x0.3' }),
  dcCheckFirst('shutoff-2', { 'shutoff-2': 'leaks' }),
  // Detectors: the main check, the bypass, the meter.
  dcda('check-1', { 'check-1': 'x0.3' }),
  dcda('check-2', { 'check-2': 'x0.3' }),
  dcda('bypass-check-1', { 'bypass-check-1': 'x0.3' }),
  dcda('bypass-check-2', { 'bypass-check-2': 'x0' }),
  dcda('bypass-meter', { 'bypass-meter': 'stands' }),
  rpda('check-1', { 'relief-at-rest': 'drips', 'check-1': 'x0.4' }),
  rpda('relief', { 'relief-opening': 'x0.4' }),
  rpda('bypass-relief', { 'bypass-relief-opening': 'x0.4' }),
  rpda('bypass-check-2', { 'bypass-check-2': 'leaked' }),
  rpda('bypass-meter', { 'bypass-meter': 'stands' }),
  // Vacuum breakers.
  pvb('air-inlet', { 'air-inlet': 'x0.4' }),
  pvb('air-inlet', { 'air-inlet': 'x0', 'air-inlet-open': 'part' }),
  pvb('air-inlet', { 'air-inlet-open': 'part' }),
  pvb('air-inlet', { spill: 'spills' }),
  pvb('check-1', { check: 'x0.3' }),
  pvb('check-1', { check: 'x0' }),
  svb('air-inlet', { 'air-inlet': 'x0.5' }),
  svb('air-inlet', { 'air-inlet-open': 'part' }),
  svb('air-inlet', { spill: 'spills' }),
  svb('check-1', { check: 'x0.2' }),
  svb('check-1', { check: 'x0' }),
  // Gas regulators: creep is the seat, droop the inside, hunting the vent or the sense line.
  spring('regulator', { creep: 'x1.12' }),
  spring('regulator', { 'lock-up': 'x1.2', creep: 'x1.25' }),
  spring('regulator', { 'half-load': 'x0.85', load: 'x0.6' }),
  spring('regulator', { load: 'x0.5' }),
  spring('regulator', { 'load swing': '+3' }),
  spring('regulator', { set: 'x0.8', running: 'x0.8', 'lock-up': 'x0.8', creep: 'x0.8' }),
  spring('relief', { breath: 'blows' }),
  spring('relief', { 'relief-start': 'x0.9' }),
  spring('relief', { 'relief-start': 'x1.25' }),
  spring('relief', { reseat: 'x0.7' }),
  springAtLockUp('regulator', { 'lock-up': 'x1.15', creep: 'x1.2' }),
  springAtLockUp('regulator', { load: 'x0.5', 'half-load': 'x0.8' }),
  springAtLockUp('relief', { 'relief-start': 'x1.3' }),
  pilot('regulator', { creep: 'x1.15' }),
  pilot('regulator', { 'load swing': '+3' }),
  pilot('regulator', { load: 'x0.6' }),
  pilot('regulator', { 'travel-free': 'sticks' }),
  pilot('relief', { 'relief-start': 'x1.3' }),
  dome('regulator', { creep: 'x1.15' }),
  dome('regulator', { load: 'x0.5', 'half-load': 'x0.8' }),
  dome('regulator', { 'loading-after': 'x0.6' }),
  dome('relief', { breath: 'blows' }),
  slam('slam-shut', { 'trip-high': 'x1.3' }),
  slam('slam-shut', { 'trip-low': 'x0.6' }),
  slam('slam-shut', { 'cut-off': 'stays' }),
  slam('regulator', { creep: 'x1.15' }),
  monitored('monitor', { 'take-over': 'x1.2' }),
  monitored('monitor', { 'monitor-creep': 'x1.15' }),
  monitored('regulator', { creep: 'x1.1' }),
  // Water: the same.
  reducer('regulator', { creep: 'x1.15' }),
  reducer('regulator', { load: 'x0.5' }),
  reducer('regulator', { 'load swing': '+4' }),
  inline('regulator', { creep: 'x1.2' }),
  inline('regulator', { range: 'one' }),
  inline('regulator', { set: 'x0.7', running: 'x0.7', 'lock-up': 'x0.7', creep: 'x0.7' }),
  // Air-blow check valve.
  check('main-seat', { bubbles: '+30' }),
  check('main-seat', { bubbles: '+5' }),
  check('main-seat', { contact: 'broken', bubbles: '+10' }),
  check('coupling-seals', { product: 'wet' }),
  check('actuator-seals', { outside: 'seen' }),
  check('actuator-seals', { moves: 'not-full' }),
  check('actuator-seals', { cracking: 'x1.8' }),
  // Actuators: spring, seals, positioner.
  actuator('piston-seal', { 'hold-end': 'x0.7' }),
  actuator('bushings', { outside: 'seen' }),
  actuator('spring', { fail: 'stays' }),
  actuator('spring', { fail: 'other' }),
  actuator('bushings', { free: 'binds' }),
  // The threaded lid.
  cylinder('quad-ring', { breather: 'blows' }),
  cylinder('quad-ring', { breather: 'blows', 'hold-end': 'x0.7' }),
  cylinder('shaft-seals', { outside: 'seen' }),
  cylinder('spring', { 'stroke-back': 'x4' }),
  cylinder('spring', { home: 'not' }),
  cylinder('quad-ring', { free: 'binds', 'stroke-out': 'x3', 'stroke-back': 'x3' }),
  // Motor control valve.
  control('seat', { 'shut-tight': 'stays' }),
  control('top-gasket', { detector: 'seen' }),
  control('drive', { binding: 'binds' }),
  control('top-gasket', { dry: 'wet' }),
  // Mix-proof valve.
  mixproof('upper-plug-seal', { upper: '+20' }),
  mixproof('upper-plug-seal', { upper: '+4' }),
  mixproof('lower-plug-seal', { lower: '+20' }),
  mixproof('lower-plug-seal', { lower: '+4' }),
  mixproof('lip-seals', { lifts: 'not' }),
  mixproof('lip-seals', { 'open-time': 'x4', 'shut-time': 'x4' }),
  mixproof('actuator-seals', { air: 'seen' }),
  // High-pressure on-off valve.
  onOff('needle-and-seat', { drip: '+20' }),
  onOff('needle-and-seat', { drip: '+3' }),
  onOff('stem-seal', { upper: 'wet' }),
  onOff('adapter', { middle: 'wet' }),
  onOff('needle-and-seat', { lower: 'wet' }),
  onOff('stem-seal', { 'opens-at': 'x1.8' }),
  onOff('stem-seal', { 'open-time': 'x4', 'opens-at': 'x1.6' }),
  // Spool valves.
  spool('spool-rings', { exhaust: 'blows' }),
  spool('port-seals', { joint: 'seen' }),
  spool('spool-rings', { 'shifts-at': 'x2.5' }),
  spool('spool-rings', { hand: 'catches' }),
  spool('spool-rings', { exhaust: 'blows', 'shifts-at': 'x2' }),
  cycling('spool-rings', { exhaust: 'blows' }),
  cycling('spool-rings', { exhaust: 'blows', 'stall-end': 'x0.7' }),
  cycling('bumpers', { smooth: 'jerks' }),
  // Pulse valve.
  pulse('piston-rings', { 'hold-end': 'x0.6' }),
  pulse('piston-rings', { 'moves-at': 'x6' }),
  pulse('spindle-rings', { fuel: 'seen' }),
  pulse('spring', { 'time-back': 'x4' }),
  // Transfer valve.
  transfer('outer-o-rings', { 'control-line': '+8' }),
  transfer('disc-o-ring', { crossing: 'crosses' }),
  transfer('shuttle-faces', { 'tower-end': 'x0.6' }),
  transfer('shaft-seals', { 'throw-one': 'x4', 'throw-other': 'x4' }),
  // Couplers.
  coupler('nose-seal', { nose: '+10' }),
  coupler('shaft-seal', { shaft: '+10' }),
  coupler('joint-seal', { joint: '+10' }),
  coupler('poppet', { poppet: '+10' }),
  coupler('interlocks', { interlocks: 'opens' }),
  coupler('interlocks', { fingers: 'not' }),
  coupler('interlocks', { strokes: 'catches' }),
  coupler('poppet', { spill: '+20' }),
  // Sampler.
  sampler('plunger-seals', { drip: '+6' }),
  sampler('rod-seals', { drain: 'weeps' }),
  sampler('rod-seals', { drain: 'air' }),
  sampler('joints', { outside: 'seen' }),
  sampler('piston-seals', { 'time-out': 'x4', 'time-back': 'x4' }),
  sampler('plunger-seals', { volume: 'x0.6', 'volume-least': 'x0.6' }),
  sampler('piston-seals', { 'air-rest': 'blows' }),
  // Injector.
  injector('plunger-seal', { ratio: 'x0.5' }),
  injector('check-valve', { column: 'rises' }),
  injector('check-valve', { column: 'falls' }),
  injector('stem-o-rings', { drip: 'seen' }),
]

/** Two parts to blame at once. */
export const twoAtOnce: readonly Case[] = [
  dc(['check-1', 'check-2'], { 'check-1': 'x0.2', 'check-2': 'x0.2' }),
  dc(['check-1', 'check-2'], { 'check-1': 'x0.5', 'check-2': 'x0' }),
  dcCheckFirst(['check-1', 'check-2'], { 'check-1': 'x0', 'check-2': 'x0.4' }),
  rp(['check-1', 'check-2'], { 'check-1': 'x0.5', 'check-2': 'leaked' }),
  rp(['relief', 'check-2'], { 'relief-opening': 'x0.4', 'check-2': 'leaked' }),
  rp(['relief', 'check-1'], { 'relief-opening': 'x0.4', 'check-1': 'x0.5' }),
  rpCheckFirst(['check-1', 'check-2'], { 'check-1': 'x0.5', 'check-2-flow': 'x0.2' }),
  dcda(['check-1', 'bypass-check-2'], { 'check-1': 'x0.2', 'bypass-check-2': 'x0.1' }),
  dcda(['check-2', 'bypass-meter'], { 'check-2': 'x0.2', 'bypass-meter': 'stands' }),
  pvb(['air-inlet', 'check-1'], { 'air-inlet': 'x0.3', check: 'x0.2' }),
  svb(['air-inlet', 'check-1'], { 'air-inlet-open': 'part', check: 'x0' }),
  spring(['regulator', 'relief'], { creep: 'x1.1', 'relief-start': 'x1.3' }),
  spring(['regulator', 'relief'], { load: 'x0.5', 'relief-start': 'x0.9' }),
  slam(['slam-shut', 'regulator'], { 'trip-high': 'x1.3', load: 'x0.5' }),
  monitored(['monitor', 'regulator'], { 'monitor-creep': 'x1.15', load: 'x0.5' }),
  check(['main-seat', 'coupling-seals'], { bubbles: '+20', product: 'wet' }),
  cylinder(['quad-ring', 'shaft-seals'], { breather: 'blows', outside: 'seen' }),
  control(['seat', 'top-gasket'], { 'shut-tight': 'stays', detector: 'seen' }),
  mixproof(['upper-plug-seal', 'lower-plug-seal'], { upper: '+10', lower: '+10' }),
  mixproof(['upper-plug-seal', 'actuator-seals'], { upper: '+10', air: 'seen' }),
  onOff(['needle-and-seat', 'stem-seal'], { drip: '+10', upper: 'wet' }),
  onOff(['stem-seal', 'adapter'], { upper: 'wet', middle: 'wet' }),
  spool(['spool-rings', 'port-seals'], { exhaust: 'blows', joint: 'seen' }),
  pulse(['spring', 'spindle-rings'], { 'time-back': 'x4', fuel: 'seen' }),
  transfer(['outer-o-rings', 'disc-o-ring'], { 'control-line': '+8', crossing: 'crosses' }),
  coupler(['nose-seal', 'shaft-seal'], { nose: '+10', shaft: '+10' }),
  coupler(['poppet', 'interlocks'], { poppet: '+10', interlocks: 'opens' }),
  sampler(['plunger-seals', 'rod-seals'], { drip: '+6', drain: 'weeps' }),
  sampler(['joints', 'piston-seals'], { outside: 'seen', 'air-rest': 'blows' }),
  injector(['check-valve', 'stem-o-rings'], { column: 'falls', drip: 'seen' }),
]
