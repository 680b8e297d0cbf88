import { api } from '@uvanta/contract'
import { docsPage } from '../docsPage'
import { openApiDocument } from '../openapi'
import type { Bind } from '../route'

/** The interface described, for people and for programs. */
export function bindDescription(bind: Bind): void {
  const document = openApiDocument()
  bind(api.description.document, ({ res }) => void res.json(document))
  bind(api.description.page, ({ res }) => void res.type('html').send(docsPage(document)))
}
