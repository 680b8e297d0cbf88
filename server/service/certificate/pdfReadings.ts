import {
  type CertificatePayload,
  type CertifiedCheck,
  type CertifiedEarlier,
  type CertifiedRun,
  CHECK_WORDS,
  type KeyValue,
  keyReadings,
  limitWords,
  runOf,
} from '@uvanta/core/certificate'
import { roundTo, unitLabel } from '@uvanta/core/quantity'
import type { ItemJudgement } from '@uvanta/core/rules'
import type { Content, TableCell } from 'pdfmake/interfaces'
import { isStrokePoint, pressureScale, strokePlot } from './pdfDrawings'
import { dayWords, mono, outcomeWords, resultWords, ruled, small } from './pdfText'

/** What a reader looks for first, large: each value with what it should be, as found beside as left. */
export function keys(p: CertificatePayload): Content {
  const found = keyReadings(p)
  if (found.length === 0) return []
  return {
    margin: [0, 0, 0, 8],
    layout: ruled,
    table: {
      widths: found.map(() => '*'),
      body: [
        found.map((k): TableCell => ({
          stack: [
            { text: k.title, bold: true, fontSize: 9 },
            small(k.limits),
            ...keyLine('As found', k.found),
            ...keyLine('As left', k.left),
          ],
        })),
      ],
    },
  }
}

function keyLine(when: string, value: KeyValue | null): Content[] {
  if (!value) return []
  return [
    {
      columns: [
        { ...(small(when) as object), width: 42, margin: [0, 2, 0, 0] } as Content,
        {
          ...(mono(`${value.value} ${value.unit}`, 11) as object),
          width: '*',
        } as unknown as Content,
        { text: resultWords[value.outcome], width: 'auto', fontSize: 8.5, margin: [0, 1, 0, 0] },
      ],
    },
  ]
}

/** What was read and judged, as found beside as left; of a function check what was seen and tried. */
export function readings(p: CertificatePayload): Content {
  const found = runOf(p.asFound)
  const left = runOf(p.asLeft)
  const items = ((left ?? found)?.verdict.items ?? []).filter((i) => !isStrokePoint(i))
  return {
    stack: [
      ...seen('As found', p.asFound),
      ...(p.asLeft ? seen('As left', p.asLeft) : []),
      ...('impossible' in p.asFound
        ? [
            {
              text: `As-found test not taken: ${p.asFound.impossible}`,
              margin: [0, 0, 0, 4] as [number, number, number, number],
            },
          ]
        : []),
      ...(items.length === 0 ? [] : [table(found, left, items)]),
      ...(items.some((i) => i.requirement === 'advisory')
        ? [small('In brackets: advisory, does not decide.')]
        : []),
      ...pressureScale(p),
      ...strokePlot(p),
      ...earlierTests(p.earlier ?? []),
    ],
  }
}

function table(
  found: CertifiedRun | null,
  left: CertifiedRun | null,
  items: readonly ItemJudgement[],
): Content {
  const runs = [
    ...(found ? [{ when: 'As found', run: found }] : []),
    ...(left ? [{ when: 'As left', run: left }] : []),
  ]
  return {
    layout: {
      ...ruled,
      vLineWidth: () => 0,
      hLineWidth: (i: number) => (i <= 1 ? 1 : 0.3),
      paddingTop: () => 1,
      paddingBottom: () => 0.5,
    },
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths: runs.length === 2 ? ['*', 84, 72, 48, 72, 48] : ['*', 140, 100, 80],
      body: [
        [
          'Reading',
          'Limits',
          ...runs.flatMap(({ when, run }) => [`${when} ${dayWords(run.date)}`, 'Result']),
        ].map((text) => ({ text, bold: true, fontSize: 7, lineHeight: 1 })),
        ...items.map((item) => [
          { text: item.title, fontSize: 8, lineHeight: 1 },
          limitCell(item),
          ...runs.flatMap(({ run }) => runCells(run, item.id)),
        ]),
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

/** Both ends, or the one there is, without what they are percentages of: that is said above. */
const rangeWords = ({ base: _, ...item }: ItemJudgement): string => limitWords(item)

const limitCell = (item: ItemJudgement): TableCell => ({
  text: item.wanted ?? rangeWords(item),
  fontSize: 8,
})

const heldWords = ({ heldS }: ItemJudgement) =>
  heldS === undefined ? '' : ` (${roundTo(heldS / 60, 1)} min)`

function runCells(run: CertifiedRun, id: string): TableCell[] {
  const item = run.verdict.items.find((i) => i.id === id)
  if (!item) return [{ text: '–' }, { text: '' }]
  const shown = valueWords(item)
  const isSeen = item.reading === undefined
  return [
    isSeen
      ? { text: shown.split(' – ')[0] ?? shown, fontSize: 8, lineHeight: 1 }
      : { text: shown, font: 'Mono', fontSize: 8, lineHeight: 1 },
    { text: resultOf(item), fontSize: 7, lineHeight: 1 },
  ]
}

function valueWords(item: ItemJudgement): string {
  if (!item.reading || !item.unit || !item.dimension) return item.answer ?? '–'
  const unit = unitLabel(item.dimension, item.unit)
  return `${item.corrected ?? item.reading} ${item.perMinute ? `${unit}/min` : unit}${heldWords(item)}`
}

/** The result of one item; an advisory one, which does not decide, stands in brackets. */
function resultOf({ outcome, requirement }: ItemJudgement): string {
  if (requirement === 'recorded') return 'recorded'
  const words = resultWords[outcome]
  return requirement === 'advisory' ? `(${words})` : words
}

/** Tests that others came after: what they came to and what decided it. */
function earlierTests(earlier: readonly CertifiedEarlier[]): Content[] {
  if (earlier.length === 0) return []
  return [
    { text: 'Earlier tests on this visit', bold: true, headlineLevel: 2, margin: [0, 10, 0, 2] },
    ...earlier.map(({ run, ended, why, test }): Content => ({
      margin: [0, 0, 0, 4],
      stack: [
        {
          text: `${run === 'as-found' ? 'As found' : 'As left'} ${dayWords(test.date)}: ${outcomeOf(test)}${ended === 'not-finished' ? ', not finished' : ''}`,
          bold: true,
        },
        { text: reasonOf(test), fontSize: 8.5 },
        ...(why ? [small(`Tested again: ${why}`)] : []),
      ],
    })),
  ]
}

const outcomeOf = (test: CertifiedRun | CertifiedCheck): string =>
  'verdict' in test
    ? outcomeWords[test.verdict.outcome].toLowerCase()
    : CHECK_WORDS[test.checked].toLowerCase()

function reasonOf(test: CertifiedRun | CertifiedCheck): string {
  if (!('verdict' in test)) return test.text
  const read = test.verdict.items
    .filter((i) => i.reading ?? i.answer)
    .map((i) => `${i.title} ${valueWords(i)}`)
    .join('; ')
  return read || 'Nothing was recorded.'
}
