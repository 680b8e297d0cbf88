import { fails } from '@uvanta/core/rules'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import {
  type CertificatePayload,
  type CertifiedRun,
  CHECK_WORDS,
  checkOf,
  documentTitle,
  instrumentsOf,
  runOf,
} from '@uvanta/core/certificate'
import pdfmake from 'pdfmake'
import type { Content, ContentTable, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import { closing, remarks } from './certificateClosing'
import { readings } from './pdfReadings'
import { withTags } from './pdfTags'
import { dayWords, INK, mono, outcomeWords, ruled, small } from './pdfText'

const require = createRequire(import.meta.url)
const fontFile = (family: string, weight: string) => {
  const home = dirname(require.resolve(`@expo-google-fonts/${family}/package.json`))
  const name =
    family === 'atkinson-hyperlegible-next'
      ? 'AtkinsonHyperlegibleNext'
      : 'AtkinsonHyperlegibleMono'
  return join(home, weight, `${name}_${weight}.ttf`)
}
const face = (family: string) => ({
  normal: fontFile(family, '400Regular'),
  bold: fontFile(family, '700Bold'),
  italics: fontFile(family, '400Regular_Italic'),
  bolditalics: fontFile(family, '700Bold_Italic'),
})

pdfmake.setFonts({
  Next: face('atkinson-hyperlegible-next'),
  Mono: face('atkinson-hyperlegible-mono'),
})
pdfmake.setUrlAccessPolicy(() => false)
pdfmake.setLocalAccessPolicy(() => true)

const cell = (
  label: string,
  value: string,
  options: { mono?: boolean; colSpan?: number } = {},
): TableCell => ({
  stack: [small(label), options.mono ? mono(value) : { text: value, fontSize: 9.5 }],
  ...(options.colSpan ? { colSpan: options.colSpan } : {}),
})

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
  const definition: TDocumentDefinitions = {
    version: '1.7',
    pageSize: 'A4',
    pageMargins: [40, 40, 40, 56],
    language: 'en-GB',
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
    defaultStyle: { font: 'Next', fontSize: 9.5, color: INK, lineHeight: 1.15 },
    footer: (page, pages) => ({
      margin: [40, 12, 40, 0],
      columns: [
        small(payload.statement),
        {
          ...(small(`${payload.number} · sheet ${page} of ${pages}`) as object),
          width: 150,
          alignment: 'right',
        } as Content,
      ],
    }),
    content: withTags([
      heading(payload),
      titleBlock(payload),
      verdict(payload),
      readings(payload),
      work(payload),
      remarks(payload),
      closing(payload, issued),
    ]),
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
          { text: p.authority ? `${p.utility} · under ${p.authority}` : p.utility, fontSize: 9 },
        ],
      },
      { width: 'auto', alignment: 'right', stack: [small('Number'), mono(p.number, 14)] },
    ],
  }
}

function titleBlock(p: CertificatePayload): Content {
  const e = p.equipment
  const final = runOf(p.asLeft) ?? runOf(p.asFound)
  return {
    layout: ruled,
    table: {
      widths: ['*', '*', '*', '*'],
      body: [
        [
          cell('Equipment', e.tag, { mono: true }),
          cell('Serial', e.serial, { mono: true }),
          cell('Kind and size', `${e.kind} · ${e.sizeIn} in`),
          cell('Service', e.service),
        ],
        [
          cell('Site', `${e.site}, ${e.address}`, { colSpan: 2 }),
          '',
          cell('Customer', e.customer),
          cell('Maker', e.maker),
        ],
        [
          cell('Position', e.position, { colSpan: 2 }),
          '',
          cell('Purpose', p.purpose),
          cell('Line pressure', final?.linePressure ?? 'not recorded'),
        ],
        ...(final ? testedBy(final) : []),
      ],
    },
  }
}

/** Under which procedure and rule pack a run was judged, and what it was measured with. */
function testedBy(run: CertifiedRun): TableCell[][] {
  const gauges = instrumentsOf(run)
  const { procedure, verdict } = run
  const wide = { colSpan: 2 }
  return [
    [
      cell('Procedure', `${procedure.title}, version ${procedure.version}`, wide),
      '',
      cell('Rule pack', `${verdict.rulePack.title}, version ${verdict.rulePack.version}`, wide),
      '',
    ],
    [
      cell('Gauge', gauges.map((g) => `${g.tag}, ${g.serial}`).join('; '), {
        mono: true,
        ...wide,
      }),
      '',
      cell(
        'Calibrated',
        gauges
          .map((g) => `${dayWords(g.calibratedOn)} to ${dayWords(g.calibrationUntil)}`)
          .join(', '),
        { mono: true },
      ),
      cell('Calibration certificate', gauges.map((g) => g.calibrationCertificate).join(', '), {
        mono: true,
      }),
    ],
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
    margin: [0, 12, 0, 10],
    columns: [
      {
        width: 'auto',
        ...stamp(check ? CHECK_WORDS[check.checked].toUpperCase() : outcomeWords[p.outcome], p),
        margin: [0, 0, 14, 0],
      },
      {
        stack: [{ text: p.reason }, { text: `${due}${repair}`, bold: true }],
        margin: [0, 3, 0, 0],
      },
    ],
  }
}

/** The verdict by shape and weight, so that a copy in black and white says it too: a failure stands on black. */
function stamp(words: string, { outcome }: CertificatePayload): ContentTable {
  const failed = fails(outcome)
  const sure = outcome === 'pass' || outcome === 'fail'
  const weight = sure ? 2 : 1
  return {
    table: {
      body: [
        [
          {
            text: words,
            fontSize: 18,
            bold: true,
            color: failed ? '#ffffff' : INK,
            fillColor: failed ? INK : '#ffffff',
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
  if (p.work.length === 0) return { text: 'Nothing was opened.', margin: [0, 10, 0, 0] }
  return {
    margin: [0, 12, 0, 0],
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
