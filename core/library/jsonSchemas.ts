import * as yup from 'yup'
import { guideSchema, stepJsonSchema, subGuideSchema } from '../guide'
import { machineSchema } from '../machine'
import { procedureFileSchema } from '../procedure'
import { rulePackSchema } from '../rules'
import { type JsonSchema, toJsonSchema } from '../schema'
import { specSheetSchema } from './sheet'
import { familySchema, policySchema, programmeSchema } from '../catalogue'

const list = <T>(schema: yup.Schema<T>) => yup.array(schema as never).required()

/**
 * JSON Schemas of the library’s files, by the name of the file they are published in. What one field
 * says of another stays with the loader and the prover.
 */
export function librarySchemas(): Record<string, JsonSchema> {
  const published = (title: string, schema: yup.ISchema<unknown>, defs?: object): JsonSchema => ({
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title,
    ...toJsonSchema(schema),
    ...(defs ? { $defs: defs } : {}),
  })
  const steps = { step: stepJsonSchema() }
  return {
    'guide.json': published('Job guide', guideSchema, steps),
    'machine.json': published('A machine as it is physically there', machineSchema),
    'sub-guide.json': published('Steps that several guides share', subGuideSchema, steps),
    'spec-sheet.json': published('Spec sheet of one model', specSheetSchema),
    'policies.json': published('Renewal policies by family', list(policySchema)),
    'procedure.json': published('Test procedure', procedureFileSchema),
    'rule-pack.json': published('Rule pack', rulePackSchema),
    'families.json': published('Equipment families', list(familySchema)),
    'programmes.json': published('Programmes', list(programmeSchema)),
  }
}
