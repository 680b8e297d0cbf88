import type { Person } from '@uvanta/contract'
import type { VisitEvent } from '@uvanta/core/visit'

/** Whether somebody has a role beside that of a trainee. */
export const isMoreThanTrainee = (person: Pick<Person, 'roles'>): boolean =>
  person.roles.some((r) => r !== 'trainee')

/** Whether somebody may read drawn signatures and license numbers, which could be used for a forgery. */
export const seesProofs = isMoreThanTrainee

/** Removes the drawn signature or the license number from an entry. Entries of these kinds cannot be corrected. */
export function withoutProofs(event: VisitEvent): VisitEvent {
  switch (event.kind) {
    case 'signed':
      return { ...event, payload: { ...event.payload, signature: '' } }
    case 'test-started': {
      const { licence } = event.payload
      return { ...event, payload: { ...event.payload, licence: { ...licence, number: '' } } }
    }
    default:
      return event
  }
}
