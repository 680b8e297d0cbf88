import type * as yup from 'yup'

export const roles = ['technician', 'planner', 'reviewer', 'administrator', 'trainee'] as const
export type Role = (typeof roles)[number]

/** Who may call: anyone, anyone signed in, or people with one of the roles. */
export type Access = 'public' | 'signed-in' | readonly Role[]

export type Method = 'get' | 'post' | 'put' | 'patch' | 'delete'

/** What is needed to make a call of the HTTP interface; what it takes and answers is known to the compiler alone. */
export interface Call<P = unknown, Q = unknown, B = unknown, R = unknown> {
  readonly method: Method
  /** OpenAPI path, parameters in braces. */
  readonly path: string
  /** Changes a record that carries a version: needs If-Match. */
  readonly versioned?: boolean
  /** Never there: carries the types. */
  readonly types?: {
    readonly params: P
    readonly query: Q
    readonly body: B
    readonly answer: R
  }
}

/** One call of the HTTP interface: the single description that server, client and document share. */
export interface Endpoint<P = unknown, Q = unknown, B = unknown, R = unknown> extends Call<
  P,
  Q,
  B,
  R
> {
  readonly summary: string
  readonly tag: string
  readonly access: Access
  readonly params?: yup.Schema<P>
  readonly query?: yup.Schema<Q>
  readonly body?: yup.Schema<B>
  /** JSON of the answer; absent when there is none or it is a file. */
  readonly response?: yup.Schema<R>
  /** Media types of a body that is a file. */
  readonly upload?: readonly string[]
  /** Media type of an answer that is a file. */
  readonly file?: string
}

export function endpoint<P = undefined, Q = undefined, B = undefined, R = undefined>(
  definition: Endpoint<P, Q, B, R>,
): Endpoint<P, Q, B, R> {
  return definition
}

/** RFC 9457 problem details, as this application fills them. */
export interface ProblemDetails {
  /** `urn:uvanta:problem:` and the stable code of the problem. */
  readonly type: string
  readonly title: string
  readonly status: number
  /** A sentence that says what to do. */
  readonly detail: string
  /** The two halves of it: what is the matter, and what to do. */
  readonly why?: string
  readonly remedy?: string
  readonly fields?: readonly { readonly path: string; readonly message: string }[]
  /** Further members of a kind of problem. */
  readonly [extension: string]: unknown
}

/** The schema of what a call takes. @throws Error for a call that takes nothing */
export function bodyOf<P, Q, B, R>(e: Endpoint<P, Q, B, R>): yup.Schema<B> {
  if (!e.body) throw new Error(`${e.path} takes no body`)
  return e.body
}
