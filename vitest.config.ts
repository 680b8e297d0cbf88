import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    // One for each core: by default one core is left to the runner, which hardly needs it.
    maxWorkers: '100%',
    projects: [
      {
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'contract/**/*.test.ts', 'library/**/*.test.ts'],
          testTimeout: 90_000,
          isolate: false,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts', 'standins/**/*.test.ts'],
          globalSetup: ['server/testing/globalSetup.ts'],
          testTimeout: 90_000,
          hookTimeout: 120_000,
          isolate: false,
        },
      },
      'web/vite.config.ts',
    ],
  },
})
