import { reactRouter } from '@react-router/dev/vite'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

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
    // In bytes: smaller scripts are joined with others, since each costs a request. A tune's page asks for 37 instead of 67.
    rollupOptions: isSsrBuild ? {} : { output: { experimentalMinChunkSize: 40_000 } },
  },
}))
