import { ATMOSPHERE_KPA, gasDensityPerKpa, type Gas, type Medium } from './medium'

/** m³/s of water at 1 kPa through a valve of Cv 1: 1 gpm at 1 psi (IEC 60534-1). */
export const CV_SI = 6.30901964e-5 / Math.sqrt(6.894757293168)

/** Under this differential the square-root law turns linear, as creeping flow does; keeps Newton finite. */
const LAMINAR_KPA = 0.01

/** Mass flow of a passage and its derivatives; one instance is reused so that a step allocates nothing. */
export class Passage {
  /** kg/s from the first place to the second. */
  flow = 0
  /** ∂flow/∂(pressure of the first place), ∂flow/∂(pressure of the second place), kg/(s·kPa). */
  byFrom = 0
  byTo = 0
  /** ∂flow/∂Cv */
  byCv = 0
}

export type PassageLaw = (out: Passage, cv: number, from: number, to: number, head: number) => void

/** The law that a medium follows through a passage of flow coefficient Cv; pressures in kPa gauge. */
export function passageLaw(medium: Medium): PassageLaw {
  if (medium.kind === 'gas') return gasLaw(medium)
  // q = Cv·√(Δp/SG) with SG the density against 1000 kg/m³: IEC 60534-2-1.
  const perCv = CV_SI * Math.sqrt(medium.density * 1000)
  return (out, cv, from, to, head) => {
    const dp = from - to + head
    const smooth = dp * dp + LAMINAR_KPA * LAMINAR_KPA
    const root = Math.sqrt(Math.sqrt(smooth))
    out.byCv = (perCv * dp) / root
    out.flow = cv * out.byCv
    const slope = (cv * perCv * (1 - (0.5 * dp * dp) / smooth)) / root
    out.byFrom = slope
    out.byTo = -slope
  }
}

/**
 * IEC 60534-2-1 expansion method: w = N·Cv·Y·√(x·p1·ρ1), x = Δp/p1 held at Fγ·xT (choked),
 * Y = 1 − x/(3·Fγ·xT).
 */
function gasLaw(gas: Gas): PassageLaw {
  const density = gasDensityPerKpa(gas)
  const choked = (gas.gamma / 1.4) * gas.xT
  // Same coefficient as for water: w = CV_SI·Cv·√(1000·ρ1·Δp)·Y.
  const perCv = CV_SI * Math.sqrt(1000 * density)
  const forward = (out: Passage, cv: number, p1: number, p2: number) => {
    const x = (p1 - p2) / p1
    const held = Math.min(x, choked)
    const y = 1 - held / (3 * choked)
    const small = LAMINAR_KPA / p1
    const smooth = held * held + small * small
    const quarter = Math.sqrt(Math.sqrt(smooth))
    const shape = held / quarter
    const unit = perCv * p1 * y * shape
    out.byCv = unit
    out.flow = cv * unit
    if (x >= choked) {
      out.byTo = 0
      out.byFrom = out.flow / p1
      return
    }
    const byShape = (1 - (0.5 * held * held) / smooth) / quarter
    const byX = cv * perCv * p1 * (y * byShape - shape / (3 * choked))
    out.byTo = -byX / p1
    out.byFrom = out.flow / p1 + (byX * p2) / (p1 * p1)
  }
  return (out, cv, from, to) => {
    const a = Math.max(from + ATMOSPHERE_KPA, 0.1)
    const b = Math.max(to + ATMOSPHERE_KPA, 0.1)
    if (a >= b) return forward(out, cv, a, b)
    forward(out, cv, b, a)
    const { byFrom, byTo } = out
    out.flow = -out.flow
    out.byCv = -out.byCv
    out.byFrom = -byTo
    out.byTo = -byFrom
  }
}

/** Part of the full lift over which a valve lifts off softly, and comes to its stop softly. */
const SOFT = 0.02

const ramp = (s: number) => (s <= 0 ? 0 : s < SOFT ? (s * s) / (2 * SOFT) : s - SOFT / 2)
const rampSlope = (s: number) => (s <= 0 ? 0 : s < SOFT ? s / SOFT : 1)

/** Lift of a spring-loaded valve, 0 … 1, for a demanded lift; smooth, so that Newton converges. */
export const lift = (s: number): number => ramp(s) - ramp(s - 1)
export const liftSlope = (s: number): number => rampSlope(s) - rampSlope(s - 1)
