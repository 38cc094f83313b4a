import { reactRouter } from '@react-router/dev/vite'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

/**
 * Which scripts are joined, since each costs a request: a tune's page asks for 36 instead of 73.
 * Packages are joined with packages, what most pages use of the core is one script, and the rest
 * goes by the pages that need it, what is smaller than the threshold (bytes) with its neighbour.
 * Each of the three asks only for those before it, so that no script waits for one that waits for
 * it. What is large and seldom opened stays by itself.
 */
const GROUPS = [
  {
    name: 'libs',
    priority: 2,
    test: /node_modules.(?!plotly|vexflow|tone|pdf)/,
    entriesAware: true,
    entriesAwareMergeThreshold: 40_000,
  },
  {
    name: 'core',
    priority: 1,
    test: /^(?!.*node_modules).*\/core\/(?!formats|backup|cli)/,
    minShareCount: 3,
  },
  {
    name: 'house',
    test: /^(?!.*node_modules).*\/(core|app|paper)\//,
    entriesAware: true,
    entriesAwareMergeThreshold: 10_000,
  },
]

export default defineConfig(({ isSsrBuild }) => ({
  plugins: [reactRouter()],
  resolve: { alias: { '~': fileURLToPath(new URL('./app', import.meta.url)) } },
  worker: { format: 'es' },
  // Bundled into the server build. The first mix module formats, or name a wrong one, that Node
  // would not join; the rest are of many small files, which Node loads more slowly than one: the
  // server is there a third of a second sooner.
  ssr: {
    noExternal: [
      ...[/^@mui\//, /^@emotion\//, '@tonejs/midi'],
      ...[
        'zod',
        /^drizzle-orm/,
        /^@dnd-kit\//,
        '@popperjs/core',
        'stylis',
        'marked',
        'fast-xml-parser',
        'jsondiffpatch',
      ],
    ],
  },
  build: {
    chunkSizeWarningLimit: 1000,
    // A font within a style sheet would not be this server's own to the browser, which takes no
    // others.
    assetsInlineLimit: (file) => (file.endsWith('.woff2') ? false : undefined),
    // What is joined would be named by all the pages that need it, in every page's list of scripts.
    rolldownOptions: isSsrBuild
      ? {}
      : {
          output: {
            codeSplitting: { groups: GROUPS },
            chunkFileNames: ({ name }) => `assets/${name.split('~')[0]}-[hash].js`,
          },
        },
  },
}))
