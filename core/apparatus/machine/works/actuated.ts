import { type Work, drips, FELT, SEEN, shutIn, stroke, type Tried } from './work'

/** Of the range of its spring: what a healthy seal rubs, and what dry ones add. */
const RUBS = 0.025
const DRY_RUBS = 0.25
const PSI = 6.894757

/** Air for first movement and full travel without friction, and the friction itself, kPa. */
function benchOf(t: Tried) {
  const low = t.nominal('bench-low', 6 * PSI)
  const high = t.nominal('bench-high', 30 * PSI)
  const spring = 1 - 0.4 * t.worn('spring', 'spring-weak')
  const dry = t.worst('dry', 'piston-seal', 'bushings')
  return {
    low: low * spring,
    high: high * spring,
    friction: (high - low) * (RUBS + DRY_RUBS * dry),
  }
}
const atMost = (t: Tried, kpa: number) => Math.max(0, Math.min(kpa, t.supplyKpa))
const travel = (t: Tried) => t.travel
const strokePoints = {
  ...Object.fromEntries(
    ['up', 'down'].flatMap((way) =>
      ['0', '25', '50', '75', '100'].map((at) => [`${way}-${at}`, travel]),
    ),
  ),
  'again-50': travel,
}

/** Where it stands, and by how much air that has just been pressed in is warmer, K; it cools within minutes. */
const PLACE_K = 291
const WARMED_K = 6
const COOLS_S = 120
const ATMOSPHERE_KPA = 101.325
const shutInK = (t: Tried) => PLACE_K + WARMED_K * Math.exp(-t.shutInS / COOLS_S)

const actuatorLeak = (t: Tried) => t.worst('seal-worn', 'piston-seal', 'stem-seal')

/** A cylinder with a spring, a positioner and bushings. */
export const actuator: Work = {
  positioner: 'positioner',
  shutsIn: ['hold-start'],
  measures: {
    ...strokePoints,
    'supply-read': (t) => t.supplyKpa,
    'first-up': (t) => atMost(t, benchOf(t).low + benchOf(t).friction),
    'full-up': (t) => atMost(t, benchOf(t).high + benchOf(t).friction),
    'first-down': (t) => atMost(t, benchOf(t).high - benchOf(t).friction),
    'full-down': (t) => atMost(t, benchOf(t).low - benchOf(t).friction),
    'hold-start': (t) => t.supplyKpa * 0.7,
    'temp-start': shutInK,
    'temp-end': shutInK,
    'hold-end': (t) => {
      const held = shutIn(t.supplyKpa * 0.7, t.shutInS, actuatorLeak(t))
      return ((held + ATMOSPHERE_KPA) * shutInK(t)) / (PLACE_K + WARMED_K) - ATMOSPHERE_KPA
    },
  },
  answers: {
    // A spring that no longer overcomes its friction leaves it where it stands.
    fail: (t) => benchOf(t).low > benchOf(t).friction,
    air: (t) => t.supplyKpa > benchOf(t).high + benchOf(t).friction,
    free: (t) => t.worst('dry', 'piston-seal', 'bushings') < FELT,
    outside: (t) => t.worst('seal-worn', 'stem-seal', 'bushings') < SEEN,
  },
}

/** A valve with a motor, which follows its signal. */
export const controlValve: Work = {
  positioner: 'drive',
  measures: strokePoints,
  answers: {
    binding: (t) => t.worn('drive', 'dry') < FELT,
    'shut-tight': (t) =>
      Math.max(t.worst('seal-worn', 'seat', 'cone'), t.worn('seat', 'fouled')) < SEEN,
    detector: (t) => t.worn('top-gasket', 'seal-worn') < SEEN,
  },
}

/** A cylinder under a threaded lid, sent home by its spring. */
export const cylinder: Work = {
  shutsIn: ['hold-start'],
  measures: {
    'supply-read': (t) => t.supplyKpa,
    'stroke-out': (t) => stroke(1.2, t.worn('quad-ring', 'dry')),
    'stroke-back': (t) =>
      stroke(1.6, Math.max(t.worn('quad-ring', 'dry'), t.worn('spring', 'spring-weak'))),
    'hold-start': (t) => t.supplyKpa * 0.9,
    'hold-end': (t) =>
      shutIn(
        t.supplyKpa * 0.9,
        t.shutInS,
        t.worst('seal-worn', 'quad-ring', 'lid-seals', 'shaft-seals'),
      ),
  },
  answers: {
    home: (t) => Math.max(t.worn('spring', 'spring-weak'), t.worn('quad-ring', 'dry')) < FELT,
    breather: (t) => t.worn('quad-ring', 'seal-worn') < SEEN,
    outside: (t) => t.worst('seal-worn', 'lid-seals', 'shaft-seals') < SEEN,
    free: (t) => t.worn('quad-ring', 'dry') < FELT,
  },
}

/** A check that is held shut by its spring and opened by air. */
export const checkValve: Work = {
  measures: {
    air: (t) => t.supplyKpa,
    cracking: (t) => atMost(t, t.supplyKpa * (0.5 + 0.6 * t.worn('actuator-seals', 'dry'))),
    bubbles: (t) =>
      drips(t.worn('main-seat', 'fouled'), 80) + drips(t.worn('main-seat', 'seal-worn'), 200),
  },
  answers: {
    moves: (t) => t.worn('actuator-seals', 'dry') < FELT,
    product: (t) => t.worn('coupling-seals', 'seal-worn') < SEEN,
    contact: (t) => t.worn('main-seat', 'seal-worn') < FELT,
    outside: (t) => t.worn('actuator-seals', 'seal-worn') < SEEN,
  },
}
