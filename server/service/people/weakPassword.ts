import { ZxcvbnFactory } from '@zxcvbn-ts/core'
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common'
import { ServiceError } from '../errors'

/** Guesses that it takes, as a power of ten: under 10⁸ a list of what people choose finds it (OWASP ASVS 2.1.7). */
const LEAST_SCORE = 3
const judge = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs })

/**
 * Refuses a password that others have used, or that is made of the person’s own name.
 * @throws ServiceError invalid, with what to do
 */
export function refuseWeak(password: string, ...own: readonly string[]): void {
  const { score } = judge.check(password, ['larkhaven', 'uvanta', 'larkhaven-demo', ...own])
  if (score >= LEAST_SCORE) return
  throw new ServiceError(
    'invalid',
    'That password is easily guessed: it is a common one, or made of a name or of one pattern.',
    'Choose another; four words that have nothing to do with each other are good.',
    { code: 'password-weak' },
  )
}
