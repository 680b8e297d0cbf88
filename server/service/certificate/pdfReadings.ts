import {
  type CertificatePayload,
  type CertifiedRun,
  CHECK_WORDS,
  runOf,
} from '@uvanta/core/certificate'
import { roundTo, unitLabel } from '@uvanta/core/quantity'
import type { ItemJudgement } from '@uvanta/core/rules'
import type { Content, TableCell } from 'pdfmake/interfaces'
import { dayWords, mono, outcomeWords, ruled, small } from './pdfText'

/** What was read and judged, as found beside as left; of a function check what was seen and tried. */
export function readings(p: CertificatePayload): Content {
  const found = runOf(p.asFound)
  const left = runOf(p.asLeft)
  const items = (left ?? found)?.verdict.items ?? []
  const rows = items.map((item) => [
    { text: item.title },
    item.wanted ? { text: item.wanted, fontSize: 8.5 } : mono(limitText(item)),
    runCell(found, item.id),
    runCell(left, item.id),
  ])
  return {
    stack: [
      ...seen('As found', p.asFound),
      ...(p.asLeft ? seen('As left', p.asLeft) : []),
      ...('impossible' in p.asFound
        ? [
            {
              text: `As-found not taken: ${p.asFound.impossible}`,
              margin: [0, 0, 0, 4] as [number, number, number, number],
            },
          ]
        : []),
      ...(items.length === 0 ? [] : [table(found, left, rows)]),
    ],
  }
}

function table(
  found: CertifiedRun | null,
  left: CertifiedRun | null,
  rows: TableCell[][],
): Content {
  return {
    layout: { ...ruled, vLineWidth: () => 0, hLineWidth: (i: number) => (i <= 1 ? 1 : 0.3) },
    table: {
      headerRows: 1,
      widths: ['*', 90, 120, 120],
      body: [
        [
          'Reading',
          'Wanted',
          `As found ${found ? dayWords(found.date) : ''}`,
          `As left ${left ? dayWords(left.date) : ''}`,
        ].map((text) => ({ text, bold: true, fontSize: 8.5 })),
        ...rows,
      ],
    },
  }
}

function seen(when: string, part: CertificatePayload['asFound']): Content[] {
  if (!('checked' in part)) return []
  return [
    {
      text: `${when} ${dayWords(part.date)}: ${CHECK_WORDS[part.checked].toLowerCase()}`,
      bold: true,
      headlineLevel: 2,
    },
    { text: part.text },
    ...part.readings.map((r) => ({ columns: [{ width: 160, text: r.title }, mono(r.value)] })),
    { text: '', margin: [0, 0, 0, 6] },
  ]
}

function limitText(item: ItemJudgement): string {
  if (!item.limit || !item.unit || !item.dimension) return item.wanted ?? item.requirement
  return `${item.limitSense === 'at most' ? '≤' : '≥'} ${item.limit} ${unitLabel(item.dimension, item.unit)}`
}

const heldWords = ({ heldS }: ItemJudgement) =>
  heldS === undefined ? '' : `held ${roundTo(heldS / 60, 1)} min, `

function runCell(run: CertifiedRun | null, id: string): TableCell {
  const item = run?.verdict.items.find((i) => i.id === id)
  if (!item) return { text: '–' }
  const value =
    item.reading && item.unit && item.dimension
      ? `${item.corrected ?? item.reading} ${unitLabel(item.dimension, item.unit)}`
      : (item.answer ?? '–')
  return {
    stack: [
      mono(value),
      small(
        heldWords(item) +
          outcomeWords[item.outcome].toLowerCase() +
          (item.requirement === 'required' ? '' : `, ${item.requirement}`),
      ),
    ],
  }
}
