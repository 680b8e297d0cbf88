import { appendFileSync, cpSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { ExplainedError } from '@uvanta/core/errors'
import { computationNamed } from '@uvanta/core/registry'
import { shippedLibrary } from '@uvanta/core/testing'
import { BadLibraryFile } from '../library/yamlFile'
import { atOnce, inWorkers } from './heavyWork'

const workers = inWorkers()
afterAll(() => workers.close())
const SIMULATE = 'simulate-assembly'
const shipped = join(import.meta.dirname, '..', '..', 'library')
const layersIn = (directory: string) => [directory, join(directory, 'demo')]

describe('work beside the thread that answers', () => {
  it('answers the library as it is read at once', async () => {
    expect(await workers.library(layersIn(shipped))).toEqual(
      await atOnce.library(layersIn(shipped)),
    )
  })
  it('says of a file that is wrong what is said at once', async () => {
    const directory = mkdtempSync(join(tmpdir(), 'uvheavy-'))
    cpSync(shipped, directory, { recursive: true })
    appendFileSync(join(directory, 'families.yaml'), '\n- { id: NOT AN ID }\n')
    const said = await workers.library(layersIn(directory)).catch((error: unknown) => error)
    expect(said).toBeInstanceOf(BadLibraryFile)
    await expect(atOnce.library(layersIn(directory))).rejects.toThrow((said as Error).message)
  })
  it('computes what is computed at once, and refuses it in the same words', async () => {
    const { example } = computationNamed(SIMULATE)
    const { signal } = new AbortController()
    const both = (input: unknown) =>
      [workers, atOnce].map((by) =>
        by.compute(SIMULATE, input, shippedLibrary, signal).catch((error: unknown) => error),
      )
    const [there, here] = await Promise.all(both(example))
    expect(there).toEqual(here)
    const fault = { element: 'check-1', fault: 'diaphragm-torn', severity: 1 }
    for (const input of [{ ...(example as object), faults: [fault] }, { kind: 'RP' }]) {
      const [refused, atOnceToo] = (await Promise.all(both(input))) as [Error, Error]
      expect(refused).toBeInstanceOf(atOnceToo.constructor)
      expect(refused).toBeInstanceOf(ExplainedError)
      expect(refused.message).toBe(atOnceToo.message)
    }
  })
  it('ends when nobody waits for it any more, and takes the next', async () => {
    const { example } = computationNamed(SIMULATE)
    const leaving = new AbortController()
    const left = workers.compute(SIMULATE, example, shippedLibrary, leaving.signal)
    leaving.abort()
    await expect(left).rejects.toThrow(/abort/i)
    const stays = new AbortController()
    const next = await workers.compute(SIMULATE, example, shippedLibrary, stays.signal)
    expect(next).toMatchObject({ verdict: { outcome: expect.stringMatching(/pass|fail/) } })
  })
})
