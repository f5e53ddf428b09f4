import { Readable } from 'node:stream'
import type { Transaction } from './session.js'
import { roomIn } from './roomIn.js'

const ROWS_AT_ONCE = 4000

type Cells = readonly (string | number | null)[]

const line = (cells: Cells): string => `${cells.map((cell) => (cell === null ? '\\N' : String(cell))).join('\t')}\n`

function* parts(rows: Iterable<Cells>): Generator<Cells[]> {
  let part: Cells[] = []
  for (const row of rows) {
    part.push(row)
    if (part.length < ROWS_AT_ONCE) continue
    yield part
    part = []
  }
  if (part.length > 0) yield part
}

/**
 * Puts many rows into a table inside a transaction, as a stream where the database takes one and in batches otherwise. Cells are
 * numbers, null, and text without tabs or backslashes, such as dates. All rows go in, or it throws.
 *
 * @param constants columns that hold the same in every row
 */
export async function loadRows(
  tx: Transaction,
  table: string,
  columns: readonly string[],
  constants: Readonly<Record<string, unknown>>,
  rows: Iterable<Cells>,
  count: number,
  onProgress: (share: number) => void,
): Promise<void> {
  const names = Object.keys(constants)
  let taken = 0
  const counted = function* (): Generator<Cells[]> {
    for (const part of parts(rows)) {
      yield part
      taken += part.length
      onProgress(Math.min(1, taken / count))
    }
  }
  const batches = counted()
  if (count > ROWS_AT_ONCE && (await takesStreams(tx))) {
    const set = names.length > 0 ? ` SET ${names.map((name) => `${name} = ?`).join(', ')}` : ''
    const stream = (): Readable =>
      Readable.from(
        (async function* () {
          const socket = tx.stream
          for (const part of batches) {
            yield Buffer.from(part.map(line).join(''))
            // The driver takes all that it is given; without waiting, the whole text would stand in the memory.
            // Where the connection is gone the query itself says so.
            if (socket && !(await roomIn(socket))) return
          }
        })(),
        { objectMode: true, highWaterMark: 1 },
      )
    const [result] = await tx.query({
      sql: `LOAD DATA LOCAL INFILE 'rows' INTO TABLE ${table} CHARACTER SET utf8mb4 (${columns.join(', ')})${set}`,
      values: Object.values(constants),
      infileStreamFactory: stream,
    })
    // A stream skips what does not fit instead of failing.
    const { affectedRows } = result as { affectedRows: number }
    if (affectedRows !== count) throw new Error(`${affectedRows} of ${count} rows went into ${table}`)
    return
  }
  for (const part of batches)
    await tx.query(`INSERT INTO ${table} (${[...names, ...columns].join(', ')}) VALUES ?`, [
      part.map((cells) => [...Object.values(constants), ...cells]),
    ])
}

async function takesStreams(tx: Transaction): Promise<boolean> {
  const [rows] = await tx.query("SHOW VARIABLES LIKE 'local_infile'")
  return (rows as { Value: string }[])[0]?.Value === 'ON'
}
