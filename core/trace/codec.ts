import { CannotCompute } from '../errors'
/** Samples of a gauge with what is needed to read them again. */
export interface Trace {
  /** Seconds between samples. */
  readonly periodS: number
  /** One step of the display, in `unit`. */
  readonly resolution: number
  readonly unit: string
  /** In `unit`; NaN where a sample was lost. */
  readonly values: Float64Array
}

const VERSION = 'T1'
/** Stands for a lost sample. */
const LOST = '~'

/**
 * A trace as a short text: head, then the differences between samples in steps of the display, in
 * base 36, runs of equal differences counted. A resting trace of a minute takes a few hundred signs.
 */
export function encodeTrace(trace: Trace): string {
  const head = [VERSION, trace.periodS, trace.resolution, trace.unit].join(' ')
  const parts: string[] = []
  let before = 0
  let last: string | undefined
  let repeats = 0
  const flush = () => {
    if (last !== undefined) parts.push(repeats > 1 ? `${last}*${repeats}` : last)
  }
  for (const value of trace.values) {
    let sign = LOST
    if (Number.isFinite(value)) {
      const steps = Math.round(value / trace.resolution)
      sign = (steps - before).toString(36)
      before = steps
    }
    if (sign === last) repeats++
    else {
      flush()
      last = sign
      repeats = 1
    }
  }
  flush()
  return `${head}|${parts.join(' ')}`
}

/** Over five hours at ten samples a second; a short text of counted runs could ask for any number of them. */
const MOST_SAMPLES = 200_000

/** @throws CannotCompute when the text is not a trace, or is one of more than 200,000 samples */
export function decodeTrace(text: string): Trace {
  const [head = '', body = ''] = text.split('|')
  const [version, period, resolution, unit] = head.split(' ')
  const periodS = Number(period)
  const step = Number(resolution)
  if (version !== VERSION || !(periodS > 0) || !(step > 0) || !unit) {
    throw new CannotCompute('trace-unreadable', 'This is not a trace.', 'Take the reading again.')
  }
  const values: number[] = []
  let steps = 0
  for (const part of body.split(' ').filter(Boolean)) {
    const [sign = '', count = '1'] = part.split('*')
    const repeats = Number(count)
    const difference = Number.parseInt(sign, 36)
    if (
      !(repeats >= 1 && values.length + repeats <= MOST_SAMPLES) ||
      (sign !== LOST && !Number.isFinite(difference))
    ) {
      throw new CannotCompute('trace-damaged', 'This trace is damaged.', 'Take the reading again.')
    }
    for (let n = 0; n < repeats; n++) {
      if (sign === LOST) values.push(NaN)
      else {
        steps += difference
        values.push(steps * step)
      }
    }
  }
  return { periodS, resolution: step, unit, values: Float64Array.from(values) }
}
