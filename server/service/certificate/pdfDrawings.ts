import { type CertificatePayload, type CertifiedRun, runOf } from '@uvanta/core/certificate'
import { convertValue, unitLabel } from '@uvanta/core/quantity'
import type { ItemJudgement } from '@uvanta/core/rules'
import type { Content } from 'pdfmake/interfaces'
import { INK, small } from './pdfText'

const PAPER_WIDTH = 515
const escape = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;')
const label = (x: number, y: number, text: string, anchor = 'middle', size = 7.5) =>
  `<text x="${x}" y="${y}" font-family="Next" font-size="${size}" text-anchor="${anchor}" fill="${INK}">${escape(text)}</text>`
const line = (x1: number, y1: number, x2: number, y2: number, more = '') =>
  `<line x1="${x1}" y1="${y1}" x2="${x2}" y2="${y2}" stroke="${INK}" stroke-width="0.7" ${more}/>`
const DASHED = 'stroke-dasharray="3 2"'

/** The pressures of a regulator station on one scale: what was found above the line, what was left under it. */
const STACKED: readonly string[] = [
  'set',
  'lock-up',
  'reseat',
  'relief-start',
  'take-over',
  'monitor-lock-up',
  'trip-low',
  'trip-high',
]

/** Draws set, lock-up and protection on one scale with the limit of the system; nothing without a set pressure. */
export function pressureScale(p: CertificatePayload): Content[] {
  const [found, left] = [runOf(p.asFound), runOf(p.asLeft)]
  const set = (left ?? found)?.verdict.items.find((i) => i.id === 'set')
  const { unit } = set ?? {}
  if (!set?.limits || !unit) return []
  const protection = (left ?? found)?.verdict.items.find((i) => i.id === 'protection')
  const top = protection?.limit && inUnit(protection.limit, protection.unit ?? unit, unit)
  const values = [found, left].flatMap((run) => marksOf(run, unit).map((m) => m.value))
  const ends = [Number(set.limits.low), ...values, ...(top ? [top] : [])]
  const [low, high] = [Math.min(...ends), Math.max(...ends)]
  const pad = (high - low) * 0.08 || 1
  const x = (v: number) => 20 + ((v - low + pad) / (high - low + 2 * pad)) * (PAPER_WIDTH - 40)
  const AXIS = 32
  const band = `<rect x="${x(Number(set.limits.low))}" y="${AXIS - 5}" width="${x(Number(set.limits.high)) - x(Number(set.limits.low))}" height="10" fill="none" stroke="${INK}" stroke-width="0.5"/>`
  const limit = top
    ? `${line(x(top), AXIS - 16, x(top), AXIS + 16, 'stroke-width="2"')}${label(x(top) - 3, AXIS + 26, 'limit of the system', 'end')}`
    : ''
  const rows = [
    ...spread(marksOf(found, unit), x).map((m) => mark(m, AXIS, -1)),
    ...spread(marksOf(left, unit), x).map((m) => mark(m, AXIS, 1)),
  ]
  const svg = `<svg viewBox="0 0 ${PAPER_WIDTH} 66">${line(20, AXIS, PAPER_WIDTH - 20, AXIS)}${band}${limit}${rows.join('')}</svg>`
  const words = `Above the line as found${left ? ', under it as left' : ''}, in ${unitLabel('gaugePressure', unit)}; the frame is the tolerance of the set pressure.`
  return [
    {
      svg,
      width: PAPER_WIDTH,
      margin: [0, 4, 0, 0],
      alt: 'Set, lock-up and protection on one scale',
    } as Content,
    small(words),
  ]
}

interface Mark {
  readonly id: string
  readonly value: number
}

const inUnit = (value: string, from: string, to: string) =>
  convertValue('gaugePressure', Number(value), from, to)

const marksOf = (run: CertifiedRun | null, unit: string): Mark[] =>
  STACKED.flatMap((id) => {
    const item = run?.verdict.items.find((i) => i.id === id)
    return item?.reading && item.dimension === 'gaugePressure' && item.unit
      ? [{ id, value: inUnit(item.reading, item.unit, unit) }]
      : []
  })

/** Labels that would lie over each other are put on two levels. */
function spread(marks: readonly Mark[], x: (v: number) => number) {
  let last = -Infinity
  let level = 0
  return [...marks]
    .sort((a, b) => a.value - b.value)
    .map((m) => {
      level = x(m.value) - last < 62 ? (level + 1) % 3 : 0
      last = x(m.value)
      return { ...m, at: x(m.value), level }
    })
}

function mark({ id, at, level }: Mark & { at: number; level: number }, axis: number, way: 1 | -1) {
  const end = axis + way * (9 + level * 9)
  return `${line(at, axis, at, end)}${label(at, way < 0 ? end - 2 : end + 7, id.replaceAll('-', ' '))}`
}

const POINT = /^(up|down)-(\d+)$/
/** Whether an item is one point of a stroke test, which the plot shows. */
export const isStrokePoint = ({ id, requirement }: ItemJudgement): boolean =>
  requirement === 'recorded' && (POINT.test(id) || id === 'again-50')

/** Draws the error of a stroke test against its signal, both ways; nothing where there was none. */
export function strokePlot(p: CertificatePayload): Content[] {
  const run = runOf(p.asLeft) ?? runOf(p.asFound)
  const points = (run?.verdict.items ?? []).flatMap((i) => {
    const found = POINT.exec(i.id)
    return found?.[1] && i.reading
      ? [{ way: found[1], signal: Number(found[2]), error: Number(i.reading) - Number(found[2]) }]
      : []
  })
  const tolerance = Number(run?.verdict.items.find((i) => i.id === 'worst-error')?.limit)
  if (points.length === 0 || !Number.isFinite(tolerance)) return []
  const most = Math.max(tolerance * 1.5, ...points.map((q) => Math.abs(q.error))) * 1.1
  const [left, width, middle, height] = [40, 440, 50, 42]
  const x = (signal: number) => left + (signal / 100) * width
  const y = (error: number) => middle - (error / most) * height
  const path = (way: string, more: string) => {
    const own = points.filter((q) => q.way === way).sort((a, b) => a.signal - b.signal)
    const line = own.map((q) => `${x(q.signal)},${y(q.error)}`).join(' ')
    const dots = own.map(
      (q) =>
        `<circle cx="${x(q.signal)}" cy="${y(q.error)}" r="2" fill="${way === 'up' ? INK : '#ffffff'}" stroke="${INK}"/>`,
    )
    return `<polyline points="${line}" fill="none" stroke="${INK}" ${more}/>${dots.join('')}`
  }
  const grid = [0, 25, 50, 75, 100].map((s) => label(x(s), 104, `${s} %`))
  const ends = [tolerance, -tolerance].map(
    (t) =>
      `${line(left, y(t), left + width, y(t), DASHED)}${label(left - 4, y(t) + 2.5, `${t > 0 ? '+' : '−'}${tolerance} %`, 'end')}`,
  )
  const svg = `<svg viewBox="0 0 ${PAPER_WIDTH} 108">${line(left, middle, left + width, middle)}${label(left - 4, middle + 2.5, '0', 'end')}${ends.join('')}${grid.join('')}${path('up', '')}${path('down', DASHED)}</svg>`
  return [
    {
      svg,
      width: PAPER_WIDTH,
      margin: [0, 6, 0, 0],
      alt: 'Error of the travel against the signal',
    } as Content,
    small(
      'Error of the travel against the signal: filled going up, open going down; between the dashed lines it is accepted.',
    ),
  ]
}
