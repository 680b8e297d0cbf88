/**
 * Sizes of AS568 (inside diameter and section in inches); ISO 3601-1 takes over the same sizes in
 * millimetres. A run is a first dash number with its inside diameters in order.
 */
interface Run {
  readonly section: number
  readonly from: number
  readonly insides: readonly number[]
}

/** `count` sizes from `first` on, `step` apart. */
const steps = (first: number, step: number, count: number): number[] =>
  Array.from({ length: count }, (_, n) => Math.round((first + n * step) * 1000) / 1000)

const runs: readonly Run[] = [
  { section: 0.04, from: 1, insides: [0.029] },
  { section: 0.05, from: 2, insides: [0.042] },
  { section: 0.06, from: 3, insides: [0.056] },
  {
    section: 0.07,
    from: 4,
    insides: [
      0.07,
      0.101,
      0.114,
      0.145,
      0.176,
      0.208,
      0.239,
      0.301,
      0.364,
      0.426,
      0.489,
      0.551,
      0.614,
      0.676,
      0.739,
      0.801,
      0.864,
      0.926,
      0.989,
      1.051,
      1.114,
      1.176,
      1.239,
      1.301,
      1.364,
      ...steps(1.489, 0.125, 13),
      ...steps(3.239, 0.25, 9),
    ],
  },
  {
    section: 0.103,
    from: 102,
    insides: [
      0.049,
      0.081,
      0.112,
      0.143,
      0.174,
      0.206,
      0.237,
      0.299,
      0.362,
      0.424,
      0.487,
      0.549,
      0.612,
      0.674,
      0.737,
      0.799,
      0.862,
      0.924,
      0.987,
      1.049,
      1.112,
      1.174,
      1.237,
      1.299,
      1.362,
      1.424,
      1.487,
      1.549,
      1.612,
      1.674,
      1.737,
      1.799,
      1.862,
      1.925,
      1.987,
      2.05,
      2.112,
      2.175,
      2.237,
      2.3,
      2.362,
      2.425,
      2.487,
      2.55,
      2.612,
      2.675,
      2.737,
      2.8,
      2.862,
      2.987,
      ...steps(3.237, 0.25, 27),
    ],
  },
  {
    section: 0.139,
    from: 201,
    insides: [
      0.171,
      0.234,
      0.296,
      0.359,
      0.421,
      0.484,
      0.546,
      0.609,
      0.671,
      0.734,
      0.796,
      0.859,
      0.921,
      0.984,
      1.046,
      1.109,
      1.171,
      1.234,
      1.296,
      1.359,
      1.421,
      1.484,
      ...steps(1.609, 0.125, 36),
      ...steps(6.234, 0.25, 16),
      ...steps(10.484, 0.5, 4),
      12.984,
      13.984,
      14.984,
      15.955,
      16.955,
      17.955,
    ],
  },
  {
    section: 0.21,
    from: 309,
    insides: [
      0.412,
      0.475,
      0.537,
      0.6,
      0.662,
      0.725,
      0.787,
      0.85,
      0.912,
      0.975,
      1.037,
      1.1,
      1.162,
      1.225,
      1.287,
      1.35,
      ...steps(1.475, 0.125, 37),
      ...steps(6.225, 0.25, 16),
      ...steps(10.475, 0.5, 4),
      12.975,
      13.975,
      14.975,
      15.955,
      16.955,
      17.955,
      18.955,
      19.955,
      20.955,
      21.955,
      22.94,
      23.94,
      24.94,
      25.94,
    ],
  },
  {
    section: 0.275,
    from: 425,
    insides: [
      ...steps(4.475, 0.125, 13),
      ...steps(6.225, 0.25, 8),
      ...steps(8.475, 0.5, 15),
      15.955,
      16.455,
      16.955,
      17.455,
      17.955,
      18.455,
      18.955,
      19.455,
      19.955,
      20.955,
      21.955,
      22.94,
      23.94,
      24.94,
      25.94,
    ],
  },
]

/** Seals of straight-thread tube fittings (AS568, 900 series): dash number, inside diameter and section, inches. */
const BOSS: readonly (readonly [number, number, number])[] = [
  [901, 0.185, 0.056],
  [902, 0.239, 0.064],
  [903, 0.301, 0.064],
  [904, 0.351, 0.072],
  [905, 0.414, 0.072],
  [906, 0.468, 0.078],
  [907, 0.53, 0.082],
  [908, 0.644, 0.087],
  [909, 0.706, 0.097],
  [910, 0.755, 0.097],
  [911, 0.863, 0.116],
  [912, 0.924, 0.116],
  [913, 0.986, 0.116],
  [914, 1.047, 0.116],
  [916, 1.171, 0.116],
  [918, 1.355, 0.116],
  [920, 1.475, 0.118],
  [924, 1.72, 0.118],
  [928, 2.09, 0.118],
  [932, 2.337, 0.118],
]

export interface OringSize {
  /** Dash number with three digits. */
  readonly dash: string
  readonly insideMm: number
  readonly sectionMm: number
  /** ± of a new ring, mm. */
  readonly insideTolMm: number
  readonly sectionTolMm: number
}

const INCH_MM = 25.4
/** Section tolerances, mm (ISO 3601-1, class B). */
const SECTION_TOL: Readonly<Record<number, number>> = {
  0.04: 0.08,
  0.05: 0.08,
  0.06: 0.08,
  0.07: 0.08,
  0.103: 0.09,
  0.139: 0.1,
  0.21: 0.13,
  0.275: 0.15,
}
/** Section tolerance of the boss seals, mm. */
const BOSS_TOL = 0.09
/** Inside diameter ±(d^0.95·0.009 + 0.11) mm (ISO 3601-1, class B). */
const insideTolerance = (mm: number) => 0.009 * mm ** 0.95 + 0.11

const sizeOf = (dash: number, inside: number, section: number): OringSize => ({
  dash: String(dash).padStart(3, '0'),
  insideMm: inside * INCH_MM,
  sectionMm: section * INCH_MM,
  insideTolMm: insideTolerance(inside * INCH_MM),
  sectionTolMm: SECTION_TOL[section] ?? BOSS_TOL,
})

/** Every size, smallest section first, the boss seals behind. */
export const oringSizes: readonly OringSize[] = [
  ...runs.flatMap(({ section, from, insides }) =>
    insides.map((inside, n) => sizeOf(from + n, inside, section)),
  ),
  ...BOSS.map(([dash, inside, section]) => sizeOf(dash, inside, section)),
]
