import { api, type Person } from '@uvanta/contract'
import type { Request } from 'express'
import type { App } from '../../context'
import {
  listDevices,
  newChallenge,
  registerDevice,
  revokeDevice,
  signInByKey,
} from '../../service/people/deviceKeys'
import { changePassword, signIn } from '../../service/people/people'
import { addressOf, type Bind } from '../route'

export function bindSession(app: App, bind: Bind): void {
  bind(api.session.signIn, async ({ body, req }) => {
    const person = await signIn(app, body.username, body.password, addressOf(req))
    await renew(req, person)
    return person
  })
  bind(api.session.signOut, async ({ req, res }) => {
    await new Promise<void>((done) => req.session.destroy(() => done()))
    res.clearCookie('uvanta')
  })
  bind(api.session.me, ({ person }) => ({
    person,
    today: app.today(),
    units: app.config.utility.units,
    utility: app.config.utility.name,
  }))
  bind(api.session.changePassword, ({ actor, body, req }) =>
    changePassword(app, actor(), body.current, body.next, {
      address: addressOf(req),
      session: req.sessionID,
    }),
  )
  bind(api.devices.list, async ({ actor }) => ({ items: await listDevices(app, actor().id) }))
  bind(api.devices.ofPerson, async ({ params }) => ({ items: await listDevices(app, params.id) }))
  bind(api.devices.register, ({ actor, body, req }) =>
    registerDevice(app, actor(), body, addressOf(req)),
  )
  bind(api.devices.revoke, ({ actor, params }) => revokeDevice(app, actor(), params.id))
  bind(api.devices.challenge, ({ req }) => {
    req.session.challenge = newChallenge()
    return { challenge: req.session.challenge }
  })
  bind(api.devices.signIn, async ({ body, req }) => {
    const { challenge } = req.session
    // Asked for once, answered once.
    delete req.session.challenge
    const person = await signInByKey(app, { ...body, challenge })
    await renew(req, person)
    return person
  })
}

/** A new session on every sign-in, so that a planted cookie gains nothing. */
function renew(req: Request, person: Person): Promise<void> {
  return new Promise((done, failed) => {
    req.session.regenerate((error) => {
      if (error) return failed(error as Error)
      req.session.personId = person.id
      req.session.begunAt = Date.now()
      req.session.save((e) => (e ? failed(e as Error) : done()))
    })
  })
}
