import { defineConfig } from 'vitest/config'

/** Tests of the launcher with databases of their own: they mostly wait, and run beside the others. */
export default defineConfig({
  test: {
    include: ['launcher/**/*.test.js'],
    testTimeout: 240_000,
    hookTimeout: 240_000,
    fileParallelism: false,
  },
})
