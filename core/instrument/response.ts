/** How an instrument answers to what stands before it; values in the SI unit of what it shows. */
export interface GaugeNature {
  /** Time constant, of a gauge with solid water in its hoses, s. */
  readonly lagS: number
  /** Standard deviation of its noise. */
  readonly noise: number
  /** One step of its display. */
  readonly resolution: number
  readonly span: number
  /** It has no hoses that trap air, which would slow it and make it bounce. */
  readonly single?: boolean
}

export const fineGauge: GaugeNature = {
  lagS: 0.15,
  noise: 0.06,
  resolution: 0.0689475729,
  span: 103.42,
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
   * @param stands what the model says stands before it
   * @param bledKg what has run out of the bleeds so far
   * @returns what the display shows
   */
  sample(seconds: number, stands: number, bledKg: number): number {
    this.air *= Math.exp(-Math.max(0, bledKg - this.bled) / (0.4 * HOSE_KG))
    this.bled = bledKg
    const lag = this.nature.lagS + AIR_LAG_S * this.air
    const before = this.shown
    this.shown += (stands - this.shown) * (1 - Math.exp(-seconds / lag))
    this.swing =
      -0.6 * this.swing +
      this.air *
        AIR_BOUNCE_KPA *
        this.normal() *
        Math.min(1, 0.2 + Math.abs(this.shown - before) / 5)
    const raw = this.shown + this.swing + this.nature.noise * this.normal()
    const held = Math.min(Math.max(raw, -0.05 * this.nature.span), this.nature.span)
    return Math.round(held / this.nature.resolution) * this.nature.resolution
  }

  /** Sum of twelve uniforms less six: near enough to a normal for a needle. */
  private normal(): number {
    let sum = -6
    for (let n = 0; n < 12; n++) sum += this.random()
    return sum
  }
}
