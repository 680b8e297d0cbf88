import { formatQuantity, roundTo, unitLabel } from '../quantity'
import type { ItemJudgement } from '../rules'
import { type CertificatePayload, type CertifiedRun, runOf } from './payload'

/** A value of one run with its result. */
export interface KeyValue {
  readonly value: string
  readonly unit: string
  readonly outcome: ItemJudgement['outcome']
}

/** What a reader looks for first on a certificate: a value with what it should be, as found beside as left. */
export interface KeyReading {
  readonly id: string
  readonly title: string
  /** What it should be, as “14.0 inH₂O ± 10 %, 12.6 to 15.4”. */
  readonly limits: string
  readonly found: KeyValue | null
  readonly left: KeyValue | null
}

/** What is read first, by kind of equipment: set pressures, check differentials, the error of a stroke. */
const FIRST: readonly string[] = [
  'set',
  'lock-up',
  'relief-start',
  'check-1',
  'check-2',
  'relief-opening',
  'air-inlet',
  'check',
  'worst-error',
  'hysteresis',
  'reserve',
]
const MOST = 3

/** Returns the readings that a certificate opens with, three at most; none for a function check. */
export function keyReadings(payload: CertificatePayload): KeyReading[] {
  const [found, left] = [runOf(payload.asFound), runOf(payload.asLeft)]
  const items = (left ?? found)?.verdict.items.filter((i) => i.reading !== undefined) ?? []
  const first = FIRST.flatMap((id) => items.find((i) => i.id === id) ?? [])
  const required = items.filter((i) => i.requirement === 'required' && !first.includes(i))
  return [...first, ...required].slice(0, MOST).map((item) => ({
    id: item.id,
    title: item.title,
    limits: limitWords(item),
    found: valueOf(found, item.id),
    left: valueOf(left, item.id),
  }))
}

function valueOf(run: CertifiedRun | null, id: string): KeyValue | null {
  const item = run?.verdict.items.find((i) => i.id === id)
  if (!item?.reading || !item.unit || !item.dimension) return null
  return {
    value: item.corrected ?? item.reading,
    unit: unitOf(item),
    outcome: item.outcome,
  }
}

const unitOf = (item: ItemJudgement) => {
  const label = item.dimension && item.unit ? unitLabel(item.dimension, item.unit) : ''
  return item.perMinute ? `${label} a minute` : label
}

/** Says what a reading should be: both ends where it has two, the nominal value and its percentage, or one end. */
export function limitWords(item: ItemJudgement): string {
  if (item.wanted) return item.wanted
  const { limit, limits, base } = item
  if (!limit) return ''
  const unit = unitOf(item)
  const percent = base && aboutWords(item)
  if (limits) {
    const range = `${limits.low} to ${limits.high} ${unit}`
    return percent ? `${percent}: ${range}` : range
  }
  const end = `${item.limitSense === 'at most' ? '≤' : '≥'} ${limit} ${unit}`
  return percent ? `${percent}: ${end}` : end
}

/** “14.0 inH₂O ± 10 %”, “60 psi + 20 %”. */
function aboutWords({ base, dimension }: ItemJudgement): string {
  if (!base || !dimension) return ''
  const { below, above } = base
  const value = formatQuantity({ dimension, value: base.value, unit: base.unit })
  const text = (n: number) => roundTo(Math.abs(n), Number.isInteger(n) ? 0 : 1)
  if (below !== undefined && below === above) return `${value} ± ${text(below)} %`
  const parts = [
    ...(below === undefined ? [] : [`− ${text(below)} %`]),
    ...(above === undefined ? [] : [`${above < 0 ? '−' : '+'} ${text(above)} %`]),
  ]
  return `${value} ${parts.join(', ')}`
}

/** Says the pressure in the line of a run: as it was noted, else as its inlet was read. */
export function linePressureWords(run: CertifiedRun | null): string {
  if (run?.linePressure) return run.linePressure
  const inlet = run?.verdict.items.find((i) => i.id === 'inlet')
  return inlet?.reading ? `${inlet.reading} ${unitOf(inlet)} (inlet, as read)` : 'not recorded'
}
