import { existsSync } from 'node:fs'

/**
 * Debian's Chromium as a browser with everything, where it is installed; else the headless build.
 */
export const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-headless-shell'].find((path) =>
  existsSync(path),
)
