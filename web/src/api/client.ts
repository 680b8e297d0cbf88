import type { Call, ProblemDetails } from '@uvanta/contract'
import { ExplainedError } from '@uvanta/core/errors'
import { asOf, isKept, type Kept, keptAnswers } from './kept'

/** An answer that is no success: what the server said, or that it could not be reached. */
export class ApiProblem extends ExplainedError {
  constructor(readonly details: ProblemDetails) {
    const { type, why = details.detail, remedy = '' } = details
    super(type.replace(/^urn:uvanta:problem:/, ''), why, remedy)
    this.message = details.detail
  }
  get status(): number {
    return this.details.status
  }
  /** There was no answer at all. */
  get offline(): boolean {
    return this.details.status === 0
  }
}

interface Given<P, Q, B> {
  params?: P
  query?: Q
  body?: B
  /** Version the caller saw; sent as If-Match. */
  version?: number
  signal?: AbortSignal
  /** The server itself has to answer: what the device keeps does not do. */
  live?: boolean
}

/** Calls an endpoint of the contract. @throws ApiProblem */
export async function call<P, Q, B, R>(
  e: Call<P, Q, B, R>,
  given: Given<P, Q, B> = {},
): Promise<R> {
  // Whose answer it is, is settled as it is asked for.
  const place = placeOf(e, given)
  let text: string
  try {
    text = await answerTo(e, given)
  } catch (error) {
    const offline = error instanceof ApiProblem && error.offline
    const last = given.live || !offline ? undefined : await place?.read()
    if (!last) throw error
    asOf.value = last.at
    return last.answer() as R
  }
  if (place) {
    asOf.value = null
    void place.write(text)
  }
  return (text === '' ? undefined : JSON.parse(text)) as R
}

/**
 * Has an answer kept on the device, for when it is asked for without a line.
 * @param freshMs what the device keeps for no longer than that is not asked for again, ms
 * @returns the answer, and from when it is kept: undefined where the device has no room for it
 * @throws ApiProblem
 */
export async function keepAnswer<P, Q, B, R>(
  e: Call<P, Q, B, R>,
  given: Given<P, Q, B> = {},
  freshMs = 0,
): Promise<{ readonly at: string | undefined; readonly answer: () => R }> {
  const place = placeOf(e, given)
  const kept = freshMs > 0 ? await place?.read() : undefined
  if (kept && isWithin(kept.at, freshMs)) return kept as Kept<R>
  const text = await answerTo(e, given)
  return { at: await place?.write(text), answer: () => JSON.parse(text) as R }
}

/** A clock that was put back since says nothing. */
function isWithin(at: string, ms: number): boolean {
  const age = Date.now() - Date.parse(at)
  return age >= 0 && age <= ms
}

const placeOf = <P, Q, B, R>(e: Call<P, Q, B, R>, { params, query }: Given<P, Q, B>) =>
  isKept(e) ? keptAnswers.place(urlOf(e, params, query)) : undefined

/** What the server answers, as it comes. @throws ApiProblem */
async function answerTo<P, Q, B, R>(e: Call<P, Q, B, R>, given: Given<P, Q, B>): Promise<string> {
  const response = await send(urlOf(e, given.params, given.query), {
    method: e.method.toUpperCase(),
    headers: {
      Accept: 'application/json',
      ...(given.body === undefined ? {} : { 'Content-Type': 'application/json' }),
      ...(given.version === undefined ? {} : { 'If-Match': `"${given.version}"` }),
    },
    ...(given.body === undefined ? {} : { body: JSON.stringify(given.body) }),
    ...(given.signal ? { signal: given.signal } : {}),
  })
  if (!response.ok) throw noted(new ApiProblem(await problemOf(response)))
  return response.text()
}

let ended: (problem: ApiProblem) => void = () => {}
/** Whoever thinks to be signed in is told when the server knows nobody, or somebody else. */
export function whenSessionEnds(hear: (problem: ApiProblem) => void): void {
  ended = hear
}
function noted(problem: ApiProblem): ApiProblem {
  if (problem.code === 'not-signed-in' || problem.code === 'another-person') ended(problem)
  return problem
}

/** The address of an endpoint that answers with a file. */
export function fileUrl<P>(e: Call<P, undefined, undefined, undefined>, params: P): string {
  return urlOf(e, params, undefined)
}

export function urlOf(e: Pick<Call, 'path'>, params: unknown, query: unknown): string {
  const path = e.path.replaceAll(/\{(\w+)\}/g, (_, name: string) =>
    encodeURIComponent(String((params as Record<string, unknown> | undefined)?.[name])),
  )
  const search = new URLSearchParams()
  for (const [name, value] of Object.entries(query ?? {})) {
    if (value !== undefined && value !== '' && value !== null) search.set(name, String(value))
  }
  return search.size > 0 ? `${path}?${search}` : path
}

/** Sends a request; no answer at all is a problem like any other. @throws ApiProblem */
export async function send(url: string, init: RequestInit): Promise<Response> {
  try {
    return await fetch(url, { ...init, credentials: 'same-origin' })
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new ApiProblem({
      type: 'urn:uvanta:problem:no-connection',
      title: 'No connection',
      status: 0,
      detail: 'There is no connection to the server. What you entered is kept on this device.',
    })
  }
}

async function problemOf(response: Response): Promise<ProblemDetails> {
  try {
    const problem = (await response.json()) as Partial<ProblemDetails>
    // What stands between may answer in a form of its own.
    return problem.type && problem.detail ? (problem as ProblemDetails) : unexplained(response)
  } catch {
    return unexplained(response)
  }
}

const unexplained = (response: Response): ProblemDetails => ({
  type: 'urn:uvanta:problem:unexplained',
  title: response.statusText,
  status: response.status,
  detail: `The server answered ${response.status} without an explanation. Try again shortly.`,
})
