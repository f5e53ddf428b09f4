import { defineConfig } from 'vitest/config'

// One project a workspace. Those that start processes take longer and run one file at a time, in one process, which reads the contract once.
const quick = (name: string) => ({ test: { name, root: `./${name}`, include: ['src/**/*.test.{ts,tsx}'] } })

/** What takes minutes: kills, a database that hangs, a full disk, a minute of load. `npm run test:long` runs it. */
const long = {
  test: {
    name: 'long',
    root: '.',
    include: ['server/src/**/*.long.ts', 'e2e/src/**/*.long.ts'],
    testTimeout: 600_000,
    hookTimeout: 300_000,
    fileParallelism: false,
  },
}

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
          isolate: false,
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
          isolate: false,
          fileParallelism: false,
        },
      },
      ...(process.env['BOCADO_LONG'] ? [long] : []),
    ],
    reporters: ['default', 'json', './scripts/reportFaults.mjs'],
    outputFile: { json: '.data/test-report.json' },
  },
})
