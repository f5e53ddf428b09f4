// npm run screenshots: one current picture of each main view in docs/screenshots, from the demonstration that is running.
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { runnerImport } from 'vite'
import { ensurePrograms, root } from './machine/packages.mjs'

ensurePrograms(['chromium'], console.log)
let address
try {
  address = JSON.parse(readFileSync(join(root, '.data', 'demo', 'run.json'), 'utf8')).address
} catch {
  console.error('Start the demonstration first: npm run demo')
  process.exit(1)
}
const { module } = await runnerImport(join(root, 'e2e/src/screenshots.ts'))
const made = await module.takeScreenshots(address, join(root, 'docs', 'screenshots'))
console.log(made.join('\n'))
