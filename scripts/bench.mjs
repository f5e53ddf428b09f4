// npm run bench: how fast the computation is, against plain loops in the same run.
import { join } from 'node:path'
import { runnerImport } from 'vite'
import { root } from './machine/packages.mjs'

const { module } = await runnerImport(join(root, 'bench/heat.ts'))
console.log(module.report().join('\n'))
