import { type Work, drips, FELT, SEEN, shutIn, stroke, type Tried } from './work'

/** Air that a coupler is tried with where its page does not say it, of what it is supplied with. */
const TRIED_WITH = 0.2
const triedKpa = (t: Tried) => t.nominal('air-test', t.supplyKpa * TRIED_WITH)
/** What it is filled to where its page does not say it, kPa. */
const FILLED_TO = 1_000

export const coupler: Work = {
  shutsIn: ['air-start'],
  measures: {
    fill: (t) => t.nominal('test-pressure', FILLED_TO),
    nose: (t) => drips(t.worn('nose-seal', 'seal-worn'), 60),
    shaft: (t) => drips(t.worn('shaft-seal', 'seal-worn'), 60),
    poppet: (t) =>
      drips(t.worst('fouled', 'poppet'), 40) + drips(t.worn('poppet', 'seal-worn'), 90),
    spill: (t) => 15e-6 * (1 + 4 * t.worn('poppet', 'seal-worn')),
    joint: (t) => drips(t.worn('joint-seal', 'seal-worn'), 40),
    'air-start': triedKpa,
    'air-end': (t) =>
      shutIn(triedKpa(t), t.shutInS, t.worst('seal-worn', 'poppet', 'shaft-seal', 'joint-seal')),
  },
  answers: {
    medium: () => true,
    interlocks: (t) => t.worn('interlocks', 'dry') < FELT,
    fingers: (t) => t.worn('interlocks', 'dry') < FELT,
    strokes: (t) => t.worn('interlocks', 'dry') < FELT,
    handle: (t) => t.worn('interlocks', 'dry') < FELT,
  },
}

const sampleOf = (plungerWorn: number) => 1 - 0.5 * plungerWorn

export const sampler: Work = {
  measures: {
    air: (t) => t.supplyKpa,
    volume: (t) =>
      t.nominal('stroke-volume', 30e-6) * sampleOf(t.worn('plunger-seals', 'seal-worn')),
    'volume-least': (t) =>
      t.nominal('stroke-volume', 30e-6) *
      sampleOf(t.worn('plunger-seals', 'seal-worn')) *
      (1 - 0.03 - 0.5 * t.worst('dry', 'plunger-seals', 'piston-seals')),
    drip: (t) => drips(t.worn('plunger-seals', 'seal-worn'), 40),
    'time-out': (t) => stroke(1.2, t.worst('dry', 'plunger-seals', 'piston-seals')),
    'time-back': (t) => stroke(1.3, t.worst('dry', 'plunger-seals', 'piston-seals')),
  },
  answers: {
    drain: (t) => t.worn('rod-seals', 'seal-worn') < SEEN,
    outside: (t) => t.worn('joints', 'seal-worn') < SEEN,
    'air-rest': (t) => t.worn('piston-seals', 'seal-worn') < SEEN,
  },
}

export const injector: Work = {
  measures: {
    clicks: (t) => (12 / 60) * (1 - 0.5 * t.worn('plunger-seal', 'seal-worn')),
    setting: (t) => t.nominal('ratio', 0.02),
    ratio: (t) => t.nominal('ratio', 0.02) * (1 - 0.6 * t.worn('plunger-seal', 'seal-worn')),
  },
  answers: {
    drip: (t) => t.worn('stem-o-rings', 'seal-worn') < SEEN,
    column: (t) => t.worst('fouled', 'check-valve') + t.worn('check-valve', 'seal-worn') < SEEN,
  },
}
