// Builds the service worker with the list of the application's files in it: the last part of `npm
// run build`, since it must know what the rest has made.
import { build } from 'esbuild'
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'

const CLIENT = 'build/client'
/**
 * Fonts of scripts that the interface does not write, and older font files: a browser that needs
 * one keeps it when it has been used.
 */
const RARE = /(cyrillic|greek|vietnamese|devanagari)[^/]*$|\.woff$|\/server-build-[^/]*\.css$/
/** Names of these hold a digest of what is in them. */
const isNamedByContent = (path) => path.startsWith('assets/')

const files = readdirSync(CLIENT, { recursive: true, withFileTypes: true })
  .filter((one) => one.isFile() && one.name !== 'service-worker.js')
  .map(({ parentPath, name }) => `${parentPath}/${name}`.slice(CLIENT.length + 1))
  .filter((path) => !RARE.test(path))
  .sort()
  .map((path) => ({
    url: `/${path}`,
    revision: isNamedByContent(path) ? null : digest(readFileSync(`${CLIENT}/${path}`)),
  }))

function digest(bytes) {
  return createHash('sha256').update(bytes).digest('hex').slice(0, 16)
}

await build({
  entryPoints: ['workers/offline/serviceWorker.ts'],
  outfile: `${CLIENT}/service-worker.js`,
  bundle: true,
  minify: true,
  format: 'iife',
  target: 'es2022',
  define: {
    FILES: JSON.stringify(files),
    BUILD: JSON.stringify(digest(JSON.stringify(files))),
    'process.env.NODE_ENV': '"production"',
  },
})
