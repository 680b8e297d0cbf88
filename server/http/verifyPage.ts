import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Verification } from '@uvanta/contract'
import { advisoriesOf, type CertificatePayload } from '@uvanta/core/certificate'
import type { Request, RequestHandler, Response } from 'express'
import type { App } from '../context'
import { verifyCode } from '../service/certificate/verification'
import { escapeHtml } from './escapeHtml'

const verdicts: Readonly<Record<Verification['verdict'], string>> = {
  genuine: 'Genuine, not replaced.',
  superseded: 'Genuine, but another certificate has taken its place.',
  void: 'Void: it was issued, and later declared void. Do not rely on it.',
  altered: 'Altered: what is stored is not what was signed. Do not rely on it.',
  forgotten:
    'No longer on record: one of this number was issued, and deleted when the time for which records are kept was over.',
  unknown: 'Unknown: no certificate has this code.',
}
const meanings: Readonly<Record<NonNullable<Verification['means']>['state'], string>> = {
  passed: 'Passed{beside}; next test due',
  failed: 'FAILED; to be repaired by',
  temporary: 'Passed{beside}, with a temporary repair, to be renewed by',
  overdue: 'Passed then, but overdue: a new test was due',
  overtaken: 'Out of date: tested again',
  'not-assessed': 'Neither passed nor failed: it could not be assessed.',
}

/** The page of a certificate: the application, and what it says in plain words where no script runs. */
export function verifyPage(app: App): RequestHandler {
  return async (req: Request, res: Response) => {
    const page = await readFile(join(app.config.webDirectory, 'index.html'), 'utf8')
    const said = plainWords(await verifyCode(app, String(req.params.code).slice(0, 60)))
    res.setHeader('Cache-Control', 'no-cache')
    res
      .type('html')
      .send(page.replace(/<noscript>.*?<\/noscript>/s, () => `<noscript>${said}</noscript>`))
  }
}

function plainWords({ verdict, means, payload, utility }: Verification): string {
  const p = payload as CertificatePayload | null
  const lines = [
    ...(means && p
      ? [`${meanings[means.state].replace('{beside}', advisoriesOf(p))} ${means.on ?? ''}`]
      : []),
    verdicts[verdict],
    ...(p
      ? [
          `${p.number}: ${p.equipment.kind} ${p.equipment.tag}, serial ${p.equipment.serial}, ${p.equipment.site}, ${p.equipment.address}.`,
          `Tested by ${p.tester.name}; signed ${p.signedAt.slice(0, 10)}.`,
        ]
      : []),
    `${utility.name}${utility.phone ? `, ${utility.phone}` : ''}`,
  ]
  const [first = '', ...rest] = lines.map((l) => escapeHtml(l.trim()))
  return `<h1>${first}</h1>${rest.map((l) => `<p>${l}</p>`).join('')}`
}
