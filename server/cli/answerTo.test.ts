import { appendFileSync, cpSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { computationNamed } from '@uvanta/core/registry'
import { describe, expect, it } from 'vitest'
import { answerTo } from './answerTo'

const shipped = join(import.meta.dirname, '..', '..', 'library')
const layersIn = (directory: string) => [directory, join(directory, 'demo')]
const asked = (name: string, layers: readonly string[]) =>
  answerTo(name, () => JSON.stringify(computationNamed(name).example), layers)

describe('a computation without server', () => {
  const broken = mkdtempSync(join(tmpdir(), 'uvcompute-'))
  cpSync(shipped, broken, { recursive: true })
  appendFileSync(join(broken, 'guides/rp-relief.yaml'), '  - nothing: at all\n')

  it('reads of the library what it needs, and no guide for a unit or a verdict', () => {
    for (const name of ['convert-quantity', 'judge-backflow-test', 'zones'])
      expect(asked(name, layersIn(broken))).toEqual(asked(name, layersIn(shipped)))
    expect(asked('judge-backflow-test', layersIn(broken)).fault).toBeUndefined()
  })
  it('says which file is wrong to whoever needs the guides', () => {
    const said = asked('prove-guide', layersIn(broken))
    expect(said.fault).toBe(true)
    expect(said.text).toContain('guides/rp-relief.yaml')
    expect(asked('prove-guide', layersIn(shipped)).fault).toBeUndefined()
  })
})
