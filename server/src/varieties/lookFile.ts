import { varietyLookInput, type InputOf, type ParsedInputOf, type ResponseOf, type varieties } from '@bocado/contract'
import Papa from 'papaparse'
import { type Write } from '../database/index.js'
import { unmarked } from '../http/csv.js'
import { fieldsProblem, type FieldMessage } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { listBlocks } from '../blocks/store.js'
import { organismsOf } from '../library/catalogue.js'
import { addVarietyLook } from './service.js'
import { listVarietyLooks } from './store.js'

/** Columns of the file, as it goes out; `degree_percent` and `note` may be missing. */
const COLUMNS = ['date', 'block', 'organism', 'variety', 'part', 'looked', 'hit'] as const

type Line = Readonly<Record<string, string>>

const at = (row: number, column: string): string => `csv.${row}.${column}`

/** One and the same look: it stands only once. */
const keyOf = (look: { organismId: string; blockId: string; variety: string; part: string; lookedOn: string }): string =>
  [look.organismId, look.blockId, look.variety.toLowerCase(), look.part, look.lookedOn].join('\n')

const numberIn = (text: string | undefined): number | undefined => {
  const plain = (text ?? '').trim().replace(',', '.')
  return plain === '' || Number.isNaN(Number(plain)) ? undefined : Number(plain)
}

/**
 * Takes in looks at varieties from a file such as goes out: all of them, or none with every fault named by its line. What is there already is
 * left as it is.
 */
export async function importVarietyLooks(
  w: Write,
  deps: Deps,
  { csv }: ParsedInputOf<typeof varieties.importLooks>,
): Promise<ResponseOf<typeof varieties.importLooks>> {
  const parsed = Papa.parse<Line>(csv.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
  })
  const missing = COLUMNS.filter((column) => !(parsed.meta.fields ?? []).includes(column))
  if (missing.length > 0)
    throw fieldsProblem([{ path: 'csv', message: `the first line has to name the columns; ${missing.join(', ')} is missing` }])
  const [blocks, organisms, looks] = await Promise.all([
    listBlocks(w.tx, w.siteId),
    organismsOf(w.tx, w.siteId),
    listVarietyLooks(w.tx, w.siteId, null),
  ])
  const byName = <T extends { id: string; name: string }>(all: readonly T[], text: string): T | undefined =>
    all.find(({ id, name }) => id === text || name.toLowerCase() === text.toLowerCase())
  const faults: FieldMessage[] = []
  const read: InputOf<typeof varieties.add>[] = []
  parsed.data.forEach((line, i) => {
    // The first line names the columns; people count it.
    const row = i + 2
    const cell = (column: string): string => unmarked((line[column] ?? '').trim())
    const block = byName(blocks, cell('block'))
    const organism = byName(organisms, cell('organism'))
    if (!block) faults.push({ path: at(row, 'block'), message: `line ${row}: there is no block ${cell('block')} here` })
    if (!organism)
      faults.push({
        path: at(row, 'organism'),
        message: `line ${row}: there is no organism ${cell('organism')} in the library or among your own`,
      })
    if (!block || !organism) return
    const look = {
      organismId: organism.id,
      blockId: block.id,
      variety: cell('variety'),
      part: cell('part'),
      lookedOn: cell('date'),
      looked: numberIn(cell('looked')),
      hit: numberIn(cell('hit')),
      degree: cell('degree_percent') === '' ? null : numberIn(cell('degree_percent')),
      note: cell('note'),
    }
    const checked = varietyLookInput.safeParse(look)
    if (checked.success) read.push(checked.data)
    else
      for (const { path, message } of checked.error.issues)
        faults.push({ path: at(row, path.join('.')), message: `line ${row}, ${path.join('.')}: ${message}` })
  })
  if (parsed.data.length === 0) faults.push({ path: 'csv', message: 'holds no look at a variety' })
  if (faults.length > 0) throw fieldsProblem(faults)
  const there = new Set(looks.map(keyOf))
  let added = 0
  for (const look of read) {
    if (there.has(keyOf(look))) continue
    there.add(keyOf(look))
    await addVarietyLook(w, deps, varietyLookInput.parse(look))
    added++
  }
  return { added, known: read.length - added }
}
