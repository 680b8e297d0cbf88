import type { Person } from '@uvanta/contract'
import { isMoreThanTrainee } from '../people/proofs'

/** Whom to call and how to get in is for those who plan a visit, go there or answer for it; a trainee reads none of it. */
export const seesContacts = (person: Person): boolean =>
  isMoreThanTrainee(person) && (person.scopes?.includes('contacts') ?? true)
