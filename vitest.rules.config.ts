import { defineConfig } from 'vitest/config'

/** The tests of verdicts, guards, fold and prover alone: mutation runs them thousands of times. */
export default defineConfig({
  test: {
    include: ['core/{rules,visit,guide}/**/*.test.ts'],
    exclude: ['core/visit/everyGuide.test.ts'],
    testTimeout: 30_000,
  },
})
