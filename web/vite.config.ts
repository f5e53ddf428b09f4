import locales from '@react-aria/optimize-locales-plugin'
import react from '@vitejs/plugin-react'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'
import { isCommon } from './vite/chunks.ts'
import { compiledMessages } from './vite/compiledMessages.ts'
import { lightContract } from './vite/lightContract.ts'
import { serviceWorker } from './vite/serviceWorker.ts'

const inCommon = isCommon(fileURLToPath(new URL('src/main.tsx', import.meta.url)))

export default defineConfig({
  // The controls' own words are wanted in the languages that the page speaks.
  plugins: [lightContract(), react(), locales.vite({ locales: ['en-US'] }), compiledMessages(), serviceWorker()],
  build: {
    target: 'es2023',
    emptyOutDir: true,
    chunkSizeWarningLimit: 1500,
    manifest: true,
    rolldownOptions: {
      output: {
        codeSplitting: {
          includeDependenciesRecursively: false,
          groups: [{ debugName: 'common', name: (id, context) => (inCommon(id, context) ? 'common' : null) }],
        },
      },
    },
  },
  server: { proxy: { '/api': `http://127.0.0.1:${process.env['BOCADO_PORT'] ?? 4600}` } },
})
