import { api } from '@uvanta/contract'
import { compute, computationNamed, computations } from '@uvanta/core/registry'
import { check } from '@uvanta/core/schema'
import type { Response } from 'express'
import type { App } from '../../context'
import { ServiceError } from '../../service/errors'
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
  const atWork = oneAtATime()
  bind(api.computations.run, async ({ params: { name }, body, req, res }) => {
    const definition = computationNamed(name)
    const { library } = app.shelf
    if (!definition.heavy) return compute(definition, body, library) as object
    // What is malformed takes no thread.
    check(definition.input, body)
    const asked = whileAsked(res)
    const done = atWork(req.session.personId ?? '')
    try {
      return (await app.heavy.compute(name, body, library, asked)) as object
    } catch (error) {
      if (!asked.aborted) throw error
      return {}
    } finally {
      done()
    }
  })
}

/** Who has a long computation under way asks for no other: it would wait in a thread that all share. */
function oneAtATime() {
  const busy = new Set<string>()
  /** @returns to be called when the work has ended; @throws ServiceError too-many */
  return (person: string): (() => void) => {
    if (busy.has(person)) {
      throw new ServiceError(
        'too-many',
        'Another long computation of yours is under way.',
        'Wait for its answer, or break it off.',
      )
    }
    busy.add(person)
    return () => busy.delete(person)
  }
}

/** Aborted as soon as whoever asked has gone. */
function whileAsked(res: Response): AbortSignal {
  const asked = new AbortController()
  res.once('close', () => asked.abort())
  return asked.signal
}
