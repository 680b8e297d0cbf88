import type { Guide } from '../guide'
import { elementOf } from './elementOf'
import type { Library } from './library'

/** Whether a guide comes to an element of the equipment: takes its parts out, looks at them, renews them. */
export const guideOpens = (
  library: Pick<Library, 'machines'>,
  guide: Pick<Guide, 'machine' | 'parts'>,
  element: string,
): boolean => guide.parts.some((p) => elementOf(library, guide, p.id) === element)
