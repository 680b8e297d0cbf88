import type { ProcedureStep } from '@uvanta/core/procedure'
import {
  convertValue,
  type Dimension,
  dimensionTitles,
  parseDisplayed,
  roundTo,
  toSi,
} from '@uvanta/core/quantity'
import { ASIDE, isPressure } from '@uvanta/core/rules'
import { dimensionShown } from '@uvanta/core/instrument'
import {
  encodeTrace,
  type PickedReading,
  pickOpening,
  pickPlateau,
  swingOf,
} from '@uvanta/core/trace'
import {
  channelName,
  channelsOf,
  channelsShowing,
  type PayloadOf,
  type Notice,
  type RunName,
} from '@uvanta/core/visit'
import { ref } from 'vue'
import { useGauge } from '@/stores/gauge'
import { useVisit } from '@/stores/visit'

/** The longest stretch of trace that is kept with a reading, s. */
const KEPT_S = 240
/** Beyond the hold that a step asks for, so much of the trace before it. */
const KEPT_BEFORE_S = 20
/** A needle that never rests is read as the mean of this long, s. */
const AS_IT_STANDS_S = 1
/** Over this long its movement is measured, s. */
const DRIFT_OVER_S = 10

/** How fast a needle that never rests moved at last, in its unit a minute. */
function driftOf(values: Float64Array, periodS: number): number {
  const last = values.slice(-Math.round(DRIFT_OVER_S / periodS)).filter((v) => v === v)
  const [from, to] = [last[0], last.at(-1)]
  if (from === undefined || to === undefined || last.length < 2) return 0
  return ((to - from) / ((last.length - 1) * periodS)) * 60
}

/** Takes the reading of a step, typed or from the trace, and records it. */
export function useTakeReading(run: RunName, step: ProcedureStep) {
  const visit = useVisit()
  const gauge = useGauge()
  const record = step.record
  /** Height of the gauge above the port, mm; counts when a hose is open to air. */
  const heightMm = ref('0')
  const message = ref('')

  function common(): Pick<PayloadOf<'reading'>, 'run' | 'item' | 'dimension'> {
    return {
      run,
      item: record?.item ?? '',
      dimension: record?.dimension as Dimension,
    }
  }

  /** How long the step wants it held, s. */
  const holdS = record?.hold ? toSi({ dimension: 'time', ...record.hold }) : 0
  /** With several gauges, the one whose range is the smallest that holds the value. */
  function channelOf(value: number, unit: string): { channel?: string } {
    if (record?.aside) return { channel: ASIDE }
    const dimension = record?.dimension as Dimension
    const state = visit.state.runs[run]
    const shown = state ? channelsShowing(state.started, dimension, value, unit) : []
    return shown.length > 0 && state && channelsOf(state).length > 1 ? { channel: shown[0] } : {}
  }

  const height = () =>
    record?.head
      ? {
          gaugeAbovePort: { value: heightMm.value.trim(), unit: 'mm' as const },
        }
      : {}

  function typed(value: string, unit: string, insisted?: string): Notice | null {
    message.value = ''
    try {
      parseDisplayed(value)
      if (record?.head) parseDisplayed(heightMm.value)
    } catch (error) {
      message.value = (error as Error).message
      return { why: message.value, remedy: '' }
    }
    return visit.record('reading', {
      ...common(),
      value: value.trim(),
      unit,
      source: 'typed',
      ...channelOf(Number(value), unit),
      ...(insisted ? { insisted } : {}),
      ...height(),
    })
  }

  /** How fast the needle may still move in this step, a minute, in the unit of the gauge. */
  function mostDrift(unit: string): number | undefined {
    const { creep, dimension, restPercent } = record ?? {}
    if (restPercent !== undefined) {
      return (restPercent / 100) * Math.abs(gauge.view?.value ?? 0)
    }
    return creep && dimension
      ? convertValue(dimension, parseDisplayed(creep.value), creep.unit, unit)
      : undefined
  }

  /** The reading on the trace; null with a message when there is none yet. */
  function pick(asItStands: boolean): PickedReading | null {
    const { hello } = gauge.view ?? {}
    const values = gauge.trace()
    if (!hello || values.length < 5) return null
    const source = { periodS: hello.periodS, resolution: hello.resolution, span: hello.span }
    if (record?.read !== 'plateau') return pickOpening(values, source, gauge.seenAt())
    const rest = pickPlateau(values, source, mostDrift(hello.unit))
    if (rest || !asItStands) return rest
    const last = values.slice(-Math.round(AS_IT_STANDS_S / hello.periodS)).filter((v) => v === v)
    if (last.length === 0) return null
    const mean = last.reduce((a, b) => a + b, 0) / last.length
    const deviation = Math.sqrt(last.reduce((a, b) => a + (b - mean) ** 2, 0) / last.length)
    const fallback = pickOpening(values, source)
    const driftPerMinute = driftOf(values, hello.periodS)
    return (
      fallback && { ...fallback, index: values.length - 1, value: mean, deviation, driftPerMinute }
    )
  }

  /** What the recorder’s other channels showed when it was read, and while the trace that is kept was taken. */
  function besideAt(index: number, first: number): Pick<PayloadOf<'reading'>, 'beside'> {
    const beside = gauge.channels().flatMap(({ place, unit, points }) => {
      const seen = points.filter((p) => p.at >= first)
      const near = seen.toSorted((a, b) => Math.abs(a.at - index) - Math.abs(b.at - index))[0]
      if (!near) return []
      const values = seen.map((p) => p.value)
      const [value, low, high] = [near.value, Math.min(...values), Math.max(...values)].map((v) =>
        roundTo(v, 2),
      ) as [string, string, string]
      return [{ place, value, low, high, unit }]
    })
    return beside.length > 0 ? { beside } : {}
  }

  /** Takes the reading from the trace. Answers true when it was recorded. */
  function streamed(asItStands: boolean): boolean {
    message.value = ''
    const { hello, state } = gauge.view ?? {}
    if (!hello || state !== 'live') {
      message.value = 'The gauge is not on the line. Wait for it, or type the reading.'
      return false
    }
    const shows = dimensionShown(hello.unit)
    const wanted = record?.dimension
    if (!record || !shows || !wanted) return false
    if (shows !== wanted && !(isPressure(shows) && isPressure(wanted))) {
      message.value = `${hello.tag} on the line shows ${hello.unit}, and ${record.title} is a ${dimensionTitles[wanted]}. Connect the instrument that shows it, or type the reading.`
      return false
    }
    // The certificate names this gauge and its calibration: a reading of another one is none of its.
    const named = visit.state.runs[run]?.started.instruments ?? []
    if (!named.some((i) => i.serial === hello.serial)) {
      const begun = named.map((i) => `${i.tag}, serial ${i.serial}`).join('; ')
      message.value = `On the line is gauge ${hello.tag}, serial ${hello.serial}; this test was begun with ${begun}. Connect that one, or type what it shows.`
      return false
    }
    const picked = pick(asItStands)
    if (!picked) {
      message.value = 'The needle does not rest yet. Wait until it does, or take it as it stands.'
      return false
    }
    const values = gauge.trace()
    const heldS = values.length * hello.periodS
    if (heldS < holdS) {
      message.value = `Held for ${Math.floor(heldS)} s of ${holdS} s. Leave it shut, and read it then.`
      return false
    }
    const kept = Math.max(KEPT_S, holdS + KEPT_BEFORE_S)
    const first = Math.max(0, values.length - Math.round(kept / hello.periodS))
    const mark = Math.max(0, picked.index - first)
    const digits = Math.max(0, Math.round(-Math.log10(hello.resolution)))
    const swing = swingOf(values.slice(first), hello.periodS)
    const refusal = visit.record('reading', {
      ...common(),
      value: roundTo(picked.value, digits),
      unit: hello.unit,
      source: 'streamed',
      channel: channelName(hello, { id: 'main' }),
      ...(holdS > 0 ? { heldS: Math.floor(Math.min(heldS, kept)) } : {}),
      deviation: Math.round(picked.deviation * 1e5) / 1e5,
      ...(record.read === 'plateau'
        ? // Cut, not rounded: what rested just within the limit must not be over it on record.
          { driftPerMinute: Math.trunc(picked.driftPerMinute * 1e4) / 1e4 }
        : {}),
      ...(record.read === 'plateau' && swing !== undefined
        ? { swing: Math.round(swing * 1e5) / 1e5 }
        : {}),
      trace: {
        data: encodeTrace({ ...hello, values: values.slice(first) }),
        mark,
        found: mark,
      },
      ...besideAt(picked.index, first),
      ...height(),
    })
    if (refusal) message.value = `${refusal.why} ${refusal.remedy}`
    return !refusal
  }

  /** Seconds for which it has been held so far, of those wanted. */
  const held = () => ({ s: gauge.trace().length * gauge.periodS, of: holdS })

  return { heightMm, message, typed, streamed, held }
}
