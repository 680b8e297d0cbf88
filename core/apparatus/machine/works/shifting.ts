import { type Work, drips, FELT, SEEN, shutIn, stroke, type Tried } from './work'

/** Part of its supply at which a healthy one moves. */
const MOVES_AT = 0.4
const STIFF_MOVES_AT = 1.6

export const mixProof: Work = {
  measures: {
    upper: (t) => drips(t.worn('upper-plug-seal', 'seal-worn'), 60),
    lower: (t) => drips(t.worn('lower-plug-seal', 'seal-worn'), 60),
    'open-time': (t) => stroke(1.5, t.worn('lip-seals', 'dry')),
    'shut-time': (t) => stroke(1.7, t.worn('lip-seals', 'dry')),
    stroke: (t) => 0.025 * (1 - 0.3 * t.worn('lip-seals', 'dry')),
    'lift-upper': (t) => 0.003 * (1 - 0.8 * t.worn('lip-seals', 'dry')),
    'lift-lower': (t) => 0.0028 * (1 - 0.8 * t.worn('lip-seals', 'dry')),
  },
  answers: {
    lifts: (t) => t.worn('lip-seals', 'dry') < FELT,
    air: (t) => t.worn('actuator-seals', 'seal-worn') < SEEN,
  },
}

/** What a high-pressure valve is proved at where its page does not say it, kPa. */
const PROVED_AT = 70_000
const provedAt = (t: Tried) => t.nominal('test-pressure', PROVED_AT)

export const onOff: Work = {
  shutsIn: ['test-start'],
  measures: {
    drip: (t) =>
      drips(t.worn('needle-and-seat', 'fouled'), 40) +
      drips(t.worn('needle-and-seat', 'seal-worn'), 120),
    'test-start': provedAt,
    'test-end': (t) => shutIn(provedAt(t), t.shutInS, t.worn('needle-and-seat', 'seal-worn')),
    'opens-at': (t) =>
      Math.min(
        t.supplyKpa * (0.6 + 0.9 * t.worst('dry', 'stem-seal', 'actuator-seals')),
        1.5 * t.supplyKpa,
      ),
    'open-time': (t) => stroke(0.7, t.worst('dry', 'stem-seal', 'actuator-seals')),
    'shut-time': (t) => stroke(0.8, t.worst('dry', 'stem-seal', 'actuator-seals')),
  },
  answers: {
    medium: () => true,
    upper: (t) => t.worn('stem-seal', 'seal-worn') < SEEN,
    middle: (t) => t.worn('adapter', 'seal-worn') < SEEN,
    lower: (t) => t.worn('needle-and-seat', 'seal-worn') < FELT,
  },
}

export const spool: Work = {
  measures: {
    'shifts-at': (t) => t.supplyKpa * (MOVES_AT + STIFF_MOVES_AT * t.worn('spool-rings', 'dry')),
    strokes: (t) => t.nominal('cycle-rate', 40 / 60) * (1 - 0.7 * t.worn('spool-rings', 'dry')),
    'time-one': (t) => stroke(0.4, t.worn('spool-rings', 'dry')),
    'time-other': (t) => stroke(0.42, t.worn('spool-rings', 'dry')),
  },
  answers: {
    exhaust: (t) => t.worst('seal-worn', 'spool-rings', 'sleeve-o-rings') < SEEN,
    hand: (t) => t.worn('spool-rings', 'dry') < FELT,
    joint: (t) => t.worn('port-seals', 'seal-worn') < SEEN,
  },
}

export const cycling: Work = {
  shutsIn: ['stall-start'],
  measures: {
    cycles: (t) => t.nominal('cycle-rate', 1) * (1 - 0.8 * t.worn('spool-rings', 'dry')),
    'stall-start': (t) => t.supplyKpa,
    'stall-end': (t) =>
      shutIn(t.supplyKpa, t.shutInS, t.worst('seal-worn', 'spool-rings', 'sleeve-rings')),
    retainer: () => 5,
  },
  answers: {
    exhaust: (t) => t.worst('seal-worn', 'spool-rings', 'sleeve-rings') < SEEN,
    smooth: (t) => Math.max(t.worn('bumpers', 'seal-worn'), t.worn('spool-rings', 'dry')) < FELT,
  },
}

export const pulse: Work = {
  shutsIn: ['hold-start'],
  measures: {
    'moves-at': (t) => t.supplyKpa * (MOVES_AT + STIFF_MOVES_AT * t.worn('piston-rings', 'dry')),
    'time-out': (t) => stroke(0.7, t.worn('piston-rings', 'dry')),
    'time-back': (t) =>
      stroke(0.8, Math.max(t.worn('piston-rings', 'dry'), t.worn('spring', 'spring-weak'))),
    'hold-start': (t) => t.supplyKpa,
    'hold-end': (t) => shutIn(t.supplyKpa, t.shutInS, t.worn('piston-rings', 'seal-worn')),
    'far-end': () => 0.012,
  },
  answers: {
    fuel: (t) => t.worst('seal-worn', 'spindle-rings', 'foot-o-ring') < SEEN,
  },
}

export const transfer: Work = {
  shutsIn: ['tower-start'],
  measures: {
    // Worn seals make it slow; a shaft put in backwards is what makes the projections unequal.
    'projection-one': () => 0.02,
    'projection-other': () => 0.02,
    'throw-one': (t) => stroke(0.8, t.worst('dry', 'outer-o-rings', 'shaft-seals')),
    'throw-other': (t) => stroke(0.85, t.worst('dry', 'outer-o-rings', 'shaft-seals')),
    'control-line': (t) => 150 * t.worn('outer-o-rings', 'seal-worn'),
    'tower-start': (t) => t.supplyKpa,
    'tower-end': (t) => shutIn(t.supplyKpa, t.shutInS, t.worn('shuttle-faces', 'seal-worn')),
  },
  answers: {
    crossing: (t) => t.worn('disc-o-ring', 'seal-worn') < SEEN,
  },
}
