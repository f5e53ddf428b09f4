import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react()],
  build: { target: 'es2023', emptyOutDir: true, chunkSizeWarningLimit: 1500 },
  server: { proxy: { '/api': `http://127.0.0.1:${process.env['BOCADO_PORT'] ?? 4600}` } },
})
