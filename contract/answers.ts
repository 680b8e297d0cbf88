import * as yup from 'yup'
import { familySchema, policySchema, programmeSchema } from '@uvanta/core/catalogue'
import { guideSchema, subGuideSchema } from '@uvanta/core/guide'
import { type Library, specSheetSchema } from '@uvanta/core/library'
import { machineSchema } from '@uvanta/core/machine'
import { procedureSchema } from '@uvanta/core/procedure'
import { rulePackSchema } from '@uvanta/core/rules'
import type { Endpoint } from './endpoint'
import { library } from './library'

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
  })
  .meta({ jsonSchema: { type: 'object' } }) as unknown as yup.Schema<Omit<Library, 'earlier'>>

const earlierSchema = yup.object({
  guides: once,
  specSheets: once,
  procedures: once,
  rulePacks: once,
  programmes: once,
  policies: once,
}) as unknown as yup.Schema<Library['earlier']>

/**
 * The schema of what a call answers, for whoever answers or describes it. That of the library rests on half of the
 * know-how: whoever only asks for it has no need of it, and a device is spared loading it.
 */
export const answerOf = (e: Endpoint): Endpoint['response'] =>
  (KNOW_HOW as Readonly<Record<string, yup.Schema>>)[e.path] ?? e.response
const KNOW_HOW = {
  [library.read.path]: librarySchema,
  [library.earlier.path]: earlierSchema,
}
