import { defineConfig } from 'vitest/config'

/** The tests of the server alone, each against the database: mutation runs them many times. */
export default defineConfig({
  test: {
    include: ['server/**/*.test.ts'],
    exclude: [
      // What takes longest, and says nothing of one line.
      'server/{scale,demo,fuzz,hostile,oldDatabase}.test.ts',
    ],
    globalSetup: ['server/testing/globalSetup.ts'],
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
})
