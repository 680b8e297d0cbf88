import { defineConfig } from 'vitest/config'

/**
 * The tests of verdicts, guards, fold, prover and diagnosis alone: mutation runs them thousands of times. A sample runs
 * those of the parts of the core that it is of, and of the prover's those that take one rule at a time: the damage
 * done to every guide of the house takes minutes, and runs by itself besides.
 */
const sample = process.env.UVANTA_MUTATE_SAMPLE?.split(',')
export default defineConfig({
  test: {
    include: (sample ?? ['rules', 'visit', 'guide', 'diagnosis']).map(
      (part) => `core/${part}/**/*.test.ts`,
    ),
    exclude: [
      'core/visit/everyGuide.test.ts',
      // Thousands of sets at random: what they find is found by name besides.
      'core/rules/secondJudge.test.ts',
      // Every fault of every kind on its model: minutes. The weighing itself is held to numbers worked out by hand.
      'core/diagnosis/{alone,casebook,diagnosis}.test.ts',
      ...(sample ? ['core/guide/*.test.ts', 'core/guide/prove/damage.test.ts'] : []),
    ],
    testTimeout: 30_000,
  },
})
