import * as yup from 'yup'
import { type Guide, guideSchema, type SubGuide, subGuideSchema } from '../guide'
import { guideOf, proofOf } from '../library'
import { slug, strictObject } from '../schema'
import { CannotCompute } from '../errors'
import { computation } from './computation'

const input = strictObject({
  /** A guide of the library, by its name. */
  id: slug(),
  /** Or a guide as it stands in its file. */
  guide: yup.mixed<Guide>(),
  subGuides: yup.array(yup.mixed<SubGuide>().required()).strict(true).max(40),
}).test(
  'one',
  'give the id of a guide, or a guide',
  (v: { id?: unknown; guide?: unknown } | undefined) => Boolean(v?.id) !== Boolean(v?.guide),
)

export const proveGuide = computation({
  name: 'prove-guide',
  title: 'Prove a job guide',
  summary:
    'Walks every variant and finding of a guide: nothing forgotten, nothing opened under pressure, nothing left in.',
  source:
    'Abstract walk over the guide’s parts, zones, springs, kit and settings, and over the parts of its machine; practice of the trade.',
  input,
  output: yup.object({ faults: yup.array().required(), paths: yup.number().required() }),
  example: { id: 'rp-relief' },
  heavy: true,
  run(given, library) {
    try {
      if (given.guide) guideSchema.validateSync(given.guide, { strict: true })
      for (const s of given.subGuides ?? []) subGuideSchema.validateSync(s, { strict: true })
      const guide = given.guide ?? guideOf(library, given.id ?? '')
      return proofOf(guide, [...(given.subGuides ?? []), ...library.subGuides], library)
    } catch (error) {
      if (error instanceof yup.ValidationError) {
        throw new CannotCompute('not-a-guide', error.message, 'Mend the guide and prove it again.')
      }
      throw error
    }
  },
})
