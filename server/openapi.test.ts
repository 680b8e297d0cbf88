import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { computations } from '@uvanta/core/registry'
import { check } from '@uvanta/core/schema'
import { Validator } from '@seriousme/openapi-schema-validator'
import { Ajv2020 } from 'ajv/dist/2020.js'
import { describe, expect, it } from 'vitest'
import { docsPage } from './http/docsPage'
import { openApiDocument } from './http/openapi'

const root = join(import.meta.dirname, '..')

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
  const run = (name: string, input: string) =>
    execFileSync('node', ['--import', 'tsx', join(root, 'server', 'cli', 'compute.ts'), name], {
      input,
      encoding: 'utf8',
      stdio: ['pipe', 'pipe', 'pipe'],
    })
  it('converts', () => {
    const answer = JSON.parse(
      run('convert-quantity', '{"dimension":"differential","value":"14","unit":"kPa","to":"mbar"}'),
    )
    expect(answer).toMatchObject({ value: '140', unit: 'mbar' })
  })
  it('judges a test on the shipped rule pack', () => {
    const { example } = computations.find((c) => c.name === 'judge-backflow-test')!
    expect(JSON.parse(run('judge-backflow-test', JSON.stringify(example)))).toMatchObject({
      outcome: 'pass',
    })
  })
  it('says in words what is wrong', () => {
    expect(() =>
      run('convert-quantity', '{"dimension":"torque","value":"5","unit":"psi","to":"N·m"}'),
    ).toThrow(/psi is a unit of gaugePressure, not of torque/)
    expect(() => run('nothing', '{}')).toThrow(/There is no computation “nothing”/)
  })
})
