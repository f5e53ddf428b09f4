import { defineConfig } from 'vite'

export default defineConfig({
  ssr: { noExternal: [/^@bocado\//] },
  build: {
    ssr: true,
    target: 'node20',
    emptyOutDir: true,
    rollupOptions: { input: { main: 'src/main.ts' }, output: { entryFileNames: '[name].js' } },
  },
})
