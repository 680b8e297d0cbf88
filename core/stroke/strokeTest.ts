import { CannotCompute } from '../errors'

/** One reading of a stroke: both in percent of span, 0 where the valve is shut. */
export interface StrokePoint {
  /** Way in which the signal came to the point. */
  readonly way: 'up' | 'down'
  readonly signal: number
  readonly travel: number
  /** Which time round, from 1; points of several cycles show how well they repeat. */
  readonly cycle?: number | undefined
}

export interface StrokeAsked {
  readonly points: readonly StrokePoint[]
  /** Direct: more signal, more travel. Reverse: more signal, less travel. */
  readonly action: 'direct' | 'reverse'
  /** ± percent of span, as the spec sheet or the house has it. */
  readonly tolerance: number
}

export interface StrokeJudgement {
  readonly outcome: 'pass' | 'fail' | 'not-assessed'
  /** Percent of span; null where the points for it are missing. */
  readonly zeroError: number | null
  readonly spanError: number | null
  readonly worstError: number
  readonly worstAt: StrokePoint
  /** Widest gap between up and down at one signal: hysteresis and dead band together. */
  readonly hysteresis: number | null
  /** Widest distance from the straight line between the terminals, on the way up. */
  /** Terminal-based, of the mean of up and down (IEC 61298-2). */
  readonly linearity: number | null
  /** The same of the way up alone, which some sheets state. */
  readonly linearityUp: number | null
  readonly repeatability: number | null
  /** What is seen to first; null where nothing is judged. */
  readonly first: 'nothing' | 'friction' | 'zero' | 'span' | 'linkage' | null
  /** The same in a sentence, or why nothing is judged. */
  readonly says: string
}

/** Signals this close are one point, percent. */
const SAME = 1
/** The way up is judged from at least so many points. */
const LEAST = 3

/**
 * A valve stroked up and down: errors against the ideal line, hysteresis with dead band, terminal-based
 * linearity and repeatability (terms of IEC 61298-2), all in percent of span.
 * @throws CannotCompute for points that cannot be one stroke: a signal that goes back on its way
 */
export function judgeStroke({ points, action, tolerance }: StrokeAsked): StrokeJudgement {
  const [first] = points
  if (!first)
    throw new CannotCompute(
      'no-points',
      'There is no point to judge.',
      'Stroke the valve and enter signal and travel.',
    )
  refuseBacktracking(points)
  const ideal = ({ signal }: StrokePoint) => (action === 'direct' ? signal : 100 - signal)
  const error = (p: StrokePoint) => p.travel - ideal(p)
  const worst = points.reduce((w, p) => (Math.abs(error(p)) > Math.abs(error(w)) ? p : w), first)
  const up = points.filter((p) => p.way === 'up' && (p.cycle ?? 1) === 1)
  const at = (signal: number) => up.find((p) => Math.abs(p.signal - signal) <= SAME)
  const [low, high] = [at(0), at(100)]
  const [shut, open] = action === 'direct' ? [low, high] : [high, low]
  const figures = {
    zeroError: shut ? shut.travel : null,
    spanError: shut && open ? open.travel - shut.travel - 100 : null,
    worstError: error(worst),
    worstAt: worst,
    hysteresis: widest(points, (a, b) => a.way !== b.way && (a.cycle ?? 1) === (b.cycle ?? 1)),
    linearity: terminalBased(meanOf(points)),
    linearityUp: terminalBased(up),
    repeatability: widest(points, (a, b) => a.way === b.way && (a.cycle ?? 1) !== (b.cycle ?? 1)),
  }
  if (up.length < LEAST || !low || !high || figures.hysteresis === null)
    return {
      ...figures,
      outcome: 'not-assessed',
      first: null,
      says: `A stroke is judged from at least ${LEAST} points up, 0 and 100 % among them, and one of them down again.`,
    }
  const fits = Math.abs(figures.worstError) <= tolerance
  return { ...figures, outcome: fits ? 'pass' : 'fail', ...advice(figures, tolerance) }
}

type Figures = Pick<StrokeJudgement, 'zeroError' | 'spanError' | 'worstError' | 'hysteresis'>

/** What makes up and down differ before any screw; then zero before span, since the span moves the zero less than the zero moves everything. */
function advice(
  { zeroError, spanError, worstError, hysteresis }: Figures,
  tolerance: number,
): Pick<StrokeJudgement, 'first' | 'says'> {
  const beyond = (v: number | null) => v !== null && Math.abs(v) > tolerance
  const signed = (v: number) => `${v > 0 ? '+' : ''}${v.toFixed(1)} %`
  if (!beyond(worstError))
    return {
      first: 'nothing',
      says: `Within ± ${tolerance} %: the widest error is ${signed(worstError)}.`,
    }
  if (beyond(hysteresis))
    return {
      first: 'friction',
      says: `Up and down differ by ${hysteresis?.toFixed(1)} %: look for friction, play in the linkage or a worn packing before anything is adjusted.`,
    }
  if (beyond(zeroError))
    return {
      first: 'zero',
      says: `Adjust the zero first: it is off by ${signed(zeroError ?? 0)}.`,
    }
  if (beyond(spanError))
    return {
      first: 'span',
      says: `The zero fits. Adjust the span: it is off by ${signed(spanError ?? 0)}.`,
    }
  return {
    first: 'linkage',
    says: `Zero and span fit and the widest error is ${signed(worstError)}: look at linkage and characteristic.`,
  }
}

type CurvePoint = Pick<StrokePoint, 'signal' | 'travel'>

/** The widest distance of a curve from the line through its ends; null where an end was not read. */
function terminalBased(curve: readonly CurvePoint[]): number | null {
  const at = (signal: number) => curve.find((p) => Math.abs(p.signal - signal) <= SAME)
  const [low, high] = [at(0), at(100)]
  if (!low || !high) return null
  const slope = (high.travel - low.travel) / (high.signal - low.signal)
  return Math.max(
    ...curve.map((p) => Math.abs(p.travel - (low.travel + slope * (p.signal - low.signal)))),
  )
}

/** The mean travel of each signal, over both ways and every cycle. */
function meanOf(points: readonly StrokePoint[]): CurvePoint[] {
  const signals = points.reduce<number[]>(
    (known, p) =>
      known.some((s) => Math.abs(s - p.signal) <= SAME) ? known : [...known, p.signal],
    [],
  )
  return signals.map((signal) => {
    const own = points.filter((p) => Math.abs(p.signal - signal) <= SAME)
    return { signal, travel: own.reduce((sum, p) => sum + p.travel, 0) / own.length }
  })
}

/** The widest gap of travel between two points of one signal that belong together; null without such. */
function widest(
  points: readonly StrokePoint[],
  together: (a: StrokePoint, b: StrokePoint) => boolean,
): number | null {
  const gaps = points.flatMap((a, n) =>
    points
      .slice(n + 1)
      .filter((b) => together(a, b) && Math.abs(a.signal - b.signal) <= SAME)
      .map((b) => Math.abs(a.travel - b.travel)),
  )
  return gaps.length > 0 ? Math.max(...gaps) : null
}

function refuseBacktracking(points: readonly StrokePoint[]): void {
  for (const way of ['up', 'down'] as const) {
    for (const cycle of new Set(points.map((p) => p.cycle ?? 1))) {
      const run = points.filter((p) => p.way === way && (p.cycle ?? 1) === cycle)
      const back = run.find((p, n) => {
        const before = run[n - 1]
        return before && (way === 'up' ? p.signal <= before.signal : p.signal >= before.signal)
      })
      if (back)
        throw new CannotCompute(
          'signal-goes-back',
          `On the way ${way} the signal goes back to ${back.signal} %.`,
          'Come to each point from the same side, and enter them in their order.',
        )
    }
  }
}
