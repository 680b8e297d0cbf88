/** Calls of the contract by method and path, made by `web/apiPaths.ts`; typed as in the contract. */
declare module 'virtual:api' {
  import type { api as contract } from '@uvanta/contract'
  export const api: typeof contract
}
