import * as yup from 'yup'
import { familySchema, policySchema, programmeSchema } from '@uvanta/core/catalogue'
import { guideSchema, subGuideSchema } from '@uvanta/core/guide'
import { type Library, specSheetSchema } from '@uvanta/core/library'
import { machineSchema } from '@uvanta/core/machine'
import { procedureSchema } from '@uvanta/core/procedure'
import { rulePackSchema } from '@uvanta/core/rules'
import { endpoint } from './endpoint'

const list = (schema: yup.ISchema<unknown>) => yup.array(schema as yup.Schema).required()
/** What was in force once is checked where it is kept; its form may be older than today’s. */
const once = yup.array(yup.mixed<object>().required()).required()

/** The library as its files say it. Steps contain steps, which Yup checks and cannot name the type of. */
const librarySchema = yup
  .object({
    procedures: list(procedureSchema),
    rulePacks: list(rulePackSchema),
    families: list(familySchema),
    programmes: list(programmeSchema),
    machines: list(machineSchema),
    guides: list(guideSchema),
    subGuides: list(subGuideSchema),
    specSheets: list(specSheetSchema),
    policies: list(policySchema),
    earlier: yup
      .object({
        guides: once,
        specSheets: once,
        procedures: once,
        rulePacks: once,
        programmes: once,
        policies: once,
      })
      .required(),
  })
  .meta({ jsonSchema: { type: 'object' } }) as unknown as yup.Schema<Library>

/** The know-how in force, and how its files stand. */
export const library = {
  read: endpoint({
    method: 'get',
    path: '/api/v1/library',
    summary: 'Procedures, rule packs, guides, families and programmes in force',
    tag: 'Library',
    access: 'signed-in',
    response: librarySchema,
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
