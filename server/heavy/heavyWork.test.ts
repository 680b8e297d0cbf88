import { appendFileSync, cpSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { BadLibraryFile } from '../library/yamlFile'
import { atOnce, inWorkers } from './heavyWork'

const workers = inWorkers()
afterAll(() => workers.close())
const shipped = join(import.meta.dirname, '..', '..', 'library')

describe('work beside the thread that answers', () => {
  it('answers the library as it is read at once', async () => {
    expect(await workers.library(shipped)).toEqual(await atOnce.library(shipped))
  })
  it('says of a file that is wrong what is said at once', async () => {
    const directory = mkdtempSync(join(tmpdir(), 'uvheavy-'))
    cpSync(shipped, directory, { recursive: true })
    appendFileSync(join(directory, 'families.yaml'), '\n- { id: NOT AN ID }\n')
    const said = await workers.library(directory).catch((error: unknown) => error)
    expect(said).toBeInstanceOf(BadLibraryFile)
    await expect(atOnce.library(directory)).rejects.toThrow((said as Error).message)
  })
})
