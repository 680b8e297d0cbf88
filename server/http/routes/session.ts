import { api, type Person } from '@uvanta/contract'
import type { AuthenticationResponseJSON, RegistrationResponseJSON } from '@simplewebauthn/server'
import type { Request } from 'express'
import type { App } from '../../context'
import {
  listDevices,
  newChallenge,
  registerDevice,
  revokeDevice,
  signInByKey,
} from '../../service/people/deviceKeys'
import {
  addPasskey,
  beginPasskey,
  listPasskeys,
  passkeyChallenge,
  removePasskey,
  signInByPasskey,
} from '../../service/people/passkeys'
import { changePassword, setUnits } from '../../service/people/people'
import { signIn } from '../../service/people/signIn'
import {
  beginSecondFactor,
  confirmSecondFactor,
  removeOwnSecondFactor,
} from '../../service/people/secondFactor'
import {
  closeSession,
  deviceWords,
  endOtherSessions,
  endSession,
  listSessions,
  openSession,
} from '../../service/people/sessions'
import { addressOf, type Bind } from '../route'

export function bindSession(app: App, bind: Bind): void {
  bind(api.session.signIn, async ({ body, req }) => {
    const person = await signIn(app, body.username, body.password, addressOf(req), body.code)
    await renew(app, req, person)
    return person
  })
  bind(api.session.signOut, async ({ person, req, res }) => {
    if (person) await closeSession(app, req.sessionID, person, deviceWords(req.get('User-Agent')))
    await new Promise<void>((done) => req.session.destroy(() => done()))
    res.clearCookie('uvanta')
  })
  bind(api.session.me, async ({ person }) => {
    // Another process may have changed it.
    await app.utility.refresh()
    const { name, units, missing } = app.utility.current
    return {
      person,
      today: app.today(),
      units: { ...units, ...person?.units },
      house: units,
      utility: name,
      isSetUp: missing.length === 0,
    }
  })
  bind(api.session.changePassword, ({ actor, body, req }) =>
    changePassword(app, actor(), body.current, body.next, {
      address: addressOf(req),
      session: req.sessionID,
      keepDevice: body.keepDevice,
    }),
  )
  bind(api.session.setUnits, ({ actor, body }) => setUnits(app, actor(), body))
  bind(api.session.beginSecondFactor, ({ actor, body, req }) =>
    beginSecondFactor(app, actor(), body.password, addressOf(req)),
  )
  bind(api.session.confirmSecondFactor, ({ actor, body, req }) =>
    confirmSecondFactor(app, actor(), body.code, {
      session: req.sessionID,
      keepDevice: body.keepDevice,
    }),
  )
  bind(api.session.removeSecondFactor, ({ actor, body, req }) =>
    removeOwnSecondFactor(app, actor(), body, addressOf(req)),
  )
  bind(api.session.list, async ({ actor, req }) => ({
    items: await listSessions(app, actor().id, req.sessionID),
  }))
  bind(api.session.end, ({ actor, params }) => endSession(app, actor().id, params.id))
  bind(api.session.endOthers, ({ actor, query, req }) =>
    endOtherSessions(app, actor(), req.sessionID, query.keepDevice),
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
    await renew(app, req, person, ', by its key')
    return person
  })
  bindPasskeys(app, bind)
}

function bindPasskeys(app: App, bind: Bind): void {
  bind(api.passkeys.list, async ({ actor }) => ({ items: await listPasskeys(app, actor().id) }))
  bind(api.passkeys.begin, async ({ actor, body, req }) => {
    const asked = await beginPasskey(app, actor(), body, addressOf(req))
    req.session.newPasskey = asked.challenge
    return asked
  })
  bind(api.passkeys.add, async ({ actor, body, req }) => {
    const { newPasskey } = req.session
    delete req.session.newPasskey
    const answer = body.answer as RegistrationResponseJSON
    return { items: await addPasskey(app, actor(), body.label, answer, newPasskey) }
  })
  bind(api.passkeys.remove, ({ actor, params }) => removePasskey(app, actor(), params.id))
  bind(api.passkeys.challenge, async ({ req }) => {
    const asked = await passkeyChallenge(app)
    req.session.challenge = asked.challenge
    return asked
  })
  bind(api.passkeys.signIn, async ({ body, req }) => {
    const { challenge } = req.session
    delete req.session.challenge
    const person = await signInByPasskey(app, body as AuthenticationResponseJSON, challenge)
    await renew(app, req, person, ', by a passkey')
    return person
  })
}

/**
 * A new session on every sign-in, so that a planted cookie gains nothing.
 * @param by what else is said of it in the audit than from which device
 */
async function renew(app: App, req: Request, person: Person, by = ''): Promise<void> {
  await new Promise<void>((done, failed) => {
    req.session.regenerate((error) => (error ? failed(error as Error) : done()))
  })
  const device = deviceWords(req.get('User-Agent'))
  const begun = { personId: person.id, begunAt: Date.now(), device }
  const expires = new Date(Date.now() + (req.session.cookie.maxAge ?? 0))
  const data = JSON.stringify({ ...req.session, ...begun })
  await openSession(app, { sid: req.sessionID, data, expires }, person, `${device}${by}`)
  // Only now: what stands in a session is kept, whatever comes of the request.
  Object.assign(req.session, begun)
  await new Promise<void>((done, failed) => {
    req.session.save((error) => (error ? failed(error as Error) : done()))
  })
}
