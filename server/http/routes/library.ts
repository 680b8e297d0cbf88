import { api } from '@uvanta/contract'
import { compute, computationNamed, computations } from '@uvanta/core/registry'
import type { App } from '../../context'
import { sendPacked } from '../libraryAnswer'
import type { Bind } from '../route'

/** The know-how, and what is computed with it. */
export function bindLibrary(app: App, bind: Bind): void {
  bind(api.library.read, async ({ req, res }) => {
    const { earlier: _, ...inForce } = app.shelf.library
    await sendPacked(app.shelf.library, () => inForce, req, res)
    return inForce
  })
  bind(api.library.earlier, async ({ req, res }) => {
    const { earlier } = app.shelf.library
    await sendPacked(earlier, () => earlier, req, res)
    return earlier
  })
  bind(api.library.state, () => app.shelf.state)
  bind(api.computations.list, () => ({
    items: computations.map(({ name, title, summary, source, example }) => ({
      name,
      title,
      summary,
      source,
      example: example as object,
    })),
  }))
  bind(
    api.computations.run,
    ({ params, body }) => compute(computationNamed(params.name), body, app.shelf.library) as object,
  )
}
