import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'
import { plan } from './testing/visit'

const SCRIPT = `console.log(${'1 + '.repeat(900)}1)\n`
const PAGE =
  '<!doctype html><head><title>Uvanta</title><script type="module" src="/assets/index-abc.js"></script><link rel="modulepreload" href="/assets/vue-1.js"></head><body><div id="app"><p class="starting">Uvanta</p></div></body>'
/** As a build says it: the view of a place, what it needs, and what the page has anyway. */
const MANIFEST = {
  'index.html': { file: 'assets/index-abc.js', imports: ['_vue.js'] },
  '_vue.js': { file: 'assets/vue-1.js' },
  '_words.js': { file: 'assets/words-2.js', imports: ['_vue.js'] },
  'src/views/visit/VisitView.vue': {
    file: 'assets/VisitView-3.js',
    imports: ['_vue.js', '_words.js', 'index.html'],
    css: ['assets/VisitView-4.css'],
  },
}
let app: App
let world: Awaited<ReturnType<typeof populate>>
let server: ReturnType<typeof serve>
beforeAll(async () => {
  const webDirectory = mkdtempSync(join(tmpdir(), 'uvweb-'))
  const assets = join(webDirectory, 'assets')
  mkdirSync(assets)
  writeFileSync(join(webDirectory, 'index.html'), PAGE)
  mkdirSync(join(webDirectory, '.vite'))
  writeFileSync(join(webDirectory, '.vite', 'manifest.json'), JSON.stringify(MANIFEST))
  writeFileSync(join(assets, 'index-abc.js'), SCRIPT)
  writeFileSync(join(assets, 'index-abc.js.br'), brotliCompressSync(SCRIPT))
  writeFileSync(join(assets, 'index-abc.js.gz'), gzipSync(SCRIPT))
  const made = await makeTestApp()
  world = await populate(made)
  app = { ...made, config: { ...made.config, webDirectory } }
  server = serve(app)
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

describe('the page of a place', () => {
  const linked = async (path: string) => {
    const { text } = await supertest(server).get(path).expect(200)
    return [...text.matchAll(/<link rel="(\w+)"[^>]* href="([^"]+)"/g)].map((m) => m.slice(1))
  }
  it('names the code of its view and who is asked for, so that they are fetched at once, and nothing twice', async () => {
    expect(await linked('/visits/1')).toEqual([
      ['modulepreload', '/assets/vue-1.js'],
      ['modulepreload', '/assets/VisitView-3.js'],
      ['modulepreload', '/assets/words-2.js'],
      ['preload', '/assets/VisitView-4.css'],
      ['preload', '/api/v1/session'],
    ])
    expect(await linked('/')).toEqual([
      ['modulepreload', '/assets/vue-1.js'],
      ['preload', '/api/v1/session'],
    ])
  })
  it('names the know-how of a visit to whoever may work, and to nobody else', async () => {
    const named = async (agent: Agent) => {
      const { text, headers } = await agent.get('/visits/1').expect(200)
      expect(headers.vary).toMatch(/Cookie/)
      return text.includes('href="/api/v1/library"')
    }
    const tester = await signedIn(server, 'tester')
    expect(await named(tester)).toBe(true)
    expect(await named(supertest.agent(server))).toBe(false)
    // Whoever has to choose a password first would be refused it.
    await app.db.people.update({ mustChange: true }, { where: { username: 'tester' } })
    expect(await named(tester)).toBe(false)
    await app.db.people.update({ mustChange: false }, { where: { username: 'tester' } })
    await tester.delete('/api/v1/session').expect(204)
    expect(await named(tester)).toBe(false)
  })
  it('says to whoever may work where a visit goes and to what, and is kept by nobody', async () => {
    await app.db.equipment.update({ position: 'Pit <b>7</b>, $& left' }, { where: {} })
    const visit = await plan(
      app,
      await signedIn(server, 'tester'),
      world.equipment.id,
      world.tester.id,
    )
    const shown = async (agent: Agent, id: string) => {
      const { text, headers } = await agent.get(`/visits/${id}`).expect(200)
      return [/<div id="app">(.*)<\/div>/.exec(text)?.[1], headers['cache-control']]
    }
    const tester = await signedIn(server, 'tester')
    const [said, kept] = await shown(tester, visit.id)
    expect(said).toContain('<strong>RP-101</strong>')
    expect(said).toContain('Seagate Public Bath, 1 Seagate')
    expect(said).toContain('Pit &lt;b&gt;7&lt;/b&gt;, $&amp; left')
    expect(kept).toBe('no-store')
    const name = '<p class="starting">Uvanta</p>'
    expect(await shown(tester, '018f0000-0000-7000-8000-000000000000')).toEqual([name, 'no-store'])
    expect(await shown(supertest.agent(server), visit.id)).toEqual([name, 'no-cache'])
  })
  it('comes though the database does not answer', async () => {
    const query = () => Promise.reject(new Error('gone'))
    const sequelize = Object.create(app.db.sequelize, { query: { value: query } }) as never
    const cut = serve({ ...app, db: { ...app.db, sequelize } })
    const { headers } = await supertest(server)
      .post('/api/v1/session')
      .send({ username: 'tester', password: PASSWORD })
      .expect(200)
    const cookie = headers['set-cookie'] as unknown as string[]
    await supertest(cut).get('/api/v1/session').set('Cookie', cookie).expect(500)
    const { text } = await supertest(cut).get('/visits/1').set('Cookie', cookie).expect(200)
    expect(text).toContain('<title>Uvanta</title>')
  })
  it('that is seldom opened first names none', async () => {
    expect(await linked('/stock')).toEqual([['modulepreload', '/assets/vue-1.js']])
    expect(await linked('/sign-in')).toEqual([['modulepreload', '/assets/vue-1.js']])
  })
})
