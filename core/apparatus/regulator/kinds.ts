import type { Medium } from '../../fluid'
import { coldWater, naturalGas } from '../../fluid'

/** Kinds of pressure regulator that have a field test. */
export const regulatorKinds = [
  'spring regulator',
  'pilot regulator',
  'dome regulator',
  'in-line regulator',
  'pressure reducer',
  'slam-shut regulator',
  'monitored regulator',
] as const
export type RegulatorKind = (typeof regulatorKinds)[number]

export const isRegulatorKind = (kind: string): kind is RegulatorKind =>
  (regulatorKinds as readonly string[]).includes(kind)

const air: Medium = {
  kind: 'gas',
  specificGravity: 1,
  gamma: 1.4,
  temperatureK: 293.15,
  z: 1,
  xT: 0.7,
}

/** A relief valve behind it, a slam-shut before it, or a second regulator that takes over. */
export type Protection = 'relief' | 'slam-shut' | 'monitor'

/** What sets the kinds apart. */
interface Traits {
  readonly title: string
  readonly medium: Medium
  /** Fall of the outlet pressure from first opening to full lift, as a part of the set pressure. */
  readonly droop: number
  /** Rise from first opening to tight shut-off, as a part of the set pressure: friction and seat. */
  readonly lockUp: number
  /** Change of the set pressure for each kPa by which the inlet falls: the disc’s own area. */
  readonly inletEffect: number
  /** What protects what lies behind it. */
  readonly protection: Protection | null
  /** Flow coefficient for each inch squared of size. */
  readonly cvPerIn2: number
}

/**
 * Usual figures of each build: a direct spring gives way by a tenth or so, a pilot by a hundredth
 * (EN 334 classes AC and SG). Figures of a model are on its spec sheet.
 */
const direct: Traits = {
  title: 'direct spring-loaded regulator',
  medium: naturalGas,
  droop: 0.1,
  lockUp: 0.05,
  inletEffect: 2e-4,
  protection: 'relief',
  cvPerIn2: 4,
}
const piloted: Traits = {
  title: 'pilot-operated regulator',
  medium: naturalGas,
  droop: 0.02,
  lockUp: 0.03,
  inletEffect: 2e-5,
  protection: 'relief',
  cvPerIn2: 10,
}

/** Every kind of regulator, in figures. */
export const regulatorTraits: Readonly<Record<RegulatorKind, Traits>> = {
  'spring regulator': direct,
  'pilot regulator': piloted,
  'dome regulator': {
    title: 'air-loaded regulator',
    medium: naturalGas,
    droop: 0.03,
    lockUp: 0.04,
    inletEffect: 5e-5,
    protection: 'relief',
    cvPerIn2: 10,
  },
  'in-line regulator': {
    title: 'in-line or manifold regulator',
    medium: air,
    droop: 0.12,
    lockUp: 0.04,
    inletEffect: 5e-4,
    protection: null,
    cvPerIn2: 3,
  },
  'pressure reducer': {
    title: 'water pressure-reducing valve',
    medium: coldWater,
    droop: 0.12,
    lockUp: 0.06,
    inletEffect: 1e-3,
    protection: null,
    cvPerIn2: 8,
  },
  'slam-shut regulator': {
    ...direct,
    title: 'spring-loaded regulator with slam-shut',
    protection: 'slam-shut',
  },
  'monitored regulator': {
    ...piloted,
    title: 'pilot-operated regulator with monitor',
    protection: 'monitor',
  },
}
