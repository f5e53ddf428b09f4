import type { Departure, ParsedInputOf, treatments } from '@bocado/contract'
import { inStock, rateFor, rulesFor } from '@bocado/core'
import { getBlock } from '../blocks/service.js'
import type { Queryable, Write } from '../database/index.js'
import { listLots, stockUsed } from '../equipment/store.js'
import { coded } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { tree } from '../places/store.js'
import { writtenAt } from '../rules/service.js'
import { againstDay, againstIdentity, againstPermissions, ruledMeans, said, type Against, type Doing } from './allowed.js'
import { entryClosedUntil } from './store.js'

type DoneInput = Pick<ParsedInputOf<typeof treatments.record>, 'startedAt' | 'rate' | 'areaHa' | 'amountUsed' | 'lotId' | 'weather'>

/**
 * Everything that a record departs from: label, law, rules of the place. A record accepts what was done and says what it departs from; one
 * that were refused would be written otherwise than it was.
 */
export async function departuresOf(w: Write, deps: Deps, doing: Doing, input: DoneInput): Promise<Departure[]> {
  const all = [
    ...(await againstIdentity(w.tx, w.siteId, doing)),
    ...(await againstDay(w.tx, deps, w.siteId, doing)),
    ...(await againstPermissions(w.tx, w.siteId, doing)),
    ...(await againstEntry(w.tx, w.siteId, doing, new Date(input.startedAt))),
    ...(await againstRate(w.tx, w.siteId, doing, input)),
    ...(await againstWeather(w.tx, w.siteId, doing, input)),
    ...(await againstLot(w.tx, w.siteId, doing, input)),
  ]
  return all.map(({ because, field }) => said(because, field))
}

/** Ground that nobody may enter at a moment, by what was used there before. */
export async function againstEntry(db: Queryable, siteId: string, { watch, except }: Doing, at: Date): Promise<Against[]> {
  const until = await entryClosedUntil(db, siteId, watch.blockId, at, except ?? null)
  if (until === null) return []
  const place = (await tree(db, siteId)).get(watch.blockId)?.name ?? ''
  const moment = new Date(until).toISOString()
  return [{ because: 're-entry', field: coded('startedAt', 're-entry.running', { place, until: { moment } }) }]
}

async function againstRate(db: Queryable, siteId: string, { means: { product }, watch }: Doing, { rate }: DoneInput): Promise<Against[]> {
  if (!product || rate === null) return []
  const { grows } = await getBlock(db, siteId, watch.blockId)
  const most = rateFor(product, watch.organismId, grows)
  if (rate <= most) return []
  return [{ because: 'rate', field: coded('rate', 'label.rate-above', { name: product.name, most: `${most} ${product.rateUnit}` }) }]
}

/** Wind and temperature as they were measured, against those of the label and the rules. */
async function againstWeather(db: Queryable, siteId: string, { means, placeId }: Doing, { weather }: DoneInput): Promise<Against[]> {
  const { product } = means
  const found: Against[] = []
  const rules = rulesFor(await writtenAt(db, siteId, placeId), await ruledMeans(db, siteId, means)).filter(
    (rule) => rule.kind === 'wind' && rule.amount !== null,
  )
  const most = Math.min(product?.maxWindMs ?? Infinity, ...rules.map(({ amount }) => amount ?? Infinity))
  if (weather.windMs !== null && weather.windMs > most)
    found.push({
      because: 'wind',
      field: coded('weather.windMs', 'label.wind-above', { wind: { si: weather.windMs, unit: 'm/s' }, most: { si: most, unit: 'm/s' } }),
    })
  const [from, to] = [product?.minTempC ?? null, product?.maxTempC ?? null]
  const { tempC } = weather
  if (product && tempC !== null && ((from !== null && tempC < from) || (to !== null && tempC > to)))
    found.push({
      because: 'temperature',
      field: coded('weather.tempC', 'label.temperature-outside', {
        name: product.name,
        from: from === null ? '–' : { si: from, unit: '°C' },
        to: to === null ? '–' : { si: to, unit: '°C' },
        was: { si: tempC, unit: '°C' },
      }),
    })
  return found
}

/** A lot that was over on the day, or of which more was used than was left by the book. */
async function againstLot(db: Queryable, siteId: string, { means: { product }, day, except }: Doing, input: DoneInput): Promise<Against[]> {
  if (!product || input.lotId === null) return []
  const lot = (await listLots(db, siteId, except ?? null)).find(({ id }) => id === input.lotId)
  if (!lot) return []
  const found: Against[] = []
  if (lot.expiresOn !== null && lot.expiresOn < day)
    found.push({
      because: 'lot',
      field: coded('lotId', 'lot.ended', { lot: lot.number, name: product.name, until: { day: lot.expiresOn } }),
    })
  const used = stockUsed({ typed: input.amountUsed, rate: input.rate, areaHa: input.areaHa }, product.rateUnit)
  const left = lot.left === null ? null : inStock(lot.left, lot.unit).amount
  if (used !== null && left !== null && used > left * (1 + BY_ROUNDING))
    found.push({
      because: 'stock',
      field: coded('lotId', 'stock.short', { name: product.name, left: `${Math.max(0, lot.left ?? 0).toFixed(2)} ${lot.unit}` }),
    })
  return found
}

/** What is left of a lot is weighed, and never quite what the book says. */
const BY_ROUNDING = 0.01
