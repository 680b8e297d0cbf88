import { api } from '@uvanta/contract'
import { compute, computationNamed, computations } from '@uvanta/core/registry'
import type { App } from '../../context'
import { listAudit } from '../../service/audit'
import type { Bind } from '../route'

export function bindKnow(app: App, bind: Bind): void {
  bind(api.know.library, () => app.shelf.library as never)
  bind(api.know.libraryState, () => app.shelf.state as never)
  bind(api.know.gaugeLink, () => ({ url: app.config.gaugeUrl ?? null }))
  bind(api.know.computations, () => ({
    items: computations.map(({ name, title, summary, source, example }) => ({
      name,
      title,
      summary,
      source,
      example: example as object,
    })),
  }))
  bind(
    api.know.compute,
    ({ params, body }) => compute(computationNamed(params.name), body, app.shelf.library) as object,
  )
  bind(api.know.audit, ({ query }) => listAudit(app, query))
}
