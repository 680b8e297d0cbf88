import type { Dimension } from '@uvanta/core/quantity'

/** One figure that is entered at a bench. */
export interface Figure {
  readonly name: string
  readonly label: string
  /** Absent for a bare number. */
  readonly dimension?: Dimension
  readonly unit?: string
  readonly value: string
  /** Left empty it is not given. */
  readonly optional?: boolean
}

/** Figures that were given, each in the SI unit of its dimension. */
export type Given = Readonly<Record<string, number | undefined>>

/** What a bench says. */
export interface Said {
  /** The figure that was looked for. */
  readonly answer: string
  readonly says: readonly string[]
  /** What of it wants another look. */
  readonly questions?: readonly string[]
}

/** A computation of the registry as a form: its figures, and what it says of them. */
export interface FigureBench {
  readonly computation: string
  readonly title: string
  /** Kind of equipment whose drawing stands beside it. */
  readonly draws: string
  /** It is a long drawing, and stands above the figures. */
  readonly wide?: boolean
  readonly figures: readonly Figure[]
  /** @throws CannotCompute with the sentence that is shown */
  readonly work: (given: Given) => Said
}

/** A figure that must be there; the form sees to it. */
export const must = (given: Given, name: string): number => given[name] ?? NaN
