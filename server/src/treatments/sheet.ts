import type { JobSheet, Treatment } from '@bocado/contract'
import {
  civilDate,
  dayNumber,
  holdsOn,
  LABEL_READ_AGAIN_DAYS,
  MS_PER_MINUTE,
  permissionsFor,
  rateFor,
  rulesFor,
  inStock,
} from '@bocado/core'
import { hectaresFromSquareMetres } from '@bocado/core/units'
import { getBlock } from '../blocks/service.js'
import { zoneOffsetMinutes } from '../clock.js'
import { listLots, stockUsed } from '../equipment/store.js'
import { coded, HttpProblem, type FieldMessage } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { listNotices, listPermissions } from '../permissions/store.js'
import { tree, withAbove } from '../places/store.js'
import { writtenAt } from '../rules/service.js'
import { getSite } from '../sites/service.js'
import { findWatch } from '../watches/store.js'
import { againstDay, againstFit, againstIdentity, againstPermissions, ruledMeans, said, type Doing } from './allowed.js'
import { againstEntry } from './departures.js'
import { keptFromDrift } from './drift.js'
import { meansOf } from './chosen.js'
import type { Means } from './means.js'
import { findTreatment } from './store.js'

type Stop = JobSheet['stops'][number]
type Warning = JobSheet['warnings'][number]

/** With what it is done, by the label as it stands on the shelf today; null where that, or the method, is there no more. */
async function meansNow(deps: Deps, siteId: string, treatment: Treatment): Promise<Means | null> {
  try {
    return await meansOf(deps.db, siteId, treatment)
  } catch (error) {
    if (error instanceof HttpProblem && error.status === 422) return null
    throw error
  }
}

const GONE: FieldMessage = {
  path: 'productId',
  message: 'what this was planned with is no longer on the shelf: put it there again, or plan it with something else',
}

/** What stops a planned treatment on its day, what speaks against it, and which consents and notices it has. */
export async function jobSheetOf(deps: Deps, siteId: string, treatmentId: string): Promise<JobSheet> {
  const { db } = deps
  const treatment = await findTreatment(db, siteId, treatmentId)
  if (!treatment) throw new HttpProblem(404, 'There is no such treatment at this site.')
  if (treatment.status === 'done') throw new HttpProblem(409, 'This is recorded as done: there is nothing to prepare any more.')
  const watch = await findWatch(db, siteId, treatment.watchId)
  if (!watch) throw new HttpProblem(404, 'What this was planned against is no longer watched.')
  const site = await getSite(db, deps.clock, siteId)
  const now = await deps.clock.now(db)
  const means = await meansNow(deps, siteId, treatment)
  const notices = await listNotices(db, siteId, treatmentId)
  if (!means) return { asOf: now.toISOString(), stops: [said('fit', GONE)], warnings: [], permissions: [], notices, downwind: [] }
  const day = treatment.plannedOn
  const doing: Doing = { means, watch, placeId: treatment.placeId, day, except: treatment.id }
  // Of a day to come nobody knows the hour: what is still closed as it begins may be open by then only if that is said.
  const begins = new Date(Date.parse(`${day}T00:00:00Z`))
  const at = day <= site.today ? now : new Date(begins.getTime() - zoneOffsetMinutes(begins, site.timeZone) * MS_PER_MINUTE)
  const stops = [
    ...(await againstFit(db, siteId, doing)),
    ...(await againstIdentity(db, siteId, doing)),
    ...(await againstDay(db, deps, siteId, doing)),
    ...(await againstPermissions(db, siteId, doing)),
    ...(await againstEntry(db, siteId, doing, at)),
  ].map(({ because, field }) => said(because as Stop['because'], field))
  const asked = { placeIds: withAbove(await tree(db, siteId), treatment.placeId), productId: means.product?.id ?? null, day }
  const all = await listPermissions(db, siteId)
  const block = await getBlock(db, siteId, watch.blockId)
  const used = { product: means.product, methods: means.product?.methods ?? [] }
  return {
    asOf: now.toISOString(),
    stops,
    warnings: [
      ...(await noticesMissing(deps, siteId, doing, notices.length)),
      ...(await ofStock(deps, siteId, doing, treatment)),
      ...ofLabel(doing, site.today),
    ],
    permissions: (['consent', 'permit'] as const).flatMap((kind) =>
      all.filter((one) => permissionsFor([{ ...one, ruleId: null }], { ...asked, kind, ruleId: null }).holds.length > 0),
    ),
    notices,
    downwind: await keptFromDrift(db, siteId, block, used, treatment.placeId),
  }
}

async function noticesMissing({ db }: Deps, siteId: string, { means, day, placeId }: Doing, given: number): Promise<Warning[]> {
  if (given > 0) return []
  const asking = rulesFor(await writtenAt(db, siteId, placeId), await ruledMeans(db, siteId, means)).filter(
    (rule) => rule.kind === 'notice' && holdsOn(rule, day),
  )
  return asking.map(({ name, amount }) =>
    said('notice' as const, coded('plannedOn', 'notice.missing', { rule: name, by: { day: civilDate(dayNumber(day) - (amount ?? 0)) } })),
  )
}

/** Lots that are over by the day, and less on the shelf than the whole place would take at the label's rate. */
async function ofStock(
  { db }: Deps,
  siteId: string,
  { means: { product }, watch, placeId, day }: Doing,
  { name }: Treatment,
): Promise<Warning[]> {
  if (!product) return []
  const lots = (await listLots(db, siteId)).filter(({ productId, left }) => productId === product.id && (left === null || left > 0))
  if (lots.length === 0) return []
  const good = lots.filter(({ expiresOn }) => expiresOn === null || expiresOn >= day)
  const over = lots.find((lot) => !good.includes(lot))
  const found: Warning[] = []
  if (over) found.push(said('lot' as const, coded('lotId', 'lot.ended', { lot: over.number, name, until: { day: over.expiresOn ?? '' } })))
  const { areaM2 } = (await tree(db, siteId)).get(placeId) ?? { areaM2: null }
  const { grows } = await getBlock(db, siteId, watch.blockId)
  const rate = rateFor(product, watch.organismId, grows)
  const needed = areaM2 === null ? null : stockUsed({ typed: null, rate, areaHa: hectaresFromSquareMetres(areaM2) }, product.rateUnit)
  const left = good.every((lot) => lot.left !== null) ? good.reduce((sum, lot) => sum + inStock(lot.left ?? 0, lot.unit).amount, 0) : null
  const [first] = lots
  if (needed !== null && left !== null && needed > left && first)
    found.push(
      said(
        'stock' as const,
        coded('lotId', 'stock.short', { name, left: `${(left / inStock(1, first.unit).amount).toFixed(2)} ${first.unit}` }),
      ),
    )
  return found
}

function ofLabel({ means: { product }, day }: Doing, today: string): Warning[] {
  const found: Warning[] = []
  if (day < today) found.push(said('day' as const, coded('plannedOn', 'day.over', { day: { day } })))
  if (product?.readOn != null && dayNumber(today) - dayNumber(product.readOn) > LABEL_READ_AGAIN_DAYS)
    found.push(said('label-old' as const, coded('productId', 'label.read-long-ago', { name: product.name, on: { day: product.readOn } })))
  return found
}
