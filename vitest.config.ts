import { defineConfig } from 'vitest/config'

// One project a workspace. Those that start processes take longer and run one file at a time.
const quick = (name: string) => ({ test: { name, root: `./${name}`, include: ['src/**/*.test.{ts,tsx}'] } })

export default defineConfig({
  test: {
    projects: [
      quick('core'),
      quick('library'),
      quick('contract'),
      quick('web'),
      quick('demo'),
      quick('simulators'),
      {
        test: {
          name: 'server',
          root: './server',
          include: ['src/**/*.test.ts'],
          testTimeout: 60_000,
          hookTimeout: 60_000,
          fileParallelism: false,
        },
      },
      {
        test: {
          name: 'e2e',
          root: './e2e',
          include: ['src/**/*.spec.ts'],
          testTimeout: 240_000,
          hookTimeout: 120_000,
          fileParallelism: false,
        },
      },
    ],
    reporters: ['default', 'json'],
    outputFile: { json: '.data/test-report.json' },
  },
})
