import { type NominalName, nominalNames } from '@uvanta/core/apparatus'
import { formatQuantity } from '@uvanta/core/quantity'
import { fails } from '@uvanta/core/rules'
import {
  advisoriesOf,
  type CertificatePayload,
  type CertifiedRun,
  CHECK_WORDS,
  checkOf,
  documentTitle,
  instrumentsOf,
  linePressureWords,
  runOf,
} from '@uvanta/core/certificate'
import pdfmake from 'pdfmake'
import type { Content, ContentTable, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import { closing, remarks } from './certificateClosing'
import { paperFonts, withGlyphs } from './pdfGlyphs'
import { keys, readings } from './pdfReadings'
import { withTags } from './pdfTags'
import { dayWords, INK, mono, outcomeWords, ruled, small } from './pdfText'

pdfmake.setFonts(paperFonts)
pdfmake.setUrlAccessPolicy(() => false)
pdfmake.setLocalAccessPolicy(() => true)

const cell = (
  label: string,
  value: string,
  options: { mono?: boolean; colSpan?: number; size?: number } = {},
): TableCell => ({
  stack: [small(label), options.mono ? mono(value) : { text: value, fontSize: options.size ?? 9 }],
  ...(options.colSpan ? { colSpan: options.colSpan } : {}),
})

/** Height of the foot of a sheet, where code and signature stand on the first one, in points. */
const FOOT = 122

/** The certificate as a drawing sheet: title block, verdict, readings, work, signature, QR code. */
export async function certificatePdf(
  payload: CertificatePayload,
  issued: {
    readonly verifyUrl: string
    /** The signed file, which travels inside the paper’s. */
    readonly jws: string
    /** Zone of the utility’s clocks. */
    readonly timeZone: string
    /** Said across every sheet: VOID. */
    readonly mark?: string
  },
): Promise<Buffer> {
  // Code and signature are read out last, and stand at the foot of the first sheet.
  const marked = withTags(
    [
      heading(payload),
      titleBlock(payload),
      verdict(payload),
      keys(payload),
      readings(payload),
      work(payload),
      remarks(payload, issued.timeZone),
      closing(payload, issued),
    ].map(withGlyphs),
  )
  const [foot, parts] = [marked.at(-1) ?? '', marked.slice(0, -1)]
  const definition: TDocumentDefinitions = {
    version: '1.7',
    pageSize: 'A4',
    // Room at the foot for code and signature, which stand at the same place on every certificate.
    pageMargins: [40, 24, 40, FOOT],
    language: 'en-US',
    tagged: true,
    displayTitle: true,
    files: {
      signed: {
        src: `data:application/jose;base64,${Buffer.from(issued.jws).toString('base64')}`,
        name: `${payload.number}.jws`,
        description: 'The same content, signed: it verifies with the public key alone.',
      },
    },
    info: {
      title: `${documentTitle(payload)} ${payload.number}`,
      author: payload.utility,
      creationDate: new Date(payload.issuedAt),
    },
    ...(issued.mark
      ? { watermark: { text: issued.mark, color: INK, opacity: 0.18, bold: true, angle: -35 } }
      : {}),
    // On every sheet in plain text as well: a watermark is lost on a poor copy, and to who listens.
    ...(issued.mark
      ? {
          header: () => ({
            text: `${issued.mark}: this certificate is not in force.`,
            bold: true,
            alignment: 'center' as const,
            margin: [40, 8, 40, 0] as [number, number, number, number],
          }),
        }
      : {}),
    defaultStyle: { font: 'Next', fontSize: 9.5, color: INK, lineHeight: 1.15 },
    footer: (page, pages) => ({
      margin: [40, 6, 40, 0],
      stack: [
        page === 1 ? foot : { text: '', margin: [0, FOOT - 50, 0, 0] },
        {
          margin: [0, 6, 0, 0],
          columns: [
            small(payload.statement),
            {
              ...(small(`${payload.number} · sheet ${page} of ${pages}`) as object),
              width: 150,
              alignment: 'right',
            } as Content,
          ],
        },
      ],
    }),
    content: [...parts],
  }
  return pdfmake.createPdf(definition).getBuffer()
}

function heading(p: CertificatePayload): Content {
  return {
    margin: [0, 0, 0, 8],
    columns: [
      {
        stack: [
          { text: documentTitle(p), fontSize: 20, bold: true, headlineLevel: 1 },
          { text: issuerOf(p), fontSize: 9 },
        ],
      },
      { width: 'auto', alignment: 'right', stack: [small('Number'), mono(p.number, 14)] },
    ],
  }
}

/** The utility with its address, and under whose authority. */
const issuerOf = ({ utility, utilityAddress, authority }: CertificatePayload): string =>
  [
    utilityAddress ? `${utility}, ${utilityAddress}` : utility,
    ...(authority ? [`under ${authority}`] : []),
  ].join(' · ')

function titleBlock(p: CertificatePayload): Content {
  const e = p.equipment
  const final = runOf(p.asLeft) ?? runOf(p.asFound)
  return {
    layout: { ...ruled, paddingTop: () => 1.5, paddingBottom: () => 1 },
    table: {
      widths: ['*', '*', '*', '*'],
      body: [
        [
          cell('Equipment', e.tag, { mono: true }),
          cell('Serial', e.serial, { mono: true }),
          cell('Kind, size and service', `${e.kind} · ${e.sizeIn} in · ${e.service}`),
          cell('Maker', e.maker),
        ],
        [
          cell('Site and position', `${e.site}, ${e.address} · ${e.position}`, { colSpan: 2 }),
          '',
          cell('Customer · purpose', `${e.customer} · ${p.purpose}`),
          cell('Line pressure', linePressureWords(final)),
        ],
        ...nominalRow(p),
        ...(final ? testedBy(final) : []),
      ],
    },
  }
}

/** Nominal values that a verdict is held against, in the order in which they are printed. */
const JUDGED_BY: readonly NominalName[] = [
  'set-point',
  'accuracy-class',
  'lock-up-class',
  'relief-set',
  'monitor-set',
  'slam-shut-high',
  'slam-shut-low',
  'maop',
  'yield-limit',
  'inlet-maximum',
  'supply',
  'test-pressure',
  'air-test',
  'bench-low',
  'bench-high',
  'travel',
  'cycle-rate',
  'stroke-volume',
  'ratio',
]

/** What the equipment is judged by: set point, classes, protection, limit of the system. */
function nominalRow({ equipment }: CertificatePayload): TableCell[][] {
  const nominals = JUDGED_BY.flatMap(
    (n) => equipment.nominals?.find(({ name }) => name === n) ?? [],
  )
  if (nominals.length === 0) return []
  const words = nominals.map(({ name, value }) => `${nominalNames[name]} ${formatQuantity(value)}`)
  return [[cell('Nominal values', words.join(' · '), { colSpan: 4, size: 8.5 }), '', '', '']]
}

/** Under which procedure and rule pack a run was judged, and what it was measured with. */
function testedBy(run: CertifiedRun): TableCell[][] {
  const { procedure, verdict } = run
  const wide = { colSpan: 2, size: 8.5 }
  const gauges = instrumentsOf(run).map(
    (g) =>
      `${g.tag}, serial ${g.serial}, calibrated ${dayWords(g.calibratedOn)} to ${dayWords(g.calibrationUntil)} (${g.calibrationCertificate})`,
  )
  return [
    [
      cell('Procedure', `${procedure.title}, version ${procedure.version}`, wide),
      '',
      cell('Rule pack', `${verdict.rulePack.title}, version ${verdict.rulePack.version}`, wide),
      '',
    ],
    [cell('Gauges', gauges.join('\n') || '–', { colSpan: 4, size: 8.5 }), '', '', ''],
  ]
}

function verdict(p: CertificatePayload): Content {
  const check = checkOf(p)
  const latest = p.lawfulUntil ? `, lawful until ${dayWords(p.lawfulUntil)}` : ''
  const due = p.nextDueOn ? `Next test due ${dayWords(p.nextDueOn)}${latest}. ` : ''
  const repair = p.repairBy
    ? `To be ${fails(p.outcome) ? 'repaired' : 'renewed'} by ${dayWords(p.repairBy)}.`
    : ''
  return {
    margin: [0, 6, 0, 6],
    columns: [
      {
        width: 'auto',
        ...stamp(
          check ? CHECK_WORDS[check.checked].toUpperCase() : outcomeWords[p.outcome],
          advisoriesOf(p).replace(/^, /, ''),
          p,
        ),
        margin: [0, 0, 14, 0],
      },
      {
        stack: [
          { text: p.reason },
          {
            text: `${due}${repair}${p.work.length === 0 ? ' Nothing was opened.' : ''}`.trim(),
            bold: true,
          },
        ],
        margin: [0, 3, 0, 0],
      },
    ],
  }
}

/** The verdict by shape and weight, so that a copy in black and white says it too: a failure stands on black. */
function stamp(words: string, beside: string, { outcome }: CertificatePayload): ContentTable {
  const failed = fails(outcome)
  const colors = { color: failed ? '#ffffff' : INK, fillColor: failed ? INK : '#ffffff' }
  const sure = outcome === 'pass' || outcome === 'fail'
  const weight = sure ? 2 : 1
  return {
    table: {
      body: [
        [
          {
            stack: [
              { text: words, fontSize: 18, bold: true, ...colors },
              ...(beside ? [{ text: beside, fontSize: 9, bold: true, ...colors }] : []),
            ],
            fillColor: colors.fillColor,
            margin: [6, 2, 6, 2],
          },
        ],
      ],
    },
    layout: {
      hLineWidth: () => weight,
      vLineWidth: () => weight,
      hLineColor: () => INK,
      vLineColor: () => INK,
      ...(sure ? {} : { hLineStyle: () => DASHED, vLineStyle: () => DASHED }),
    },
  }
}
const DASHED = { dash: { length: 4, space: 2 } }

function work(p: CertificatePayload): Content {
  if (p.work.length === 0) return []
  return {
    margin: [0, 4, 0, 0],
    stack: [
      { text: 'Work done', bold: true, headlineLevel: 2 },
      ...p.work.flatMap((w) => [
        { text: w.text },
        ...w.parts.map((part) => ({
          text: `${part.quantity} × ${part.name}${part.number ? ` (${part.number})` : ''}`,
          margin: [10, 0, 0, 0] as [number, number, number, number],
        })),
        ...(w.temporary
          ? [
              {
                text: `Temporary, permitted by ${w.temporary.permittedBy}: to be renewed by ${dayWords(w.temporary.until)}.`,
                bold: true,
              },
            ]
          : []),
      ]),
    ],
  }
}
