import * as yup from 'yup'
import type { Library } from '@uvanta/core/library'
import { endpoint } from './endpoint'

/** The know-how in force, and how its files stand. */
export const library = {
  /** Its schema is in `answers`. */
  read: endpoint<undefined, undefined, undefined, Omit<Library, 'earlier'>>({
    method: 'get',
    path: '/api/v1/library',
    summary: 'Procedures, rule packs, guides, families and programmes in force',
    tag: 'Library',
    access: 'signed-in',
  }),
  /** Its schema is in `answers`. */
  earlier: endpoint<undefined, undefined, undefined, Library['earlier']>({
    method: 'get',
    path: '/api/v1/library/earlier',
    summary: 'Versions no longer in force, for the visits that were begun with them',
    tag: 'Library',
    access: 'signed-in',
  }),
  state: endpoint({
    method: 'get',
    path: '/api/v1/library/state',
    summary: 'When the library in force was loaded, and what is wrong with the files since',
    tag: 'Library',
    access: 'signed-in',
    response: yup.object({
      loadedAt: yup.string().required(),
      faults: yup
        .array(
          yup.object({
            file: yup.string().defined(),
            line: yup.number().required(),
            message: yup.string().required(),
          }),
        )
        .required(),
    }),
  }),
}
