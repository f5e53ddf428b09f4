import { defineConfig } from 'vite'

// One file per program; npm packages stay outside, workspace packages are built in.
export default defineConfig({
  ssr: { noExternal: [/^@bocado\//] },
  build: {
    ssr: true,
    target: 'node20',
    emptyOutDir: true,
    rollupOptions: {
      input: {
        main: 'src/main.ts',
        worker: 'src/worker/thread.ts',
        package: 'src/package/cli.ts',
        'weatherFile.worker': 'src/weatherFiles/weatherFile.worker.ts',
      },
      output: { entryFileNames: '[name].js' },
    },
  },
})
