import type { BenchData } from '@bocado/contract'
import { expose } from 'comlink'
import { Bench, valuesOf, type BenchChange, type BenchResult } from './bench.js'
import type { OrganismModel } from '@bocado/core'

let bench: Bench | undefined

/** The bench away from the page's own thread. */
const api = {
  /** Takes the season; answers with the numbers of its model. */
  start(data: BenchData): Record<string, number> {
    bench = new Bench(data)
    return valuesOf(data.model as OrganismModel)
  },
  /** The season with changed numbers; in words where they make no model. */
  run(change: BenchChange, of: string, errors: Record<string, number>): BenchResult | { refused: string } {
    try {
      return bench?.run(change, of, errors) ?? { refused: '' }
    } catch (error) {
      if (error instanceof RangeError) return { refused: error.message }
      throw error
    }
  },
}
export type BenchWorker = typeof api
expose(api)
