import { defineConfig } from '@playwright/test'
import { existsSync } from 'node:fs'

/** Debian's Chromium: the headless build where it is installed, else the whole one. */
const CHROMIUM = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'].find((path) => existsSync(path))!

/** Browser tests of the built application; each test file starts servers of its own on fresh databases. */
export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.e2e.ts',
  timeout: 180_000,
  expect: { timeout: 30_000 },
  // Each file has a server of its own; two at a time use both cores of the smallest machine.
  workers: 3,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
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
      ],
    },
  },
})
