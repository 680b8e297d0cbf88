/** What is known of the instrument that made a trace. */
export interface TraceSource {
  /** Seconds between samples. */
  readonly periodS: number
  /** One step of the display, in the unit of the samples. */
  readonly resolution: number
  /** Full range, in the unit of the samples. */
  readonly span?: number
}

/** A stretch at rest. Indices are of samples; `to` is behind the last one. */
export interface Plateau {
  readonly from: number
  readonly to: number
  readonly mean: number
  readonly deviation: number
  /** Change per minute, in the unit of the samples. */
  readonly driftPerMinute: number
}

/** Where a steady fall ends: a relief or air inlet has opened. */
export interface OpeningPoint {
  readonly index: number
  readonly value: number
  /** The fall stops (a relief lets the zone go), or drops away (an air inlet empties the body). */
  readonly then: 'stops' | 'drops'
}

export type TraceDoubt = 'bounce' | 'saturated' | 'frozen' | 'gaps'

export interface TraceAnalysis {
  readonly samples: number
  readonly durationS: number
  /** Standard deviation of the noise, in the unit of the samples. */
  readonly noise: number
  readonly plateaus: readonly Plateau[]
  readonly openings: readonly OpeningPoint[]
  /** Time constant of the answer to the largest step, s. */
  readonly lagS?: number
  /** What makes the trace doubtful, in words. */
  readonly doubts: readonly { readonly kind: TraceDoubt; readonly says: string }[]
}
