import { CannotCompute } from '../errors'
import { ATMOSPHERE_KPA, type Gas, gasDensityPerKpa, Passage, passageLaw } from '../fluid'
import { convertValue } from '../quantity'

/** What a sheet says of a valve for gas: Cv with xT (IEC 60534-1), or Cg with C1, or all four. */
export interface GasCoefficients {
  /** gpm at 1 psi, fully open. */
  readonly cv?: number | undefined
  /** Pressure drop ratio at which it chokes, of air. */
  readonly xT?: number | undefined
  /** scfh of air per psia of inlet at choked flow, at 60 °F. */
  readonly cg?: number | undefined
  /** Cg ÷ Cv, which says how streamlined the passage is. */
  readonly c1?: number | undefined
}

export interface GasFlowAsked {
  readonly valve: GasCoefficients
  readonly gas: Omit<Gas, 'kind' | 'xT'>
  /** kPa gauge before and after it. */
  readonly inletKpa: number
  readonly outletKpa: number
}

export interface GasFlow {
  /** m³/h at 15 °C and 101.325 kPa. */
  readonly sm3h: number
  /** More drop would bring no more flow. */
  readonly choked: boolean
  readonly by: 'IEC 60534-2-1' | 'Cg and C1'
  /** The other way of working it out, where the sheet has figures for both. */
  readonly other?: { readonly sm3h: number; readonly differsPercent: number }
  /** What of the figures wants another look. */
  readonly questions: readonly string[]
}

/** kg/m³ of a gas of specific gravity 1 at 15 °C and 101.325 kPa. */
const STANDARD_AIR = ATMOSPHERE_KPA * gasDensityPerKpa(standard(1))
/** The two ways agree within this where the figures of a sheet belong together, percent. */
const AGREE_PERCENT = 5

function standard(specificGravity: number): Gas {
  return { kind: 'gas', specificGravity, gamma: 1.4, temperatureK: 288.15, z: 1, xT: 0.7 }
}

/**
 * Flow of gas through a valve at stated pressures, by IEC 60534-2-1 (expansion method) and by Cg and
 * C1: q = √(520/(G·T))·Cg·p1·sin((3417/C1)·√(Δp/p1)), psia, °R, the sine’s angle in degrees and held
 * at 90°. Where the sheet has figures for both, one checks the other.
 * @throws CannotCompute when the outlet is above the inlet, or coefficients are missing
 */
export function gasFlow(asked: GasFlowAsked): GasFlow {
  const { inletKpa, outletKpa } = asked
  const [p1, p2] = [inletKpa + ATMOSPHERE_KPA, outletKpa + ATMOSPHERE_KPA]
  if (p2 <= 0)
    throw new CannotCompute(
      'below-vacuum',
      'The outlet lies below vacuum.',
      'Give gauge pressures: 0 is the air around.',
    )
  if (p2 > p1)
    throw new CannotCompute(
      'flows-backwards',
      'The outlet is above the inlet.',
      'Exchange the two, or read them again.',
    )
  const ways = [byExpansion(asked, p1, p2), bySine(asked, p1, p2)].filter((w) => w !== null)
  const [first, second] = ways
  if (!first)
    throw new CannotCompute(
      'coefficients-missing',
      'The flow cannot be worked out: the coefficients do not make a pair.',
      'Give Cv with xT, or Cg with C1, as the sheet has them.',
    )
  if (!second) return { ...first, questions: [] }
  const differsPercent = first.sm3h === 0 ? 0 : (second.sm3h / first.sm3h - 1) * 100
  return {
    ...first,
    other: { sm3h: second.sm3h, differsPercent },
    questions:
      Math.abs(differsPercent) > AGREE_PERCENT
        ? [
            `By Cg and C1 it is ${differsPercent > 0 ? 'more' : 'less'} by ${Math.abs(differsPercent).toFixed(0)} %: look whether all four figures are of the same orifice and travel.`,
          ]
        : [],
  }
}

type Way = Pick<GasFlow, 'sm3h' | 'choked' | 'by'>

function byExpansion({ valve, gas, ...p }: GasFlowAsked, p1: number, p2: number): Way | null {
  const { cv, xT } = valve
  if (cv === undefined || xT === undefined) return null
  const passage = new Passage()
  const medium: Gas = { ...gas, kind: 'gas', xT }
  passageLaw(medium)(passage, cv, p.inletKpa, p.outletKpa, 0)
  return {
    sm3h: (passage.flow * 3600) / (STANDARD_AIR * gas.specificGravity),
    choked: (p1 - p2) / p1 >= (gas.gamma / 1.4) * xT,
    by: 'IEC 60534-2-1',
  }
}

function bySine({ valve, gas }: GasFlowAsked, p1: number, p2: number): Way | null {
  const { cg, c1 } = valve
  if (cg === undefined || c1 === undefined) return null
  const rankine = gas.temperatureK * 1.8
  const angle = Math.min((3417 / c1) * Math.sqrt((p1 - p2) / p1), 90)
  const scfh =
    Math.sqrt(520 / (gas.specificGravity * rankine * gas.z)) *
    cg *
    convertValue('absolutePressure', p1, 'kPa', 'psi') *
    Math.sin((angle * Math.PI) / 180)
  return {
    sm3h: convertValue('gasFlow', scfh, 'scfh', 'sm³/h'),
    choked: angle >= 90,
    by: 'Cg and C1',
  }
}
