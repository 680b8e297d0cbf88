import { answerOf } from '@uvanta/contract/answers'
import { allEndpoints, type Endpoint } from '@uvanta/contract'
import { computations } from '@uvanta/core/registry'
import { type JsonSchema, toJsonSchema } from '@uvanta/core/schema'

export interface OpenApiDocument {
  readonly openapi: '3.1.0'
  readonly info: { readonly title: string; readonly version: string; readonly description: string }
  readonly paths: Readonly<Record<string, Readonly<Record<string, OpenApiOperation>>>>
  readonly components: object
}
export interface OpenApiOperation {
  readonly summary: string
  readonly description?: string
  readonly tags: readonly string[]
  readonly [member: string]: unknown
}

const json = (schema: JsonSchema) => ({ content: { 'application/json': { schema } } })
const problem = { $ref: '#/components/responses/Problem' }

/** The HTTP interface as an OpenAPI 3.1 document, made from the contract and the registry. */
export function openApiDocument(): OpenApiDocument {
  const paths: Record<string, Record<string, OpenApiOperation>> = {}
  for (const e of allEndpoints) {
    if (e.path.endsWith('/compute/{name}')) continue
    ;(paths[e.path] ??= {})[e.method] = operationOf(e)
  }
  for (const c of computations) {
    paths[`/api/v1/compute/${c.name}`] = {
      post: {
        summary: c.title,
        description: `${c.summary} Source: ${c.source}`,
        tags: ['Computations'],
        operationId: `compute-${c.name}`,
        requestBody: {
          required: true,
          content: { 'application/json': { schema: toJsonSchema(c.input), example: c.example } },
        },
        responses: {
          200: { description: 'The result', ...json(toJsonSchema(c.output)) },
          default: problem,
        },
        security: [{ session: [] }],
      },
    }
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Uvanta',
      version: '1',
      description:
        'Service visits, their logs and certificates. Errors are RFC 9457 problem details. ' +
        'Records that can change carry an ETag; changing them needs If-Match.',
    },
    paths,
    components: {
      responses: {
        Problem: {
          description: 'What is wrong and what to do',
          content: {
            'application/problem+json': {
              schema: {
                type: 'object',
                required: ['title', 'status', 'detail'],
                properties: {
                  title: { type: 'string' },
                  status: { type: 'integer' },
                  detail: { type: 'string' },
                },
              },
            },
          },
        },
      },
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: 'uvanta' },
        key: { type: 'http', scheme: 'bearer' },
      },
    },
  }
}

function operationOf(e: Endpoint): OpenApiOperation {
  const answer = answerOf(e)
  const success = e.file
    ? { 200: { description: 'The file', content: { [e.file]: { schema: { type: 'string' } } } } }
    : answer
      ? { 200: { description: 'Done', ...json(toJsonSchema(answer)) } }
      : { 204: { description: 'Done' } }
  const who = typeof e.access === 'string' ? e.access : e.access.join(', ')
  return {
    summary: e.summary,
    description: `For: ${who}.`,
    tags: [e.tag],
    operationId: `${e.method}-${e.path.replaceAll(/[/{}]+/g, '-').replace(/^-api-v1-|-$/g, '')}`,
    parameters: [
      ...parametersOf(e.params, 'path'),
      ...parametersOf(e.query, 'query'),
      ...(e.versioned
        ? [{ name: 'If-Match', in: 'header', required: true, schema: { type: 'string' } }]
        : []),
    ],
    ...(e.body ? { requestBody: { required: true, ...json(toJsonSchema(e.body)) } } : {}),
    ...(e.upload ? { requestBody: { required: true, content: filesOf(e.upload) } } : {}),
    responses: { ...success, default: problem },
    ...(e.access === 'public' ? {} : { security: securityOf(e) }),
  }
}

/** A key only reads. */
const securityOf = (e: Endpoint) =>
  e.method === 'get' ? [{ session: [] }, { key: [] }] : [{ session: [] }]

const filesOf = (types: readonly string[]) =>
  Object.fromEntries(types.map((t) => [t, { schema: { type: 'string', format: 'binary' } }]))

function parametersOf(schema: Endpoint['params'], place: 'path' | 'query') {
  if (!schema) return []
  const { properties = {}, required = [] } = toJsonSchema(schema) as {
    properties?: Record<string, JsonSchema>
    required?: string[]
  }
  return Object.entries(properties).map(([name, s]) => ({
    name,
    in: place,
    required: place === 'path' || required.includes(name),
    schema: s,
  }))
}
