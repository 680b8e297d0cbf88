import type * as yup from 'yup'
import { check, InvalidInput } from '../../schema'
import { type EventDraft, traitsOf } from './events'
import { upcast } from './upcast'

/**
 * A draft in the newest form of its kind, its payload checked in the form in which it was written and
 * in the newest one. What stands in a log has passed this, and is only upcast.
 * @throws InvalidInput for a payload that does not fit, and for a form that is not known
 */
export function checkDraft<D extends EventDraft>(draft: D): D {
  const { version: newest, earlier, payload } = traitsOf(draft.kind)
  const { version = 1 } = draft
  const written = version === newest ? payload : earlier[version]?.payload
  if (!written) {
    throw new InvalidInput([
      { path: 'version', message: `is not known of “${draft.kind}”: update Uvanta on this device` },
    ])
  }
  const form = written as yup.Schema
  const read = upcast({ ...draft, payload: check(form, draft.payload) as D['payload'] })
  return version === newest
    ? read
    : { ...read, payload: check(payload as yup.Schema, read.payload) }
}
