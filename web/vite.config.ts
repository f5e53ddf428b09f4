import locales from '@react-aria/optimize-locales-plugin'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { compiledMessages } from './vite/compiledMessages.ts'

export default defineConfig({
  // The controls' own words are wanted in the languages that the page speaks.
  plugins: [react(), locales.vite({ locales: ['en-US'] }), compiledMessages()],
  build: { target: 'es2023', emptyOutDir: true, chunkSizeWarningLimit: 1500, manifest: true },
  server: { proxy: { '/api': `http://127.0.0.1:${process.env['BOCADO_PORT'] ?? 4600}` } },
})
