// Bundles and runs the measurements: npm run bench, npm run bench:paper for sheets and backups, npm
// run kills for a server that is killed.
import { build } from 'esbuild'
import { pathToFileURL } from 'node:url'

const name = process.argv[2] ?? 'bench'
const outfile = `build/${name === 'bench' ? 'bench' : `bench-${name}`}.mjs`
await build({
  entryPoints: [`bench/${name}.ts`],
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  outfile,
  logLevel: 'warning',
  // What reads files beside its own code stays where it is.
  ...(name === 'paper' ? { packages: 'external' } : { external: ['better-sqlite3'] }),
  // Libraries that ask for Node's own modules the older way.
  banner: {
    js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
  },
})
await import(pathToFileURL(outfile).href)
