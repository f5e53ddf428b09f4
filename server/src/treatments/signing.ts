import type { Treatment } from '@bocado/contract'
import { sqlInstant, updateRow, type Write } from '../database/index.js'
import { callerAt } from '../http/identity.js'
import { HttpProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { peopleOf } from '../sites/store.js'
import { getTreatment } from './service.js'

/** What is signed, and by which sign-in. */
interface Signing {
  params: { treatmentId: string }
  input: { rowVersion: number }
  token: string
}

/** A code is known to whoever stood beside: a signature takes one's own password or passkey. */
async function requireSelf(w: Write, token: string): Promise<void> {
  const caller = await callerAt(w.tx, token, w.siteId)
  if (caller?.phoneSite !== undefined)
    throw new HttpProblem(403, 'A code is not enough to sign: sign in by your password or passkey. What was recorded stays as a draft.')
}

/** Signs a record by a sign-in of one's own. */
export async function signTreatment(w: Write, deps: Deps, { params: { treatmentId }, input, token }: Signing): Promise<Treatment> {
  await requireSelf(w, token)
  return signRecord(w, deps, treatmentId, input.rowVersion)
}

/**
 * Signs a record as it stands: by somebody whose licence held on the day on which it was done. Whoever corrects it later takes the signature
 * away with that.
 */
export async function signRecord(w: Write, deps: Deps, treatmentId: string, rowVersion: number): Promise<Treatment> {
  const { done } = await getTreatment(w.tx, w.siteId, treatmentId)
  if (!done?.label) throw new HttpProblem(409, 'Only what was done with a product is signed. Record it as done first.')
  const me = (await peopleOf(w.tx, [w.siteId])).get(w.siteId)?.find(({ id }) => id === w.personId)
  if (!me?.licensed)
    throw new HttpProblem(403, 'Signing is for who holds an applicator’s licence. Whoever leads the site notes it under Site, People.')
  if (me.licenceUntil !== null && me.licenceUntil < done.day) throw refusal('licence', 'licence.ended', { until: { day: me.licenceUntil } })
  await updateRow(w, 'deed', treatmentId, rowVersion, {
    signed_by: w.personId,
    signed_at: sqlInstant(await deps.clock.now(w.tx)),
    licence_then: me.licenceNumber,
  })
  return getTreatment(w.tx, w.siteId, treatmentId)
}
