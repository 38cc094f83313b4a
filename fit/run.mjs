// Fits what is fitted, prints how well it does on what was held back, and writes the tables (npm
// run fit).
import { build } from 'esbuild'
import { pathToFileURL } from 'node:url'

const outfile = 'build/fit.mjs'
await build({
  entryPoints: ['fit/fit.ts'],
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  outfile,
  logLevel: 'warning',
})
await import(pathToFileURL(outfile).href)
