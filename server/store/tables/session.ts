import { key, moment, nullable, prose, text } from '../column'
import { table } from '../table'

/** Filled by the session store of the web framework, under names of its own. */
export const session = table('session', {
  sid: key(text(64)),
  expires: nullable(moment()),
  data: nullable(prose()),
  createdAt: nullable(moment()),
  updatedAt: nullable(moment()),
})
