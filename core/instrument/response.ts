/** How a differential gauge answers to what stands at its hoses. */
export interface GaugeNature {
  /** Time constant with solid water in the hoses, s. */
  readonly lagS: number
  /** Standard deviation of its noise, kPa. */
  readonly noiseKpa: number
  /** One step of its display, kPa. */
  readonly resolutionKpa: number
  readonly spanKpa: number
  /** A single gauge against the air: no trapped air slows it or makes it bounce. */
  readonly single?: boolean
}

export const fineGauge: GaugeNature = {
  lagS: 0.15,
  noiseKpa: 0.06,
  resolutionKpa: 0.0689475729,
  spanKpa: 103.42,
}

/** Air left in a hose slows the needle by this much, and makes it bounce. */
const AIR_LAG_S = 1.2
const AIR_BOUNCE_KPA = 1.4
const HOSE_KG = 0.051

/**
 * The gauge in time: lag, noise, the display’s steps, the ends of its scale, and the air in its
 * hoses, which goes as water is bled through. Randomness is passed in.
 */
export class GaugeResponse {
  private shown: number
  private air: number
  private bled = 0
  private swing = 0

  constructor(
    private readonly nature: GaugeNature,
    /** Uniform on 0 … 1. */
    private readonly random: () => number,
    start = 0,
  ) {
    this.shown = start
    this.air = nature.single ? 0 : 1
  }

  /** A hose was fitted anew: it is full of air again. */
  refilled(): void {
    this.air = this.nature.single ? 0 : 1
  }

  /**
   * @param seconds since the last sample
   * @param differentialKpa what the model says stands at the hoses
   * @param bledKg what has run out of the bleeds so far
   * @returns what the display shows, kPa
   */
  sample(seconds: number, differentialKpa: number, bledKg: number): number {
    this.air *= Math.exp(-Math.max(0, bledKg - this.bled) / (0.4 * HOSE_KG))
    this.bled = bledKg
    const lag = this.nature.lagS + AIR_LAG_S * this.air
    const before = this.shown
    this.shown += (differentialKpa - this.shown) * (1 - Math.exp(-seconds / lag))
    this.swing =
      -0.6 * this.swing +
      this.air *
        AIR_BOUNCE_KPA *
        this.normal() *
        Math.min(1, 0.2 + Math.abs(this.shown - before) / 5)
    const raw = this.shown + this.swing + this.nature.noiseKpa * this.normal()
    const held = Math.min(Math.max(raw, -0.05 * this.nature.spanKpa), this.nature.spanKpa)
    return Math.round(held / this.nature.resolutionKpa) * this.nature.resolutionKpa
  }

  /** Sum of twelve uniforms less six: near enough to a normal for a needle. */
  private normal(): number {
    let sum = -6
    for (let n = 0; n < 12; n++) sum += this.random()
    return sum
  }
}
