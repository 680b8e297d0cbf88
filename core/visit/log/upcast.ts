import { ExplainedError } from '../../errors'
import { type EventDraft, type EventKind, traitsOf } from './events'

/**
 * An event in the newest form of its kind. The log keeps what was written; whoever reads it reads it
 * through here, so that state, guards and screens know one form alone.
 * @throws CannotCompute for a form that is newer than this application knows
 */
export function upcast<E extends EventDraft>(event: E): E {
  const { version: newest, earlier } = traitsOf(event.kind)
  const written = event.version ?? 1
  if (written === newest) return event
  if (written > newest) {
    throw new ExplainedError(
      'entry-too-new',
      `An entry of the kind “${event.kind}” was written in form ${written}, which is newer than this version of Uvanta.`,
      'Bring the application up to date.',
    )
  }
  let payload: object = event.payload
  for (let form = written; form < newest; form++) {
    payload = earlier[form]?.next(payload as never) ?? payload
  }
  return { ...event, payload, version: newest }
}

/** What an entry that is written today says of its form: nothing for the first. */
export function newestForm(kind: EventKind): { readonly version?: number } {
  const { version } = traitsOf(kind)
  return version > 1 ? { version } : {}
}
