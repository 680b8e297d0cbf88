import { api, type Person } from '@uvanta/contract'
import type { EventDraft } from '@uvanta/core/visit'
import type { App } from '../../context'
import { appendEvents } from '../../service/visit/append'
import { ServiceError } from '../../service/errors'
import { equipmentHistory } from '../../service/visit/history'
import { keepPhoto, readPhoto } from '../../service/visit/photos'
import { planDoubts } from '../../service/visit/planDoubts'
import { replanVisit } from '../../service/visit/replan'
import { correctSigned, signVisit } from '../../service/visit/sign'
import { listVisits, planVisit, readVisit } from '../../service/visit/visits'
import { addressOf, type Bind } from '../route'

/** On a shared tablet another person may have signed in since the entries were made. */
function madeBy(actor: Person, as: string | undefined): void {
  if (as === undefined || as === actor.id) return
  throw new ServiceError(
    'refused',
    `These entries were made by another person than ${actor.name}, who is signed in now.`,
    'Sign in as that person to send them.',
    { code: 'another-person' },
  )
}

export function bindVisits(app: App, bind: Bind): void {
  bind(api.visits.list, ({ actor, query }) => listVisits(app, actor(), query))
  bind(api.visits.read, ({ actor, params }) => readVisit(app, actor(), params.id))
  bind(api.visits.plan, ({ actor, body }) => planVisit(app, actor(), body))
  bind(api.visits.doubts, async ({ query }) => ({ items: await planDoubts(app, query) }))
  bind(api.visits.replan, ({ actor, params, body }) => replanVisit(app, actor(), params.id, body))
  bind(api.visits.append, async ({ actor, params, body }) => {
    madeBy(actor(), body.as)
    const events = await appendEvents(
      app,
      actor(),
      params.id,
      body.expected,
      body.events as EventDraft[],
      body.sentAt,
    )
    return { items: events as never }
  })
  bind(api.visits.sign, ({ actor, params, body, req }) =>
    signVisit(app, actor(), params.id, {
      ...body,
      event: body.event as EventDraft,
      address: addressOf(req),
    }),
  )
  bind(api.visits.correct, ({ actor, params, body, req }) =>
    correctSigned(app, actor(), params.id, {
      ...body,
      event: body.event as EventDraft,
      address: addressOf(req),
    }),
  )
  bind(api.visits.keepPhoto, ({ actor, params, req }) =>
    keepPhoto(app, actor(), params.id, params.photo, req.body),
  )
  bind(api.visits.photo, async ({ params, res }) => {
    const { mime, content } = await readPhoto(app, params.id, params.photo)
    // For a day in the pit without a line, and no longer.
    res.setHeader('Cache-Control', 'private, max-age=86400')
    res.type(mime).send(content)
    return undefined
  })
  bind(api.register.history, async ({ params }) => ({
    items: await equipmentHistory(app, params.id),
  }))
}
