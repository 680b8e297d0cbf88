// The other end of `inWorkers` while nothing is built: in tests and in development.
import { tsImport } from 'tsx/esm/api'

export const { compute, library, pdf } = await tsImport('./tasks.ts', import.meta.url)
