import type { Opening } from '@uvanta/core/apparatus'
import type { SpaceState } from '@uvanta/core/pressure'

/** What the drawing shows beyond the line-work. */
export interface LiveDrawing {
  readonly openings: Readonly<Record<string, Opening>>
  readonly hoses: Readonly<Record<string, string>>
  readonly running: readonly string[]
  readonly lifted: readonly string[]
  readonly turning: readonly string[]
  /** Words for the pressure at a place. */
  readonly pressures: Readonly<Record<string, string>>
  /** Valves and cocks the step wants. */
  readonly wanted: readonly string[]
  /** What the gauge shows, with its unit. */
  readonly shown: string
  /** Height of the gauge above the port, mm, where it counts. */
  readonly heightMm: number | null
}

/** What every drawing of equipment is given. */
export interface DrawingProps {
  readonly kind: string
  readonly tag: string
  readonly live?: LiveDrawing
  readonly pressable?: boolean
  /** Shows only what the step needs; for a narrow screen. */
  readonly folded?: boolean
  /** How spaces stand, where something else than the valves alone says so; the instruments are away then. */
  readonly states?: Readonly<Record<string, SpaceState>>
}
