import type { Departure, Label, Treatment } from '@bocado/contract'
import { closedBy, dayNumber, holdsOn, permissionsFor, rulesFor, type GateVerdict, type RuledMeans } from '@bocado/core'
import { getBlock } from '../blocks/service.js'
import { inFlowerOn } from '../bloom/blooming.js'
import type { Queryable, Row } from '../database/index.js'
import { coded, type FieldMessage } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { notToldApart } from '../library/toldApart.js'
import { methodsByIds } from '../library/catalogue.js'
import { listPermissions } from '../permissions/store.js'
import { tree, withAbove } from '../places/store.js'
import { rulesAt, writtenAt } from '../rules/service.js'
import { getSite } from '../sites/service.js'
import { peopleOf } from '../sites/store.js'
import { organismOf, type StoredWatch } from '../watches/store.js'
import { gateFor, REFUSALS } from './gate.js'
import { handGate, nameOf, type Means } from './means.js'
import { listProducts, listTreatments } from './store.js'

/** One thing that label, law or a rule of the place says against something: what it is, and the field of a form that it concerns. */
export interface Against {
  because: Departure['because']
  field: FieldMessage
}

/** What is planned or was done: with what, against what, where and on which day. */
export interface Doing {
  means: Means
  watch: StoredWatch
  placeId: string
  day: string
  /** The treatment itself, which does not stand in its own way. */
  except?: string | undefined
}

/** A sentence as it goes over the wire, with what it is about. */
export const said = <B>(because: B, { message, code, values }: FieldMessage) => ({
  because,
  message,
  ...(code === undefined ? {} : { code }),
  ...(values === undefined ? {} : { values: { ...values } }),
})

const against = (because: Against['because'], path: string, message: string): Against => ({ because, field: { path, message } })

/** Whether it is for the organism of a watch, in its block. */
export async function verdictOf(db: Queryable, siteId: string, { product, method }: Means, watch: StoredWatch): Promise<GateVerdict> {
  const organism = organismOf(watch)
  return product ? gateFor(product, organism, await getBlock(db, siteId, watch.blockId)) : handGate(method.id, organism)
}

/** What is not for the organism of a watch, in its block: it is never planned, whoever asks. */
export async function againstFit(db: Queryable, siteId: string, { means, watch }: Pick<Doing, 'means' | 'watch'>): Promise<Against[]> {
  const verdict = await verdictOf(db, siteId, means, watch)
  if (verdict.verdict !== 'refused') return []
  return [against('fit', means.product ? 'productId' : 'methodId', `${nameOf(means)} ${REFUSALS[verdict.because]}`)]
}

/** That nobody has yet told what is treated from something that is protected. */
export async function againstIdentity(db: Queryable, siteId: string, { watch }: Pick<Doing, 'watch'>): Promise<Against[]> {
  const message = await notToldApart(db, siteId, watch)
  return message === null ? [] : [against('identity', 'identity', message)]
}

/** What is planned, as rules of the place tell it apart. */
export async function ruledMeans(db: Queryable, siteId: string, { product, method }: Means): Promise<RuledMeans> {
  const methods = product ? product.methods : [method.id]
  const known = await methodsByIds(db, siteId, methods)
  return { ways: product ? product.ways : null, methods, chemical: known.some(({ kind }) => kind === 'chemical') }
}

/** A day that a rule of the place closes, and chemicals where the site uses none. */
async function againstRules(db: Queryable, deps: Deps, siteId: string, { means, day, placeId }: Doing): Promise<Against[]> {
  const { policy } = await getSite(db, deps.clock, siteId)
  const ruled = await ruledMeans(db, siteId, means)
  const found: Against[] = []
  if (policy.chemicals === 'never' && ruled.chemical && ruled.ways !== null)
    found.push(
      against(
        'policy',
        'productId',
        `${nameOf(means)} is a chemical, and this site uses none: change that under Site, or choose another way to act`,
      ),
    )
  const closed = rulesFor(await rulesAt(db, deps.clock, siteId, placeId), ruled).find((rule) =>
    closedBy(rule, day).some(([from, until]) => from === 0 && until === 24),
  )
  if (closed)
    found.push({
      because: 'rule',
      field: coded('plannedOn', 'rule.closed', { name: closed.name, from: closed.fromDay ?? '', until: closed.untilDay ?? '' }),
    })
  return found
}

/** A day on which something may flower in or beside the place, where the label forbids that. */
async function againstBloom(deps: Deps, siteId: string, { means: { product }, watch, day }: Doing): Promise<Against[]> {
  if (product?.bees !== 'forbidden-in-bloom') return []
  const there = await inFlowerOn(deps, siteId, watch.blockId, day)
  if (there.length === 0) return []
  return [
    against(
      'bloom',
      'plannedOn',
      `the label of ${product.name} forbids it in bloom, and ${there.join(', ')} may flower in or beside the place then: take a later day, mow what flowers the evening before, or choose what spares bees`,
    ),
  ]
}

/** Who plans on the same ground at the same moment waits here, and then sees what the first has planned. */
export async function lockGround(db: Queryable, watch: StoredWatch): Promise<void> {
  await db.query('SELECT id FROM place WHERE id = ? FOR UPDATE', [watch.blockId])
}

/** A day that the label does not allow after or before others on the same block, or one more than it allows. */
async function againstSpacing(db: Queryable, siteId: string, { means: { product }, watch, day, except }: Doing): Promise<Against[]> {
  if (!product) return []
  const { leastIntervalDays: least, mostPerSeason: most, mostAmount } = product
  const [rows] = await db.query<Row[]>('SELECT id FROM watch WHERE site_id = ? AND block_id = ? AND season = ? AND deleted_at IS NULL', [
    siteId,
    watch.blockId,
    watch.season,
  ])
  const here = new Set(rows.map((row) => row['id'] as string))
  const others = (await listTreatments(db, siteId, watch.season)).filter(({ id, watchId }) => id !== except && here.has(watchId))
  const all = others.filter(({ productId }) => productId === product.id)
  // One day’s spray against two watches of the block is one treatment of the ground.
  const days = [...new Set(all.map(({ done, plannedOn }) => done?.day ?? plannedOn))].filter((other) => other !== day)
  const found: FieldMessage[] = []
  const near = days.find((other) => least !== null && Math.abs(dayNumber(other) - dayNumber(day)) < least)
  if (near !== undefined && least !== null)
    found.push(coded('plannedOn', 'label.spaced', { name: product.name, days: least, other: { day: near } }))
  if (most !== null && days.length >= most) found.push(coded('plannedOn', 'label.most-per-season', { name: product.name, most }))
  // The same ground on the same day against two watches is one treatment.
  const rates = new Map(all.flatMap(({ done }) => (done?.rate == null ? [] : [[done.day, done.rate]])))
  const used = [...rates.values()].reduce((sum, rate) => sum + rate, 0)
  if (mostAmount !== null && used >= mostAmount)
    found.push(coded('productId', 'label.most-amount', { name: product.name, most: `${mostAmount} ${product.rateUnit}` }))
  found.push(...(await tooNear(db, siteId, product, others, day)))
  return found.map((field) => ({ because: 'spacing', field }))
}

/** What the label does not bear, planned or done too near to the day on the same ground. */
async function tooNear(db: Queryable, siteId: string, product: Label, others: readonly Treatment[], day: string): Promise<FieldMessage[]> {
  const shelf = new Map((await listProducts(db, siteId)).map((one) => [one.id, one]))
  return others.flatMap((other) => {
    const on = other.done?.day ?? other.plannedOn
    const gap = Math.abs(dayNumber(on) - dayNumber(day))
    const label = other.done?.label ?? shelf.get(other.productId ?? '')
    if (!label || label.id === product.id) return []
    // Either label may ask for it.
    const asks = [
      ...product.notWithin.filter(({ method }) => label.methods.includes(method)).map(({ days }) => ({ name: product.name, days })),
      ...label.notWithin.filter(({ method }) => product.methods.includes(method)).map(({ days }) => ({ name: label.name, days })),
    ].find(({ days }) => gap < days)
    if (!asks) return []
    const named = asks.name === product.name ? label.name : product.name
    return [coded('plannedOn', 'label.not-within', { name: asks.name, days: asks.days, other: named, there: label.name, on: { day: on } })]
  })
}

/** What label and rules say against a day, apart from whether it is for this at all. */
export async function againstDay(db: Queryable, deps: Deps, siteId: string, doing: Doing): Promise<Against[]> {
  return [
    ...(await againstRules(db, deps, siteId, doing)),
    ...(await againstBloom(deps, siteId, doing)),
    ...(await againstSpacing(db, siteId, doing)),
  ]
}

/** Consents, permits and licences that are asked for on a day and missing, or ended. */
export async function againstPermissions(db: Queryable, siteId: string, { means, placeId, day }: Doing): Promise<Against[]> {
  const permissions = await listPermissions(db, siteId)
  const asked = { placeIds: withAbove(await tree(db, siteId), placeId), productId: means.product?.id ?? null, day }
  const found: Against[] = []
  const asking = rulesFor(await writtenAt(db, siteId, placeId), await ruledMeans(db, siteId, means)).filter(
    (rule) => rule.kind === 'consent' && holdsOn(rule, day),
  )
  for (const { id: ruleId, name } of asking) {
    const { holds, ended } = permissionsFor(permissions, { ...asked, kind: 'consent', ruleId })
    if (holds.length > 0) continue
    const field = ended
      ? coded('plannedOn', 'consent.ended', { rule: name, who: ended.byWhom, until: { day: ended.validUntil ?? '' } })
      : coded('plannedOn', 'consent.missing', { rule: name, day: { day } })
    found.push({ because: 'consent', field })
  }
  const { product } = means
  if (product?.needsPermit) {
    const { holds, ended } = permissionsFor(permissions, { ...asked, kind: 'permit', ruleId: null })
    const field = ended
      ? coded('productId', 'permit.ended', { name: product.name, until: { day: ended.validUntil ?? '' } })
      : coded('productId', 'permit.missing', { name: product.name, day: { day } })
    if (holds.length === 0) found.push({ because: 'permit', field })
  }
  if (product?.licensedOnly) {
    const people = (await peopleOf(db, [siteId])).get(siteId) ?? []
    if (!people.some(({ licensed, licenceUntil }) => licensed && (licenceUntil === null || licenceUntil >= day)))
      found.push({ because: 'licence', field: coded('productId', 'licence.missing', { name: product.name, day: { day } }) })
  }
  return found
}
