import { api } from '@uvanta/contract'
import type { EventDraft } from '@uvanta/core/visit'
import type { App } from '../../app'
import { appendEvents } from '../../service/append'
import { equipmentHistory } from '../../service/history'
import { keepPhoto, readPhoto } from '../../service/photos'
import { signVisit } from '../../service/sign'
import { listVisits, planVisit, readVisit } from '../../service/visits'
import type { Bind } from '../route'

export function bindVisits(app: App, bind: Bind): void {
  bind(api.visits.list, ({ actor, query }) => listVisits(app, actor(), query))
  bind(api.visits.read, ({ actor, params }) => readVisit(app, actor(), params.id))
  bind(api.visits.plan, ({ actor, body }) => planVisit(app, actor(), body))
  bind(api.visits.append, async ({ actor, params, body }) => {
    const events = await appendEvents(
      app,
      actor(),
      params.id,
      body.expected,
      body.events as EventDraft[],
    )
    return { items: events as never }
  })
  bind(api.visits.sign, ({ actor, params, body }) =>
    signVisit(app, actor(), params.id, { ...body, event: body.event as EventDraft }),
  )
  bind(api.visits.keepPhoto, ({ actor, params, req }) =>
    keepPhoto(app, actor(), params.id, params.photo, req.body),
  )
  bind(api.visits.photo, async ({ actor, params, res }) => {
    const { mime, content } = await readPhoto(app, actor(), params.id, params.photo)
    res.setHeader('Cache-Control', 'private, max-age=31536000, immutable')
    res.type(mime).send(content)
    return undefined
  })
  bind(api.register.history, async ({ params }) => ({
    items: await equipmentHistory(app, params.id),
  }))
}
