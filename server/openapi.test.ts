import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { computations } from '@uvanta/core/registry'
import { check } from '@uvanta/core/schema'
import { Validator } from '@seriousme/openapi-schema-validator'
import { Ajv2020 } from 'ajv/dist/2020.js'
import { describe, expect, it } from 'vitest'
import { answerTo } from './cli/answerTo'
import { docsPage } from './http/docsPage'
import { openApiDocument } from './http/openapi'

const root = join(import.meta.dirname, '..')
const layers = [join(root, 'library'), join(root, 'library', 'demo')]

describe('the description of the interface', () => {
  const document = openApiDocument()
  it('is a valid OpenAPI 3.1 document', async () => {
    const result = await new Validator().validate(JSON.parse(JSON.stringify(document)))
    expect(result.errors ?? []).toEqual([])
    expect(result.valid).toBe(true)
  })
  it('reads as a page that names every operation', () => {
    const page = docsPage(document)
    for (const path of Object.keys(document.paths)) expect(page).toContain(path)
    expect(page).not.toContain('<script')
  })
  it.each(computations.map((c) => [c.name, c] as const))(
    '%s: its example fits both its schemas',
    (name, c) => {
      expect(() => check(c.input, c.example)).not.toThrow()
      const post = document.paths[`/api/v1/compute/${name}`]?.post as unknown as {
        requestBody: { content: Record<string, { schema: object }> }
      }
      const validate = new Ajv2020({ strict: false }).compile(
        JSON.parse(JSON.stringify(post.requestBody.content['application/json']!.schema)),
      )
      expect(validate(c.example)).toBe(true)
      expect(validate({ ...(c.example as object), stranger: 1 })).toBe(false)
    },
  )
})

describe('computing from the command line', () => {
  const answer = (name: string, input: string) => answerTo(name, () => input, layers)
  it('is a command that reads what it is given', () => {
    const said = execFileSync(
      'node',
      ['--import', 'tsx', join(root, 'server', 'cli', 'compute.ts'), 'convert-quantity'],
      {
        input: '{"dimension":"differential","value":"14","unit":"kPa","to":"mbar"}',
        encoding: 'utf8',
      },
    )
    expect(JSON.parse(said)).toMatchObject({ value: '140', unit: 'mbar' })
  })
  it('judges a test on the shipped rule pack', () => {
    const { example } = computations.find((c) => c.name === 'judge-backflow-test')!
    const { text } = answer('judge-backflow-test', JSON.stringify(example))
    expect(JSON.parse(text)).toMatchObject({ outcome: 'pass' })
  })
  it('lists what there is', () => {
    const { text } = answerTo(undefined, () => '', layers)
    for (const { name } of computations) expect(text).toContain(name)
  })
  it.each([
    [
      'convert-quantity',
      '{"dimension":"torque","value":"5","unit":"psi","to":"N·m"}',
      /psi is a unit of gaugePressure, not of torque/,
    ],
    ['nothing', '{}', /There is no computation “nothing”/],
    ['convert-quantity', '{', /not JSON/],
  ])('says in words what is wrong: %s %s', (name, input, words) => {
    expect(answer(name, input)).toEqual({ text: expect.stringMatching(words), fault: true })
  })
})
