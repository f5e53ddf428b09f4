import type { Outcome, Treatment, Trial, Way } from '@bocado/contract'
import { evidenceOf, logSdOf } from '@bocado/core'
import { listBlocks } from '../blocks/store.js'
import type { Queryable } from '../database/index.js'
import type { Deps } from '../http/route.js'
import { methodsOf, organismsOf } from '../library/catalogue.js'
import { getSite } from '../sites/service.js'
import { listProducts, listTreatments } from '../treatments/store.js'
import { listTrials } from '../trials/store.js'
import { listWatches, organismOf, type StoredWatch } from '../watches/store.js'
import { getOutcomes } from './service.js'

type Named = Pick<Way, 'productId' | 'methodId' | 'name' | 'organismId' | 'organismName'>
type Deed = Way['deeds'][number] & { areaId: string; named: Named }

/** What was judged too early says nothing of a way yet. */
const effectOf = ({ comparison, isEarly }: Outcome): Deed['effect'] =>
  comparison && !isEarly ? { value: comparison.hendersonTilton.value, ...comparison.hendersonTilton.withAreas } : null

function deedOf(outcome: Outcome, treatment: Treatment, watch: StoredWatch, season: string, blockName: string): Deed {
  const { productId, methodId, name } = treatment
  return {
    treatmentId: treatment.id,
    season,
    treatedOn: outcome.treatedOn,
    blockId: watch.blockId,
    blockName,
    effect: effectOf(outcome),
    coverage: outcome.coverage?.p50 ?? null,
    areaId: watch.blockId,
    named: {
      productId,
      methodId: productId === null ? methodId : null,
      name,
      organismId: watch.organismId,
      organismName: organismOf(watch).name,
    },
  }
}

async function deedsOf(deps: Deps, siteId: string, season: string, blocks: ReadonlyMap<string, string>): Promise<Deed[]> {
  const [outcomes, watches, treatments] = await Promise.all([
    getOutcomes(deps, siteId, season),
    listWatches(deps.db, siteId, season),
    listTreatments(deps.db, siteId, season),
  ])
  return outcomes.flatMap((outcome) => {
    const watch = watches.find(({ id }) => id === outcome.watchId)
    const treatment = treatments.find(({ id }) => id === outcome.treatmentId)
    return watch && treatment ? [deedOf(outcome, treatment, watch, season, blocks.get(watch.blockId) ?? '')] : []
  })
}

/** The trials that say something of a way to act, and of which. */
async function judgedTrials(db: Queryable, siteId: string): Promise<{ trial: Trial; named: Named }[]> {
  const [trials, methods, products, organisms] = await Promise.all([
    listTrials(db, siteId),
    methodsOf(db, siteId),
    listProducts(db, siteId),
    organismsOf(db, siteId),
  ])
  return trials.flatMap((trial) => {
    const { productId, methodId, organismId, result } = trial
    const way = productId ?? methodId
    if (result === null || organismId === null || way === null) return []
    // What was taken off the shelf, or out of the own library, keeps the words under which it was tried.
    const name = [...products, ...methods].find(({ id }) => id === way)?.name ?? trial.what
    const organismName = organisms.find(({ id }) => id === organismId)?.name ?? organismId
    return [{ trial, named: { productId, methodId, name, organismId, organismName } }]
  })
}

/** What each way to act did at a site against each organism, all seasons together; what says most comes first. */
export async function getWays(deps: Deps, siteId: string): Promise<Way[]> {
  const [site, blocks] = await Promise.all([getSite(deps.db, deps.clock, siteId), listBlocks(deps.db, siteId)])
  const names = new Map(blocks.map(({ id, name }) => [id, name]))
  const deeds: Deed[] = []
  // One season after the other: each holds the weather of its blocks while it is judged.
  for (const season of site.seasons) deeds.push(...(await deedsOf(deps, siteId, season, names)))
  const ways = new Map<string, { deeds: Deed[]; trials: Trial[]; named: Named }>()
  const wayOf = (named: Named) => {
    const key = `${named.productId ?? named.methodId ?? named.name} ${named.organismId}`
    const way = ways.get(key) ?? { deeds: [], trials: [], named }
    ways.set(key, way)
    return way
  }
  for (const deed of deeds) wayOf(deed.named).deeds.push(deed)
  for (const { trial, named } of await judgedTrials(deps.db, siteId)) wayOf(named).trials.push(trial)
  const judged = ({ evidence, trials }: Way): number => (evidence?.deeds ?? 0) + trials.length
  return [...ways.values()]
    .map(({ deeds: own, trials, named }): Way => {
      const newest = own.toSorted((a, b) => b.treatedOn.localeCompare(a.treatedOn))
      const told = own.flatMap(({ areaId, effect }) =>
        effect ? [{ areaId, logLeft: Math.log(1 - effect.value), sd: logSdOf(effect) }] : [],
      )
      return {
        ...(newest[0]?.named ?? named),
        deeds: newest.map(({ areaId: _, named: __, ...deed }) => deed),
        trials,
        evidence: told.length > 0 ? evidenceOf(told) : null,
      }
    })
    .sort((a, b) => judged(b) - judged(a) || a.organismName.localeCompare(b.organismName) || a.name.localeCompare(b.name))
}
