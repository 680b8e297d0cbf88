import { CannotCompute } from '../errors'
import { type OringSize, oringSizes } from './oringTable'

export interface MeasuredRing {
  readonly insideMm?: number
  readonly sectionMm?: number
  /** ± of the measurement, mm; a caliper on soft rubber is worth about a tenth. */
  readonly errorMm?: number
}

export interface RingMatch extends OringSize {
  /** Both measures lie within tolerance and measuring error. */
  readonly fits: boolean
  /** How many tolerances off, the worse of the two; the smaller, the likelier. */
  readonly off: number
}

export interface RingIdentity {
  readonly matches: readonly RingMatch[]
  /** What to measure to tell what is left apart; absent when one is left. */
  readonly measureNext?: string
  /** How sure the one that is left is; absent when several are, or none. */
  readonly sure?: string
}

const ERROR_MM = 0.1
const SHOWN = 8

/**
 * Sizes of AS568 / ISO 3601 that a measured ring can be, likeliest first, with what to measure next.
 * @throws CannotCompute when nothing was measured
 */
export function identifyOring(ring: MeasuredRing): RingIdentity {
  const { insideMm, sectionMm, errorMm = ERROR_MM } = ring
  if (insideMm === undefined && sectionMm === undefined) {
    throw new CannotCompute(
      'ring-unmeasured',
      'Nothing of the ring is measured.',
      'Measure the inside diameter, or the section, or both.',
    )
  }
  const matches = oringSizes
    .map((size): RingMatch => {
      const offs = [
        insideMm === undefined
          ? 0
          : Math.abs(insideMm - size.insideMm) / (size.insideTolMm + errorMm),
        sectionMm === undefined
          ? 0
          : Math.abs(sectionMm - size.sectionMm) / (size.sectionTolMm + errorMm),
      ]
      const off = Math.max(...offs)
      return { ...size, off, fits: off <= 1 }
    })
    .toSorted((a, b) => a.off - b.off)
  const fitting = matches.filter((m) => m.fits)
  const shown = (fitting.length > 0 ? fitting : matches).slice(0, SHOWN)
  const next = measureNext(fitting, ring)
  const sure = fitting.length === 1 ? sureness(ring, fitting[0] as RingMatch) : undefined
  return {
    matches: shown,
    ...(next ? { measureNext: next } : {}),
    ...(sure ? { sure } : {}),
  }
}

/** Usual metric sections, mm (ISO 3601-1, general industrial). */
const METRIC_SECTIONS = [1, 1.5, 2, 2.5, 3, 3.5, 4, 5, 6]

/** How sure a lone match is: few rings are measured that well, and not every ring is of this table. */
function sureness(ring: MeasuredRing, match: RingMatch): string {
  const { insideMm, sectionMm, errorMm = ERROR_MM } = ring
  if (insideMm === undefined || sectionMm === undefined)
    return `Only one measure was taken: ${match.dash} is the one of this table that fits it. Measure the other too.`
  const section = METRIC_SECTIONS.find((s) => Math.abs(s - sectionMm) <= errorMm)
  const inside = Math.round(insideMm * 2) / 2
  const metric = section !== undefined && Math.abs(inside - insideMm) <= errorMm
  const also = metric ? ` A metric ring ${inside} × ${section} mm measures the same.` : ''
  const close = match.off <= 0.5 ? 'well' : 'only just'
  return `${match.dash} is the only size of this table, and fits ${close}.${also} Compare it with the number in the kit or the maker’s sheet before it goes in.`
}

function measureNext(fitting: readonly RingMatch[], ring: MeasuredRing): string | undefined {
  if (fitting.length === 1) return undefined
  if (fitting.length === 0) {
    return 'No standard size fits. Measure again on an unstretched ring; it may be metric, or swollen.'
  }
  if (ring.sectionMm === undefined) {
    const sections = new Set(fitting.map((m) => m.sectionMm.toFixed(2)))
    if (sections.size > 1) {
      return `Measure the section: ${[...sections].map((s) => `${s} mm`).join(' or ')}.`
    }
  }
  if (ring.insideMm === undefined) return 'Measure the inside diameter, on a cone or by the groove.'
  return 'Lay it on the groove, or measure the inside diameter more closely: the sizes left are neighbours.'
}

export interface Gland {
  readonly ring: { readonly insideMm: number; readonly sectionMm: number }
  /** Depth of the space the ring is squeezed into, groove floor to mating face, mm. */
  readonly depthMm: number
  readonly widthMm: number
  /** Diameter of the groove floor that the ring is stretched over, mm. */
  readonly floorMm: number
  readonly use: 'static' | 'moving'
}

export interface GlandFit {
  readonly squeezePercent: number
  readonly stretchPercent: number
  readonly fillPercent: number
  readonly says: readonly string[]
}

/** Usual squeeze, percent, by use (ISO 3601-2 design practice). */
const SQUEEZE = { static: [12, 30], moving: [8, 20] } as const
const MOST_STRETCH = 5
const MOST_FILL = 85

/**
 * Squeeze, stretch and fill of a ring in its gland. A stretched ring gets thinner: its section
 * shrinks by the root of the stretch, since its volume stays.
 */
export function glandFit({ ring, depthMm, widthMm, floorMm, use }: Gland): GlandFit {
  for (const [name, value] of Object.entries({ depthMm, widthMm, floorMm, ...ring })) {
    if (!(value > 0 && value < 5000))
      throw new CannotCompute('gland-size', `${name} must be above zero.`, 'Measure it again.')
  }
  const stretch = Math.max(floorMm / ring.insideMm - 1, -0.9)
  const middle = ring.insideMm + ring.sectionMm
  const stretched = Math.max(floorMm, ring.insideMm) + ring.sectionMm
  const section = ring.sectionMm * Math.sqrt(Math.min(1, middle / stretched))
  const squeeze = 1 - depthMm / section
  const fill = ((Math.PI / 4) * section * section) / (depthMm * widthMm)
  const [least, most] = SQUEEZE[use]
  const percent = (part: number) => Math.round(part * 1000) / 10
  const says = [
    ...(percent(squeeze) < least
      ? [`Squeeze ${percent(squeeze)} % is under ${least} %: it may leak.`]
      : []),
    ...(percent(squeeze) > most
      ? [`Squeeze ${percent(squeeze)} % is over ${most} %: hard to assemble, short life.`]
      : []),
    ...(percent(stretch) > MOST_STRETCH
      ? [`Stretch ${percent(stretch)} % is over ${MOST_STRETCH} %: the ring thins and ages faster.`]
      : []),
    ...(stretch < -0.03
      ? ['The ring is larger than its groove floor and may roll or be pinched.']
      : []),
    ...(percent(fill) > MOST_FILL
      ? [`The gland is ${percent(fill)} % full: no room to swell.`]
      : []),
  ]
  return {
    squeezePercent: percent(squeeze),
    stretchPercent: percent(stretch),
    fillPercent: percent(fill),
    says,
  }
}

export interface CompressionSet {
  readonly percent: number
  readonly keep: boolean
  readonly says: string
}

/** Beyond this a ring has lost its round section (a house value; the sheet governs). */
const RENEW_OVER = 40
/** Thicker than new by more than a caliper errs: swollen. */
const SWOLLEN = 0.02
/** Thinner than when compressed by more than a caliper errs: not measured right. */
const THINNER = 0.02

/**
 * Compression set after ASTM D395 method B: (original − recovered) ÷ (original − compressed).
 * @throws CannotCompute when the three thicknesses do not go together
 */
export function compressionSet(
  originalMm: number,
  compressedMm: number,
  recoveredMm: number,
): CompressionSet {
  if (!(compressedMm > 0 && compressedMm < originalMm)) {
    throw new CannotCompute(
      'ring-compressed',
      'The compressed thickness must lie between zero and the original.',
      'Measure it again.',
    )
  }
  if (!(recoveredMm > 0 && recoveredMm <= originalMm * 2)) {
    throw new CannotCompute(
      'ring-recovered',
      'The recovered thickness must lie above zero and near the original.',
      'Measure it again.',
    )
  }
  if (recoveredMm < compressedMm * (1 - THINNER)) {
    throw new CannotCompute(
      'ring-thinner',
      'A ring cannot recover to less than it was compressed to.',
      'Measure the three thicknesses again.',
    )
  }
  const percent = Math.round(((originalMm - recoveredMm) / (originalMm - compressedMm)) * 1000) / 10
  if (recoveredMm > originalMm * (1 + SWOLLEN)) {
    const more = Math.round((recoveredMm / originalMm - 1) * 1000) / 10
    return {
      percent,
      keep: false,
      says: `${more} % thicker than new: it has swollen. Renew it, and look for what it stood in.`,
    }
  }
  const keep = percent <= RENEW_OVER
  return {
    percent,
    keep,
    says: keep
      ? `${percent} % set: still round enough, if it is clean and uncut.`
      : `${percent} % set: it has gone flat and will not seal, even if it looks clean. Renew it.`,
  }
}
