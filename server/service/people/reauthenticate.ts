import type { Person } from '@uvanta/contract'
import type { App } from '../../context'
import { ServiceError } from '../errors'
import { checkPassword } from './people'
import { takeCode } from './takeCode'

/** What a person types to prove that it is them, before a new way in is made or one is removed. */
export interface Proof {
  readonly password: string
  /** A code of the authenticator, or a recovery code; asked for where there is a second factor. */
  readonly code?: string | undefined
}

/**
 * Checks the password, and the code where the person has a second factor.
 * @throws ServiceError refused, with the code `second-factor` where a code is missing or wrong
 */
export async function reauthenticate(
  app: App,
  person: Person,
  { password, code }: Proof,
  address: string,
): Promise<void> {
  await checkPassword(app, person.id, password, address)
  if (!person.secondFactor) return
  if (code !== undefined && (await takeCode(app, person.id, code))) return
  throw new ServiceError(
    'refused',
    code === undefined ? 'A code is needed as well.' : 'That is not the code, or it was used.',
    code === undefined
      ? 'Type the 6 digits that your authenticator shows.'
      : 'Wait for the next one, then type it.',
    { code: 'second-factor' },
  )
}
