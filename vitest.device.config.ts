import type { ViteUserConfig } from 'vitest/config'
import config from './web/vite.config'

const web = config as ViteUserConfig
/** The tests of what a device keeps, sends and signs alone: mutation runs them thousands of times. */
export default {
  ...web,
  test: {
    ...web.test,
    include: ['src/{stores,device,api}/**/*.test.ts', 'src/sw.test.ts'],
    // Days at random: what they find is found by name besides.
    exclude: ['src/stores/interruptions.test.ts'],
    testTimeout: 30_000,
  },
} satisfies ViteUserConfig
