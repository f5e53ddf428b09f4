import type { Notice, ParsedInputOf, Permission, permissions } from '@bocado/contract'
import { insertRow, liveRow, restoreRow, updateRow, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { tree } from '../places/store.js'
import { listRules } from '../rules/store.js'
import { getSite } from '../sites/service.js'
import { findProduct, findTreatment } from '../treatments/store.js'
import { listPermissions, noticeOf } from './store.js'

type PermissionInput = ParsedInputOf<typeof permissions.add>

async function columnsOf(w: Write, input: PermissionInput) {
  const { ruleId, placeId, productId } = input
  if (ruleId !== null && !(await listRules(w.tx, w.siteId)).some(({ id, kind }) => id === ruleId && kind === 'consent'))
    throw fieldProblem('ruleId', 'choose a rule of this place that asks for consent')
  if (placeId !== null && !(await tree(w.tx, w.siteId)).has(placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  if (productId !== null && !(await findProduct(w.tx, w.siteId, productId)))
    throw fieldProblem('productId', 'choose a product of this site’s shelf')
  return {
    kind: input.kind,
    by_whom: input.byWhom,
    rule_id: input.kind === 'consent' ? ruleId : null,
    place_id: placeId,
    product_id: productId,
    valid_from: input.validFrom,
    valid_until: input.validUntil,
    reference: input.reference,
  }
}

async function getPermission(w: Write, id: string): Promise<Permission> {
  const permission = (await listPermissions(w.tx, w.siteId)).find((one) => one.id === id)
  if (!permission) throw new HttpProblem(404, 'There is no such consent or permit at this site.')
  return permission
}

export const addPermission = async (w: Write, input: PermissionInput): Promise<Permission> =>
  getPermission(w, await insertRow(w, 'permission', await columnsOf(w, input)))

export async function changePermission(w: Write, id: string, input: ParsedInputOf<typeof permissions.update>): Promise<Permission> {
  await updateRow(w, 'permission', id, input.rowVersion, await columnsOf(w, input))
  return getPermission(w, id)
}

export async function restorePermission(w: Write, id: string, rowVersion: number): Promise<Permission> {
  await restoreRow(w, 'permission', id, rowVersion)
  return getPermission(w, id)
}

const getNotice = async (w: Write, id: string): Promise<Notice> => noticeOf(await liveRow(w.tx, w.siteId, 'notice', id))

/** Notes that somebody was told. One is told of what is planned; of what was done it can be noted late. */
export async function giveNotice(w: Write, deps: Deps, input: ParsedInputOf<typeof permissions.giveNotice>): Promise<Notice> {
  if (!(await findTreatment(w.tx, w.siteId, input.treatmentId))) throw fieldProblem('treatmentId', 'name a treatment of this site')
  const { today } = await getSite(w.tx, deps.clock, w.siteId)
  if (input.givenOn > today) throw refusal('givenOn', 'day.future', { today: { day: today } })
  const columns = { treatment_id: input.treatmentId, to_whom: input.toWhom, way: input.way, given_on: input.givenOn }
  return getNotice(w, await insertRow(w, 'notice', columns))
}

export async function restoreNotice(w: Write, id: string, rowVersion: number): Promise<Notice> {
  await restoreRow(w, 'notice', id, rowVersion)
  return getNotice(w, id)
}
