import type { Library } from '../library'

/** Nothing but what is in force, as long as nobody needs what was before. */
export const noEarlier: Library['earlier'] = {
  guides: [],
  specSheets: [],
  procedures: [],
  rulePacks: [],
  programmes: [],
  policies: [],
}
