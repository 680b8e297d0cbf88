import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { makeTestApp, populate, serve, signedIn, codeOf } from './testing/app'

let app: App
let server: ReturnType<typeof serve>
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  server = serve(app)
})

describe('the browser’s guard rails', () => {
  it('refuses a write that comes from another site', async () => {
    const agent = await signedIn(server, 'administrator')
    await agent
      .post('/api/v1/gauges')
      .set('Origin', 'http://elsewhere.example')
      .send({})
      .expect(403)
    await agent.post('/api/v1/gauges').set('Sec-Fetch-Site', 'cross-site').send({}).expect(403)
  })
  it('takes a write from the address it is known by, whatever host a proxy hands on', async () => {
    const known = serve({ ...app, config: { ...app.config, publicUrl: 'https://uvanta.example' } })
    const agent = await signedIn(known, 'administrator')
    const from = (origin: string) => agent.post('/api/v1/gauges').set('Origin', origin).send({})
    await from('https://uvanta.example').expect(422)
    await from('https://uvanta.example.elsewhere.example').expect(403)
    await from('null').expect(403)
  })
  it('answers under its own address alone, so that no name of another page’s leads here', async () => {
    const known = serve({ ...app, config: { ...app.config, publicUrl: 'https://uvanta.example' } })
    const asked = (host: string) => supertest(known).get('/api/v1/session').set('Host', host)
    await asked('uvanta.example').expect(200)
    await asked('localhost:4870').expect(200)
    for (const host of [
      'evil.example',
      'uvanta.example.evil.example',
      '127.0.0.1.evil.example',
      '',
    ])
      await asked(host).expect(421)
    const page = await supertest(known).get('/').set('Host', 'evil.example').expect(421)
    expect(codeOf(page)).toBe('another-host')
  })
  it('lets a page use no more of the device than it has to', async () => {
    const { headers } = await supertest(server).get('/api/v1/session')
    expect(headers['permissions-policy']).toMatch(/geolocation=\(\).*microphone=\(\)/)
  })
  it('allows no inline script anywhere', async () => {
    const reader = await signedIn(server, 'reviewer')
    const { headers, text } = await reader.get('/api/v1/docs').expect(200)
    expect(text).toContain('Uvanta’s interface')
    const policy = String(headers['content-security-policy'])
    expect(policy).toMatch(/script-src 'self'(;|$)/)
    expect(policy).not.toMatch(/unsafe/)
    expect(policy).toMatch(/frame-ancestors 'none'/)
    expect(headers['x-content-type-options']).toBe('nosniff')
  })
})
