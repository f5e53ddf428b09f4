// A reporter of vitest for what belongs to no test and yet fails a run: errors nobody caught, and hooks that failed.
// The counts do not hold them, so `npm test` names them beside what failed.
import { writeFileSync } from 'node:fs'
import { relative } from 'node:path'

const shown = (error) => String(error.stack ?? error.message ?? error).slice(0, 1500)

function* faultsOf(part, file) {
  for (const error of part.errors?.() ?? []) yield `${file}, outside its tests: ${shown(error)}`
  for (const child of part.children ?? []) if (child.type === 'suite') yield* faultsOf(child, file)
}

export default class ReportFaults {
  constructor() {
    this.to = process.env.BOCADO_TEST_FAULTS
  }
  onTestRunEnd(modules, uncaught) {
    if (!this.to) return
    const faults = modules.flatMap((module) => [...faultsOf(module, relative(process.cwd(), module.moduleId))])
    for (const error of uncaught)
      faults.push(`caught by nobody${error.VITEST_TEST_NAME ? `, in "${error.VITEST_TEST_NAME}"` : ''}: ${shown(error)}`)
    writeFileSync(this.to, JSON.stringify(faults))
  }
}
