import { theOne } from '../core/lists'
import { existsSync } from 'node:fs'

/** Debian's Chromium: the headless build where it is installed, else the whole one. */
export const CHROMIUM = theOne(['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'], (path) =>
  existsSync(path),
)
