import { type Refusal, refuse } from './refusal'

/** Photographs of a visit at most: what a job shows, and not all that a camera holds. */
export const MOST_PHOTOS = 60

/** Whether a visit takes one more photograph. @param count those that it has */
export const photoRefusal = (count: number): Refusal | null =>
  count < MOST_PHOTOS
    ? null
    : refuse(
        'photos-full',
        `This visit has ${MOST_PHOTOS} photographs, as many as one can have.`,
        'Go on without this one, or say in a note what it would show.',
        undefined,
        { most: MOST_PHOTOS },
      )
