import 'fake-indexeddb/auto'
import { api } from 'virtual:api'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ApiProblem, call, fileUrl, keepAnswer, send, urlOf, whenSessionEnds } from './client'
import { asOf, keptAnswers } from './kept'

const fetching = vi.fn<(url: string, init: RequestInit) => Promise<Response>>()
beforeEach(() => {
  vi.stubGlobal('fetch', fetching)
  keptAnswers.belongTo('p')
})
afterEach(async () => {
  await keptAnswers.clear('p')
  whenSessionEnds(() => {})
  fetching.mockReset()
  vi.unstubAllGlobals()
})
const answers = (body: object | string, status = 200) =>
  fetching.mockImplementation(() =>
    Promise.resolve(
      typeof body === 'string' ? new Response(body, { status }) : Response.json(body, { status }),
    ),
  )
const noLine = () => fetching.mockRejectedValue(new TypeError('no line'))
const problemOf = (work: Promise<unknown>) =>
  work.then(
    () => Promise.reject(new Error('it was answered')),
    (error: unknown) => error as ApiProblem,
  )
const sent = () => {
  const [url, init] = fetching.mock.calls.at(-1) ?? []
  return { url, ...init, headers: init?.headers as Record<string, string> }
}

describe('a call', () => {
  it('sends JSON to the path of its endpoint, with the cookie of the session', async () => {
    answers({})
    await call(api.session.signIn, { body: { username: 'odda', password: 'x' } })
    expect(sent()).toMatchObject({
      url: '/api/v1/session',
      method: 'POST',
      credentials: 'same-origin',
      body: JSON.stringify({ username: 'odda', password: 'x' }),
    })
    expect(sent().headers).toEqual({
      Accept: 'application/json',
      'Content-Type': 'application/json',
    })
  })
  it('sends the version in If-Match, and no body or signal unless given', async () => {
    answers('', 204)
    const done = await call(api.devices.revoke, { params: { id: 'd' as never }, version: 7 })
    expect(done).toBeUndefined()
    expect(sent().headers).toEqual({ Accept: 'application/json', 'If-Match': '"7"' })
    expect('body' in sent()).toBe(false)
    expect('signal' in sent()).toBe(false)
  })
  it('passes an abort by the caller on, and reports other failures as no connection', async () => {
    const broken = new DOMException('', 'AbortError')
    fetching.mockRejectedValue(broken)
    const { signal } = new AbortController()
    await expect(call(api.session.me, { signal })).rejects.toBe(broken)
    expect(sent().signal).toBe(signal)
    fetching.mockRejectedValue(new DOMException('', 'NetworkError'))
    expect(await problemOf(send('/x', {}))).toMatchObject({ code: 'no-connection', offline: true })
    fetching.mockRejectedValue(Object.assign(new Error(''), { name: 'AbortError' }))
    expect(await problemOf(send('/x', {}))).toMatchObject({ code: 'no-connection' })
  })
})

describe('an address', () => {
  it('has its parameters in it, and asks what is asked', () => {
    expect(urlOf({ path: '/a/{id}/b/{other}' }, { id: 'x/y', other: 3 }, undefined)).toBe(
      '/a/x%2Fy/b/3',
    )
    const asked = { q: 'RP & co', none: undefined, empty: '', nothing: null, zero: 0 }
    expect(urlOf({ path: '/a' }, undefined, asked)).toBe('/a?q=RP+%26+co&zero=0')
    expect(fileUrl(api.certificates.pdf, { id: 'c' as never })).toBe('/api/v1/certificates/c/pdf')
  })
})

describe('a refusal', () => {
  it('is the problem that the server explains', async () => {
    const details = { why: 'It is closed.', remedy: 'Plan another.', field: 'x' }
    answers(
      { type: 'urn:uvanta:problem:visit-closed', status: 409, detail: 'It is closed.', ...details },
      409,
    )
    const problem = await problemOf(call(api.gauges.list))
    expect(problem).toBeInstanceOf(ApiProblem)
    expect(problem).toMatchObject({
      code: 'visit-closed',
      status: 409,
      offline: false,
      message: 'It is closed.',
      why: 'It is closed.',
      remedy: 'Plan another.',
    })
    expect(problem.details.field).toBe('x')
  })
  it.each<[string, object | string]>([
    ['in words', '<h1>Bad gateway</h1>'],
    ['without a type', { detail: 'x' }],
    ['without a detail', { type: 'urn:uvanta:problem:x' }],
  ])('of what stands between, %s, is said to be unexplained', async (_, body) => {
    answers(body, 502)
    expect(await problemOf(call(api.gauges.list))).toMatchObject({
      code: 'unexplained',
      status: 502,
    })
  })
  it.each([
    ['not-signed-in', true],
    ['another-person', true],
    ['forbidden', false],
  ])('“%s” ends the session: %s', async (code, ends) => {
    const hear = vi.fn()
    whenSessionEnds(hear)
    answers({ type: `urn:uvanta:problem:${code}`, status: 403, detail: 'x' }, 403)
    await problemOf(call(api.gauges.list))
    expect(hear).toHaveBeenCalledTimes(ends ? 1 : 0)
  })
})

describe('without a line', () => {
  const gauges = { items: [{ tag: 'G-1' }], next: null }
  const known = async () => {
    answers(gauges)
    await call(api.gauges.list)
    await vi.waitFor(async () =>
      expect(await keptAnswers.place(api.gauges.list.path).read()).toBeDefined(),
    )
  }
  it('what was answered last is shown, and from when it is', async () => {
    await known()
    expect(asOf.value).toBeNull()
    noLine()
    expect(await call(api.gauges.list)).toEqual(gauges)
    expect(Date.now() - Date.parse(asOf.value ?? '')).toBeLessThan(60_000)
    answers(gauges)
    await call(api.gauges.list)
    expect(asOf.value).toBeNull()
  })
  it('it is not, where the server itself has to answer, or has refused', async () => {
    await known()
    noLine()
    expect(await problemOf(call(api.gauges.list, { live: true }))).toMatchObject({ offline: true })
    answers({ type: 'urn:uvanta:problem:forbidden', status: 403, detail: 'x' }, 403)
    expect(await problemOf(call(api.gauges.list))).toMatchObject({ code: 'forbidden' })
  })
  it('there is none of what is not kept, or was never asked', async () => {
    noLine()
    expect(await problemOf(call(api.gauges.list))).toMatchObject({ offline: true })
    expect(await problemOf(call(api.devices.list))).toMatchObject({ offline: true })
  })
  it('what is fresh is not asked for again; what is old, or of a time to come, is', async () => {
    answers(gauges)
    const { at, answer } = await keepAnswer(api.gauges.list)
    expect(answer()).toEqual(gauges)
    expect(at).toBeDefined()
    await keepAnswer(api.gauges.list, {}, 60_000)
    expect(fetching).toHaveBeenCalledTimes(1)
    await keepAnswer(api.gauges.list)
    expect(fetching).toHaveBeenCalledTimes(2)
    vi.setSystemTime(Date.now() + 61_000)
    await keepAnswer(api.gauges.list, {}, 60_000)
    expect(fetching).toHaveBeenCalledTimes(3)
    vi.setSystemTime(Date.now() - 3_600_000)
    await keepAnswer(api.gauges.list, {}, 60_000)
    expect(fetching).toHaveBeenCalledTimes(4)
    vi.useRealTimers()
  })
})
