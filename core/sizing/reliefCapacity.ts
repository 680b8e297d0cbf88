import { CannotCompute } from '../errors'
import { lift } from '../fluid'
import { type GasCoefficients, gasFlow, type GasFlowAsked } from './gasFlow'

export interface ReliefAsked {
  /** The regulator, failed wide open. */
  readonly regulator: GasCoefficients
  /** The highest pressure that can stand before it, kPa gauge. */
  readonly inletMaximumKpa: number
  readonly relief: GasCoefficients & {
    /** Where it starts to discharge, and where it is fully lifted, kPa gauge. */
    readonly startKpa: number
    readonly fullKpa: number
  }
  /** The pressure that may never be passed downstream, kPa gauge. */
  readonly limitKpa: number
  readonly gas: GasFlowAsked['gas']
}

export interface ReliefCapacity {
  /** Where what comes in and what goes out are equal, kPa gauge. */
  readonly balanceKpa: number
  readonly balanceSm3h: number
  /** At the limit: what comes in, and what the relief can take. */
  readonly inflowSm3h: number
  readonly capacitySm3h: number
  /** What the relief takes over what comes in, percent of that. */
  readonly marginPercent: number
  readonly holds: boolean
  readonly limitKpa: number
  /** What keeps the balance where it is: the relief’s orifice, or its spring that is not yet fully lifted. */
  readonly limitedBy: 'orifice' | 'lift'
  /** Both curves from atmosphere to the balance or the limit, whichever is higher. */
  readonly curve: readonly {
    readonly kpa: number
    readonly inflowSm3h: number
    readonly reliefSm3h: number
  }[]
}

const POINTS = 24
const HALVINGS = 60
/** Part of its start within which a relief goes from shut to fully lifted when it pops. */
const POP = 1e-4

/**
 * Whether a relief holds the pressure when its regulator fails wide open at the highest inlet: the
 * flow that comes in falls with the downstream pressure, the relief’s rises, and they balance once.
 * @throws CannotCompute when the relief lifts fully before it starts, or coefficients are missing
 */
export function reliefCapacity(asked: ReliefAsked): ReliefCapacity {
  const { regulator, relief, gas, inletMaximumKpa, limitKpa } = asked
  if (!(relief.fullKpa >= relief.startKpa))
    throw new CannotCompute(
      'relief-lift',
      'A relief is not fully lifted below the pressure at which it starts.',
      'Look at the two pressures again.',
    )
  if (!(limitKpa > 0 && limitKpa < inletMaximumKpa))
    throw new CannotCompute(
      'limit-outside',
      'The limit must lie between atmosphere and the highest inlet.',
      'Read both from the sheet of the station.',
    )
  // One that pops is fully lifted the moment it starts.
  const isPop = relief.fullKpa - relief.startKpa <= POP * relief.startKpa
  const inflow = (kpa: number) =>
    gasFlow({ valve: regulator, gas, inletKpa: inletMaximumKpa, outletKpa: kpa }).sm3h
  const discharge = (kpa: number) => {
    const opened = isPop
      ? Number(kpa >= relief.startKpa)
      : lift((kpa - relief.startKpa) / (relief.fullKpa - relief.startKpa))
    return opened * gasFlow({ valve: relief, gas, inletKpa: Math.max(kpa, 0), outletKpa: 0 }).sm3h
  }
  let [low, high] = [0, inletMaximumKpa]
  for (let n = 0; n < HALVINGS; n++) {
    const middle = (low + high) / 2
    if (discharge(middle) < inflow(middle)) low = middle
    else high = middle
  }
  const [inflowSm3h, capacitySm3h] = [inflow(limitKpa), discharge(limitKpa)]
  const top = Math.max(high, limitKpa)
  return {
    balanceKpa: high,
    balanceSm3h: inflow(high),
    inflowSm3h,
    capacitySm3h,
    marginPercent: (capacitySm3h / inflowSm3h - 1) * 100,
    holds: high <= limitKpa,
    limitKpa,
    limitedBy: high > relief.fullKpa * (1 + POP) ? 'orifice' : 'lift',
    curve: Array.from({ length: POINTS + 1 }, (_, n) => {
      const kpa = (top * n) / POINTS
      return { kpa, inflowSm3h: inflow(kpa), reliefSm3h: discharge(kpa) }
    }),
  }
}
