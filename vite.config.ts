import { reactRouter } from '@react-router/dev/vite'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

/**
 * Which scripts are joined, since each costs a request: a tune's page asks for 50 instead of 73. What the same pages need is one script, and one
 * smaller than the threshold (bytes) goes with its neighbour. Packages are joined with packages only and our modules less eagerly, so that no script
 * asks for one that waits for it. What is large and seldom opened stays by itself.
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
  // Bundled into the server build. The first mix module formats, or name a wrong one, that Node would not join; the rest are of many small files, which Node
  // loads more slowly than one: the server is there a third of a second sooner.
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
    rolldownOptions: isSsrBuild ? {} : { output: { codeSplitting: { groups: GROUPS } } },
  },
}))
