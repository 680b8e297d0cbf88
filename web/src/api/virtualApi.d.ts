/** Calls of the contract by method and path, made by `web/apiPaths.ts`: what asks for a schema takes the contract’s. */
declare module 'virtual:api' {
  import type { api as contract, Call, Endpoint } from '@uvanta/contract'
  type Lean<E> = E extends Endpoint<infer P, infer Q, infer B, infer R> ? Call<P, Q, B, R> : never
  type Area<A> = { readonly [K in keyof A]: Lean<A[K]> }
  type Api = typeof contract
  export const api: { readonly [K in keyof Api]: Area<Api[K]> }
}
