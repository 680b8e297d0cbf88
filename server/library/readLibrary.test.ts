import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'
import { loadLibrary } from './load'
import { readLibrary } from './readLibrary'
import { atOnce } from '../heavy/heavyWork'
import { BadLibraryFile } from './yamlFile'

let home: string
let directory: string
let kept: string
beforeAll(() => {
  home = mkdtempSync(join(tmpdir(), 'uvlib-'))
  directory = join(home, 'library')
  kept = join(home, 'kept.json')
  cpSync(join(import.meta.dirname, '..', '..', 'library'), directory, { recursive: true })
})
const family = (title: string) => {
  const file = join(directory, 'families.yaml')
  writeFileSync(file, readFileSync(file, 'utf8').replace(/^(\s*title: ).*,$/m, `$1${title},`))
}
const layers = () => [directory, join(directory, 'demo')]
const read = (build?: string) => readLibrary(layers(), kept, atOnce.library, build)
const first = async (build?: string) => (await read(build)).families[0]?.title

describe('a library that was read before', () => {
  it('is what the files say, to the letter', async () => {
    const before = await read('one')
    const again = await read('one')
    expect(again).not.toBe(before)
    expect(again).toEqual(JSON.parse(JSON.stringify(loadLibrary(layers()))))
  })
  it('is taken while the files and the program are the same, and not otherwise', async () => {
    // Whether it is taken or made anew shows in what is written beside it.
    const mark = () => {
      const { key, library } = JSON.parse(readFileSync(kept, 'utf8'))
      library.families[0].title = 'From the file that is kept'
      writeFileSync(kept, JSON.stringify({ key, library }))
    }
    mark()
    expect(await first('one')).toBe('From the file that is kept')
    expect(await first('two')).not.toBe('From the file that is kept')
    mark()
    family('Another name')
    expect(await first('two')).toBe('Another name')
    expect(await first()).toBe('Another name')
  })
  it('does not stand in for files that are wrong', async () => {
    family('""')
    await expect(read('two')).rejects.toThrow(BadLibraryFile)
  })
  it('is read from the files where what is kept was cut short', async () => {
    family('Whole again')
    writeFileSync(kept, '{"key":')
    expect(await first('two')).toBe('Whole again')
  })
})
