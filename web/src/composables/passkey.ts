import type { Person } from '@uvanta/contract'
import { api } from 'virtual:api'
import {
  type AuthenticationResponseJSON,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
  startAuthentication,
  startRegistration,
  WebAuthnError,
} from '@simplewebauthn/browser'
import { call } from '@/api/client'
import { NotProved } from './notProved'

/** @throws NotProved, ApiProblem */
export async function makePasskey(
  label: string,
  proof: { readonly password: string; readonly code?: string | undefined },
) {
  const optionsJSON = (await call(api.passkeys.begin, {
    body: proof,
  })) as PublicKeyCredentialCreationOptionsJSON
  const answer = await proved(() => startRegistration({ optionsJSON }))
  return (await call(api.passkeys.add, { body: { label, answer: answer as never } })).items
}

/** @throws NotProved, ApiProblem */
export async function signInByPasskey(): Promise<Person> {
  const optionsJSON = (await call(api.passkeys.challenge)) as PublicKeyCredentialRequestOptionsJSON
  const answer: AuthenticationResponseJSON = await proved(() =>
    startAuthentication({ optionsJSON }),
  )
  return call(api.passkeys.signIn, { body: answer as never })
}

async function proved<A>(ask: () => Promise<A>): Promise<A> {
  try {
    return await ask()
  } catch (error) {
    if (
      error instanceof WebAuthnError &&
      error.code === 'ERROR_AUTHENTICATOR_PREVIOUSLY_REGISTERED'
    )
      throw new NotProved('This authenticator has a passkey of yours already.')
    if (error instanceof Error)
      throw new NotProved('No passkey was used. Try again, or go on with the password.')
    throw error
  }
}
