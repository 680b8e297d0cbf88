import type { CertificatePayload } from '@uvanta/core/certificate'
import type { Content } from 'pdfmake/interfaces'
import { dayWords, INK, momentWords, mono, RULE, small } from './pdfText'

/** What was corrected and by whom, and whether the times prove anything. */
export function remarks(p: CertificatePayload, timeZone: string): Content {
  const corrected = (p.corrections ?? []).map((c) => ({
    text: `${c.what}: ${c.was} → ${c.is ?? 'withdrawn'}. ${c.why} Corrected by ${c.by}, ${momentWords(c.at, timeZone)}.`,
  }))
  if (corrected.length === 0 && !p.clock) return []
  return {
    margin: [0, 12, 0, 0],
    stack: [
      { text: 'About this record', bold: true, headlineLevel: 2 },
      ...corrected,
      ...(p.clock ? [{ text: p.clock }] : []),
    ],
  }
}

/** Where to check the certificate, and who signed it. */
export function closing(
  p: CertificatePayload,
  { verifyUrl, timeZone }: { readonly verifyUrl: string; readonly timeZone: string },
): Content {
  const drawing = (path: string) =>
    `<svg viewBox="0 0 400 120"><path d="${path.replace(/[^MLCQZ0-9 .,-]/gi, '')}" fill="none" stroke="${INK}" stroke-width="2.5" stroke-linecap="round"/></svg>`
  return {
    unbreakable: true,
    columns: [
      { width: 84, qr: verifyUrl, fit: 78, eccLevel: 'M', foreground: INK },
      {
        width: '*',
        stack: [
          { text: 'Check this document', bold: true, headlineLevel: 2 },
          small('Scan the code, or open'),
          { ...(mono(verifyUrl, 7.5) as object), link: verifyUrl } as Content,
          small(
            'No account is needed. The signed file, attached, verifies with the public key alone.',
          ),
        ],
      },
      {
        width: 190,
        stack: [
          p.signature
            ? ({
                svg: drawing(p.signature),
                width: 120,
                height: 34,
                alt: `Signature of ${p.tester.name}`,
              } as Content)
            : ({
                ...(small(
                  'Reissued from the corrected record; not signed anew by hand.',
                ) as object),
                margin: [0, 10, 0, 4],
              } as Content),
          { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 185, y2: 0, lineWidth: RULE }] },
          { text: p.tester.name, bold: true, margin: [0, 3, 0, 0] },
          ...(p.tester.licence
            ? [
                small(
                  `Licence ${p.tester.licence}, valid to ${dayWords(p.tester.licenceExpiresOn ?? '')}`,
                ),
              ]
            : []),
          small(`${p.signature ? 'Signed' : 'First signed'} ${momentWords(p.signedAt, timeZone)}`),
        ],
      },
    ],
  }
}
