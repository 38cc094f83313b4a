import { defineConfig } from '@playwright/test'
import { CHROMIUM } from './e2e/chromium'

/**
 * Browser tests of the built application; each worker starts a server of its own on a fresh
 * database.
 */
export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.e2e.ts',
  globalSetup: './e2e/seeded.ts',
  timeout: 400_000,
  expect: { timeout: 60_000 },
  // Each worker has a server of its own; two leave a third of two cores idle.
  workers: 3,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    // Each test would keep the whole application anew; those of reading without the server let it.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: CHROMIUM,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        '--autoplay-policy=no-user-gesture-required',
        // A page lives for seconds: functions are compiled anew for speed by V8's two compilers
        // after so many calls. Measured: a tenth less work.
        '--js-flags=--invocation-count-for-maglev=4000,--invocation-count-for-turbofan=40000',
      ],
    },
  },
})
