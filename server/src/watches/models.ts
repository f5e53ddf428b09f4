import { createHash } from 'node:crypto'
import type { ModelFigure } from '@bocado/contract'
import { resolveEvents, type OrganismModel } from '@bocado/core'
import {
  expectedFigures,
  forecastFigures,
  modelOf,
  restsOnPlaceholder,
  type Confidence,
  type NamedFigure,
  type Organism,
} from '@bocado/library'
import { insertRow, removeRow, updateRow, type Queryable, type Row, type Write } from '../database/index.js'
import { requireOrganism } from '../library/catalogue.js'
import { HttpProblem, fieldProblem, refusal } from '../http/problems.js'
import { liveBlock } from '../places/store.js'

/** A number of the library for which a site has its own. */
export interface OwnFigure {
  path: string
  value: number
  reason: string
  /** The block for which alone it holds; null for the whole site. */
  blockId: string | null
  /** Whether it was fitted to the block's records; then it lies over what a person set. */
  fitted: boolean
}

/** A model as a watch is pinned to it: the numbers, how sure the least sure of them is, and which are the site's own. */
export interface PinnedModel extends OrganismModel {
  confidence?: Confidence
  /** How sure the expected biofix is, which counts as long as none is entered. */
  expectedConfidence?: Confidence
  own?: readonly OwnFigure[]
}

export interface ResolvedModel {
  /** Library entry and version. */
  name: string
  organism: Organism
  pinned: PinnedModel
  hash: string
}

const allFigures = (organism: Organism): NamedFigure[] => [...forecastFigures(organism), ...expectedFigures(organism)]

function leastSure(figures: readonly NamedFigure[], others: readonly Confidence[]): Confidence {
  const found = new Set([...figures.map(({ quantity }) => quantity.confidence), ...others])
  return found.has('placeholder') ? 'placeholder' : found.has('approximate') ? 'approximate' : 'established'
}

/** The library entry with the site's own numbers laid over it. Such a number is approximate: the site answers for it. */
export function withOwn(entry: Organism, own: readonly OwnFigure[]): Organism {
  const organism = structuredClone(entry)
  for (const { path, value } of own) {
    const figure = allFigures(organism).find((f) => f.path === path)
    if (figure) Object.assign(figure.quantity, { value, confidence: 'approximate', region: 'this site', source: { kind: 'none' } })
  }
  return organism
}

export const hashOf = (model: unknown): string => createHash('sha256').update(JSON.stringify(model)).digest('hex')

function resolve(entry: Organism, own: readonly OwnFigure[]): ResolvedModel {
  const organism = withOwn(entry, own)
  const statements: Confidence[] = [organism.heat.confidence, ...(organism.infection ? [organism.infection.confidence] : [])]
  const pinned: PinnedModel = {
    ...modelOf(organism),
    confidence: restsOnPlaceholder(organism) ? 'placeholder' : leastSure(forecastFigures(organism), statements),
    expectedConfidence: leastSure(expectedFigures(organism), []),
    ...(own.length > 0 ? { own } : {}),
  }
  return { name: `${entry.id}@${entry.version}`, organism, pinned, hash: hashOf(pinned) }
}

export interface StoredFigure extends OwnFigure {
  id: string
  organismId: string
  rowVersion: number
}

/** A figure as it is stored, or as it would be. */
type SomeFigure = Omit<StoredFigure, 'id' | 'rowVersion'>

export async function listOwnFigures(db: Queryable, siteId: string): Promise<StoredFigure[]> {
  const [rows] = await db.query<Row[]>('SELECT * FROM own_figure WHERE site_id = ? AND deleted_at IS NULL ORDER BY path', [siteId])
  return rows.map((row) => ({
    id: row['id'] as string,
    organismId: row['organism_id'] as string,
    blockId: row['block_id'] as string | null,
    fitted: row['evidence'] !== null,
    path: row['path'] as string,
    value: row['value'] as number,
    reason: row['reason'] as string,
    rowVersion: row['row_version'] as number,
  }))
}

/**
 * The numbers that hold in a block: the site's, over them the block's own, and over these what was fitted to the block's records.
 * null asks for those of the whole site.
 */
function ownOf(figures: readonly SomeFigure[], organismId: string, blockId: string | null): OwnFigure[] {
  const own = new Map<string, OwnFigure>()
  const layers = figures.filter((f) => f.organismId === organismId && (f.blockId === null || f.blockId === blockId))
  const height = (f: SomeFigure): number => (f.fitted ? 2 : f.blockId === null ? 0 : 1)
  for (const { path, value, reason, blockId: scope, fitted } of layers.toSorted((a, b) => height(a) - height(b)))
    own.set(path, { path, value, reason, blockId: scope, fitted })
  return [...own.values()].sort((a, b) => a.path.localeCompare(b.path))
}

/** Library entry, then the site's own numbers, then the block's, then what was fitted to its records, resolved into one model. */
export const resolvedModel = (organism: Organism, figures: readonly StoredFigure[], blockId: string): ResolvedModel =>
  resolve(organism, ownOf(figures, organism.id, blockId))

/** The same without what was fitted: the numbers that records are held against. */
export const modelBeforeRecords = (organism: Organism, figures: readonly StoredFigure[], blockId: string): ResolvedModel =>
  resolvedModel(
    organism,
    figures.filter(({ fitted }) => !fitted),
    blockId,
  )

/** Every number of a library entry, with those of `own` in their place. */
export function figuresOf(entry: Organism, own: readonly OwnFigure[]): ModelFigure[] {
  const library = new Map(allFigures(entry).map(({ path, quantity }) => [path, quantity.value]))
  return allFigures(withOwn(entry, own)).map(({ path, quantity }) => {
    const mine = own.find((f) => f.path === path)
    return {
      path,
      ...quantity,
      own: mine ? { libraryValue: library.get(path) as number, reason: mine.reason, blockId: mine.blockId, fitted: mine.fitted } : null,
    }
  })
}

/** What one person says of several numbers at once. */
interface OwnFigures {
  figures: readonly Pick<OwnFigure, 'path' | 'value'>[]
  reason: string
  blockId: string | null
}

/**
 * Puts values of the site's own, or of one block's, in place of the library's, with their reason. They are checked together, so that
 * the order in which they were typed does not matter.
 *
 * @param evidence What they were fitted to; then they lie over what a person set.
 */
export async function setOwnFigures(
  w: Write,
  organismId: string,
  { figures, reason, blockId }: OwnFigures,
  evidence?: unknown,
): Promise<ModelFigure[]> {
  const entry = await requireOrganism(w.tx, w.siteId, organismId)
  const fitted = evidence !== undefined
  const paths = figures.map(({ path }) => path)
  const unknown = paths.find((path) => !allFigures(entry).some((f) => f.path === path))
  if (unknown !== undefined) throw fieldProblem('path', `${unknown} is no number of this organism`)
  if (blockId !== null) await liveBlock(w.tx, w.siteId, blockId)
  const stored = await listOwnFigures(w.tx, w.siteId)
  const here = stored.filter((f) => f.organismId === organismId && paths.includes(f.path) && f.blockId === blockId)
  // What a person sets for a block after its records were fitted is meant to hold: the fitted number gives way.
  const gone = fitted ? [] : here.filter((f) => f.fitted)
  for (const { id, rowVersion } of gone) await removeRow(w, 'own_figure', id, rowVersion)
  const replaced = here.filter((f) => f.fitted === fitted)
  const after = [
    ...stored.filter((f) => !gone.includes(f) && !replaced.includes(f)),
    ...figures.map(({ path, value }) => ({ organismId, path, value, reason, blockId, fitted })),
  ]
  requireUsable(entry, after, blockId)
  for (const { path, value } of figures) {
    const before = replaced.find((f) => f.path === path)
    const columns = { organism_id: organismId, block_id: blockId, path, value, reason, evidence: fitted ? JSON.stringify(evidence) : null }
    if (before) await updateRow(w, 'own_figure', before.id, before.rowVersion, columns)
    else await insertRow(w, 'own_figure', columns)
  }
  return figuresOf(entry, ownOf(after, organismId, blockId))
}

/** Goes back by one layer: from what was fitted to what a person set, from there to the library. */
export async function dropOwnFigure(w: Write, organismId: string, path: string, blockId: string | null): Promise<ModelFigure[]> {
  const stored = await listOwnFigures(w.tx, w.siteId)
  const here = stored.filter((f) => f.organismId === organismId && f.path === path && f.blockId === blockId)
  const before = here.find(({ fitted }) => fitted) ?? here[0]
  if (!before) throw new HttpProblem(404, 'There is no value of its own for this number here.')
  const entry = await requireOrganism(w.tx, w.siteId, organismId)
  // What is left has to make a model, too: a number may hold only because of the one that goes.
  const left = stored.filter((f) => f !== before)
  requireUsable(entry, left, blockId)
  await removeRow(w, 'own_figure', before.id, before.rowVersion)
  return figuresOf(entry, ownOf(left, organismId, blockId))
}

/** Throws where numbers would make no model: in the block for which they hold, or for the whole site and in every block with its own. */
function requireUsable(entry: Organism, figures: readonly SomeFigure[], blockId: string | null): void {
  const blocks = figures.flatMap((f) => (f.organismId === entry.id && f.blockId !== null ? f.blockId : []))
  for (const scope of blockId === null ? new Set([null, ...blocks]) : [blockId]) requireModel(entry, ownOf(figures, entry.id, scope))
}

function requireModel(entry: Organism, own: readonly OwnFigure[]): void {
  const { pinned } = resolve(entry, own)
  const { heat } = pinned
  if (heat.upper !== undefined && heat.upper <= heat.lower)
    throw refusal('value', 'heat.no-range', { lower: { si: heat.lower, unit: '°C' }, upper: { si: heat.upper, unit: '°C' } })
  for (const { path, quantity } of allFigures(withOwn(entry, own))) {
    if (quantity.unit === 'share' && (quantity.value <= 0 || quantity.value >= 1))
      throw fieldProblem('value', `of ${path} must lie between 0 and 1, got ${quantity.value}`)
    if (/Se$|spread$|slope$|median$|shape$/.test(path) && quantity.value <= 0)
      throw fieldProblem('value', `of ${path} must be above 0, got ${quantity.value}`)
  }
  try {
    resolveEvents(pinned)
  } catch (error) {
    if (error instanceof RangeError) throw fieldProblem('value', `does not make a model: ${error.message}`)
    throw error
  }
}
