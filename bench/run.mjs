// Bundles and runs the measurements (npm run bench).
import { build } from 'esbuild'
import { pathToFileURL } from 'node:url'

const outfile = 'build/bench.mjs'
await build({
  entryPoints: ['bench/bench.ts'],
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  outfile,
  logLevel: 'warning',
})
await import(pathToFileURL(outfile).href)
