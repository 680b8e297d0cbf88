import { defineConfig } from '@playwright/test'

/** The real launcher, database, server and Chromium; the demo of a fresh data directory. */
export const PORT = 4976
const WHOLE_JOBS = /\/(offline|interruptions|guide|measured|gauge)\.spec\.ts$/

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  timeout: 120_000,
  expect: { timeout: 10_000 },
  // One more than cores on a small machine: whoever works with hands and gauges mostly waits.
  workers: 3,
  fullyParallel: true,
  // The longest first, so that none of them goes on alone at the end.
  projects: [
    { name: 'whole jobs', testMatch: WHOLE_JOBS },
    { name: 'pages', testIgnore: WHOLE_JOBS },
  ],
  globalSetup: './launch.ts',
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    trace: 'off',
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      // Debian's Chromium without a window: no tab strip is drawn for every page.
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
