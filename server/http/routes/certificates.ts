import { api } from '@uvanta/contract'
import type { App } from '../../context'
import * as certificates from '../../service/certificate/certificates'
import * as release from '../../service/certificate/release'
import * as verification from '../../service/certificate/verification'
import { type Bind, sendFile } from '../route'

export function bindCertificates(app: App, bind: Bind): void {
  bind(api.certificates.list, ({ actor, query }) =>
    certificates.listCertificates(app, actor(), query),
  )
  bind(api.certificates.read, ({ actor, params }) =>
    certificates.readCertificate(app, actor(), params.id),
  )
  bind(api.certificates.pdf, async ({ actor, params, res }) => {
    const { name, pdf } = await certificates.readPdf(app, actor(), params.id)
    sendFile(res, `${name}.pdf`, 'application/pdf', pdf)
  })
  bind(api.certificates.jws, async ({ actor, params, res }) => {
    const { name, jws } = await certificates.readJws(app, actor(), params.id)
    sendFile(res, `${name}.jws`, 'application/jose', jws)
  })
  bind(api.certificates.void, ({ actor, params, body }) =>
    release.voidCertificate(app, actor(), params.id, body.reason),
  )
  bind(api.certificates.supersede, ({ actor, params, body }) =>
    release.supersedeCertificate(app, actor(), params.id, body.reason),
  )
  bind(api.certificates.verify, ({ params }) => verification.verifyCode(app, params.code))
  bind(api.certificates.verifyJws, async ({ params, res }) => {
    const { name, jws } = await verification.jwsByCode(app, params.code)
    sendFile(res, `${name}.jws`, 'application/jose', jws)
  })
}
