import { reactRouter } from '@react-router/dev/vite'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [reactRouter()],
  resolve: { alias: { '~': fileURLToPath(new URL('./app', import.meta.url)) } },
  worker: { format: 'es' },
  // MUI and Emotion are bundled into the server build: their packages mix module formats that Node would not join.
  ssr: { noExternal: [/^@mui\//, /^@emotion\//] },
  build: { chunkSizeWarningLimit: 1000 },
})
