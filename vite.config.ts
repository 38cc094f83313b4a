import { reactRouter } from '@react-router/dev/vite'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [reactRouter()],
  resolve: { alias: { '~': fileURLToPath(new URL('./app', import.meta.url)) } },
  worker: { format: 'es' },
  // Bundled into the server build: these packages mix module formats, or name a wrong one, that Node would not join.
  ssr: { noExternal: [/^@mui\//, /^@emotion\//, '@tonejs/midi'] },
  build: { chunkSizeWarningLimit: 1000 },
})
