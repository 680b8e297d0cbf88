import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import { makeTestApp, serve } from './testing/app'

const SCRIPT = `console.log(${'1 + '.repeat(900)}1)\n`
let server: ReturnType<typeof serve>
beforeAll(async () => {
  const webDirectory = mkdtempSync(join(tmpdir(), 'uvweb-'))
  const assets = join(webDirectory, 'assets')
  mkdirSync(assets)
  writeFileSync(join(webDirectory, 'index.html'), '<!doctype html><title>Uvanta</title>')
  writeFileSync(join(assets, 'index-abc.js'), SCRIPT)
  writeFileSync(join(assets, 'index-abc.js.br'), brotliCompressSync(SCRIPT))
  writeFileSync(join(assets, 'index-abc.js.gz'), gzipSync(SCRIPT))
  const app = await makeTestApp()
  server = serve({ ...app, config: { ...app.config, webDirectory } })
})
const ask = (encoding: string, path = '/assets/index-abc.js') =>
  supertest(server).get(path).set('Accept-Encoding', encoding)

describe('what the application is made of', () => {
  it.each([
    ['br, gzip', 'br'],
    ['gzip', 'gzip'],
    ['identity', undefined],
  ])('is sent to who takes %s as %s, and stays as it is for a year', async (takes, sent) => {
    const { headers, text } = await ask(takes).expect(200)
    expect(headers['content-encoding']).toBe(sent)
    expect(headers['content-type']).toMatch(/javascript/)
    expect(headers['cache-control']).toMatch(/max-age=31536000.*immutable/)
    // What a client unpacks is what was built.
    if (sent !== 'br') expect(text).toBe(SCRIPT)
  })
  it('that is not there is not the page', async () => {
    await ask('br', '/assets/index-old.js').expect(404)
    const { text } = await ask('br', '/visits/1').expect(200)
    expect(text).toContain('<title>Uvanta</title>')
  })
})
