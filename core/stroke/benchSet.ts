import { CannotCompute } from '../errors'

/** Actuator pressures at both ends of the travel, going up and coming back, kPa gauge. */
export interface BenchSetRead {
  readonly firstUpKpa: number
  readonly fullUpKpa: number
  readonly firstDownKpa: number
  readonly fullDownKpa: number
  /** What the nameplate gives, where it is known. */
  readonly plateLowKpa?: number | undefined
  readonly plateHighKpa?: number | undefined
}

export interface BenchSet {
  /** The spring alone, friction taken out: the middle between both directions, kPa. */
  readonly lowKpa: number
  readonly highKpa: number
  /** Half the gap between the directions: what friction takes each way, at the start and at full travel, kPa. */
  readonly frictionStartKpa: number
  readonly frictionFullKpa: number
  /** The mean of both. */
  readonly frictionKpa: number
  /** Friction in percent of the span of the spring. */
  readonly frictionPercent: number
  /** By how much the spring is set higher than the plate says; null without a plate. */
  readonly shiftKpa: number | null
}

/**
 * Bench set from the pressures at first movement and at full travel, both ways. Friction opposes the
 * movement, so that the spring lies in the middle of what is read up and down.
 * @throws CannotCompute where the pressures contradict one another
 */
export function benchSet(read: BenchSetRead): BenchSet {
  const { firstUpKpa, fullUpKpa, firstDownKpa, fullDownKpa, plateLowKpa, plateHighKpa } = read
  if (fullUpKpa <= firstUpKpa || firstDownKpa <= fullDownKpa)
    throw new CannotCompute(
      'bench-set-order',
      'Full travel needs more pressure than first movement.',
      'Look whether the two were exchanged.',
    )
  if (firstDownKpa > fullUpKpa || fullDownKpa > firstUpKpa)
    throw new CannotCompute(
      'bench-set-friction',
      'It cannot come back at a higher pressure than it went with.',
      'Read both ways again.',
    )
  const lowKpa = (firstUpKpa + fullDownKpa) / 2
  const highKpa = (fullUpKpa + firstDownKpa) / 2
  const frictionStartKpa = (firstUpKpa - fullDownKpa) / 2
  const frictionFullKpa = (fullUpKpa - firstDownKpa) / 2
  const frictionKpa = (frictionStartKpa + frictionFullKpa) / 2
  const plate =
    plateLowKpa === undefined || plateHighKpa === undefined
      ? null
      : (plateLowKpa + plateHighKpa) / 2
  return {
    lowKpa,
    highKpa,
    frictionStartKpa,
    frictionFullKpa,
    frictionKpa,
    frictionPercent: (frictionKpa / (highKpa - lowKpa)) * 100,
    shiftKpa: plate === null ? null : (lowKpa + highKpa) / 2 - plate,
  }
}
