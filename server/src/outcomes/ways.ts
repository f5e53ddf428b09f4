import type { Outcome, Treatment, Way } from '@bocado/contract'
import { evidenceOf, logSdOf } from '@bocado/core'
import { listBlocks } from '../blocks/store.js'
import type { Deps } from '../http/route.js'
import { getSite } from '../sites/service.js'
import { listTreatments } from '../treatments/store.js'
import { listWatches, organismOf, type StoredWatch } from '../watches/store.js'
import { getOutcomes } from './service.js'

type Deed = Way['deeds'][number] & { areaId: string; named: Pick<Way, 'productId' | 'methodId' | 'name' | 'organismId' | 'organismName'> }

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

/** What each way to act did at a site against each organism, all seasons together; what says most comes first. */
export async function getWays(deps: Deps, siteId: string): Promise<Way[]> {
  const [site, blocks] = await Promise.all([getSite(deps.db, deps.clock, siteId), listBlocks(deps.db, siteId)])
  const names = new Map(blocks.map(({ id, name }) => [id, name]))
  const deeds: Deed[] = []
  // One season after the other: each holds the weather of its blocks while it is judged.
  for (const season of site.seasons) deeds.push(...(await deedsOf(deps, siteId, season, names)))
  const ways = new Map<string, Deed[]>()
  for (const deed of deeds) {
    const { productId, methodId, name, organismId } = deed.named
    const key = `${productId ?? methodId ?? name} ${organismId}`
    ways.set(key, [...(ways.get(key) ?? []), deed])
  }
  const judged = ({ evidence }: Way): number => evidence?.deeds ?? 0
  return [...ways.values()]
    .map((own): Way => {
      const newest = own.toSorted((a, b) => b.treatedOn.localeCompare(a.treatedOn))
      const told = own.flatMap(({ areaId, effect }) =>
        effect ? [{ areaId, logLeft: Math.log(1 - effect.value), sd: logSdOf(effect) }] : [],
      )
      return {
        ...(newest[0] as Deed).named,
        deeds: newest.map(({ areaId: _, named: __, ...deed }) => deed),
        evidence: told.length > 0 ? evidenceOf(told) : null,
      }
    })
    .sort((a, b) => judged(b) - judged(a) || a.organismName.localeCompare(b.organismName) || a.name.localeCompare(b.name))
}
