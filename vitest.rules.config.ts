import { defineConfig } from 'vitest/config'

/**
 * The tests of verdicts, guards, fold and prover alone: mutation runs them thousands of times. Of the
 * prover's, a sample runs those that take one rule at a time; the damage done to every guide of the house
 * takes minutes, and runs by itself besides.
 */
const sample = process.env.UVANTA_MUTATE_SAMPLE === '1'
export default defineConfig({
  test: {
    include: ['core/{rules,visit,guide}/**/*.test.ts'],
    exclude: [
      'core/visit/everyGuide.test.ts',
      ...(sample ? ['core/guide/*.test.ts', 'core/guide/prove/damage.test.ts'] : []),
    ],
    testTimeout: 30_000,
  },
})
