import { existsSync } from 'node:fs'

/** Debian's Chromium: the headless build where it is installed, else the whole one. */
export const CHROMIUM = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'].find((path) =>
  existsSync(path),
)!
