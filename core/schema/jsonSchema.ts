import type * as yup from 'yup'

export type JsonSchema = { readonly [key: string]: unknown }

type Described = yup.SchemaFieldDescription & {
  fields?: Record<string, yup.SchemaFieldDescription>
  innerType?: yup.SchemaFieldDescription | yup.SchemaFieldDescription[]
  oneOf?: unknown[]
  nullable?: boolean
  optional?: boolean
  tests?: { name?: string; params?: Record<string, unknown> }[]
  meta?: { jsonSchema?: JsonSchema; description?: string }
  label?: string
}

/**
 * A Yup schema as JSON Schema 2020-12, for OpenAPI and for the published schemas of the library.
 * Cross-field tests have no counterpart there and stay with Yup; `meta({ jsonSchema })` replaces
 * what a schema says of itself.
 */
export function toJsonSchema(schema: yup.ISchema<unknown>): JsonSchema {
  return fromDescription(schema.describe() as Described)
}

function fromDescription(field: Described): JsonSchema {
  if (field.meta?.jsonSchema) return field.meta.jsonSchema
  const base = shapeOf(field)
  const described = field.meta?.description
    ? { ...base, description: field.meta.description }
    : base
  if (!field.nullable) return described
  return { anyOf: [described, { type: 'null' }] }
}

function shapeOf(field: Described): JsonSchema {
  const limits = limitsOf(field)
  const choices = (field.oneOf ?? []).filter((v) => v != null)
  if (choices.length > 0) return { type: typeof choices[0], enum: choices }
  switch (field.type) {
    case 'object': {
      const fields = Object.entries(field.fields ?? {}) as [string, Described][]
      const required = fields.filter(([, f]) => !f.optional).map(([name]) => name)
      return {
        type: 'object',
        properties: Object.fromEntries(fields.map(([name, f]) => [name, fromDescription(f)])),
        ...(required.length > 0 ? { required } : {}),
        ...(field.tests?.some((t) => t.name === 'noUnknown')
          ? { additionalProperties: false }
          : {}),
      }
    }
    case 'array': {
      const inner = Array.isArray(field.innerType) ? field.innerType[0] : field.innerType
      return {
        type: 'array',
        ...(inner ? { items: fromDescription(inner as Described) } : {}),
        ...rename(limits, { minimum: 'minItems', maximum: 'maxItems' }),
      }
    }
    case 'number':
      return { ...limits, type: limits.integer ? 'integer' : 'number', integer: undefined }
    case 'boolean':
      return { type: 'boolean' }
    case 'string':
      return { type: 'string', ...rename(limits, { minimum: 'minLength', maximum: 'maxLength' }) }
    default:
      return {}
  }
}

function limitsOf(field: Described): Record<string, unknown> {
  const limits: Record<string, unknown> = {}
  for (const { name, params } of field.tests ?? []) {
    if (name === 'min') limits.minimum = params?.min
    if (name === 'max') limits.maximum = params?.max
    if (name === 'integer') limits.integer = true
    if (name === 'matches') limits.pattern = (params?.regex as RegExp).source
  }
  return limits
}

function rename(limits: Record<string, unknown>, names: Record<string, string>) {
  return Object.fromEntries(
    Object.entries(limits)
      .filter(([key]) => key !== 'integer')
      .map(([key, value]) => [names[key] ?? key, value]),
  )
}
