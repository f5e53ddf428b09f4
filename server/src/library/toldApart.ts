import type { ParsedInputOf, ToldApart, library } from '@bocado/contract'
import { identityVerdict, toldApart, type CharacterAnswer } from '@bocado/core'
import type { Organism } from '@bocado/library'
import type { Queryable, Write } from '../database/index.js'
import { HttpProblem, fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { findWatch, organismOf, type StoredWatch } from '../watches/store.js'
import { addCheck, listChecks } from './identity.js'

type Where = Pick<StoredWatch, 'organismId' | 'blockId' | 'season'>

/** What was answered of an organism in a block this season: later answers stand, those of the whole site count as well. */
async function answersOf(db: Queryable, siteId: string, watch: Where) {
  const checks = (await listChecks(db, siteId, watch.organismId)).filter(
    ({ blockId, checkedOn }) => (blockId === null || blockId === watch.blockId) && checkedOn >= watch.season,
  )
  const answers: Record<string, CharacterAnswer> = {}
  for (const check of [...checks].reverse()) Object.assign(answers, check.answers)
  return { answers, checkedOn: checks[0]?.checkedOn ?? null }
}

function stateOf({ about, hazards }: Organism, answers: Readonly<Record<string, CharacterAnswer>>, checkedOn: string | null): ToldApart {
  const { characters, lookAlikes } = about.identity
  const plain = characters.map(({ id, others, decisive, by }) => ({ id, others: others.of, decisive, by }))
  const burning = { itself: hazards.some(({ touch }) => touch), lookAlikes: lookAlikes.filter(({ burns }) => burns).map(({ id }) => id) }
  const { later } = identityVerdict(
    plain,
    lookAlikes.map(({ id }) => id),
    answers,
    burning,
  )
  const { state, character, open } = toldApart(plain, lookAlikes, answers, later.length === 0)
  const whole = characters.find(({ id }) => id === character?.id)
  return {
    state,
    open: open.map((id) => lookAlikes.find((l) => l.id === id)?.name ?? id),
    character: whole
      ? { id: whole.id, ask: whole.ask, here: whole.here, others: { text: whole.others.text, drawing: whole.others.drawing } }
      : null,
    checkedOn,
  }
}

/** Whether what is watched has been told from its protected look-alikes in its block and season. */
export async function toldApartOf(db: Queryable, siteId: string, watch: StoredWatch): Promise<ToldApart> {
  const { answers, checkedOn } = await answersOf(db, siteId, watch)
  return stateOf(organismOf(watch), answers, checkedOn)
}

async function watchOf(db: Queryable, siteId: string, watchId: string): Promise<StoredWatch> {
  const watch = await findWatch(db, siteId, watchId)
  if (!watch) throw new HttpProblem(404, 'There is no such watch at this site.')
  return watch
}

/** As `toldApartOf`, by the id of the watch. */
export const getToldApart = async ({ db }: Deps, siteId: string, watchId: string): Promise<ToldApart> =>
  toldApartOf(db, siteId, await watchOf(db, siteId, watchId))

/** Keeps what was seen of a character as a check of identity, with what was answered before. */
export async function tellApart(w: Write, deps: Deps, watchId: string, input: ParsedInputOf<typeof library.tellApart>): Promise<ToldApart> {
  const watch = await watchOf(w.tx, w.siteId, watchId)
  const { characters } = organismOf(watch).about.identity
  if (!characters.some(({ id }) => id === input.characterId))
    throw fieldProblem('characterId', `must be one of ${characters.map(({ id }) => id).join(', ')}`)
  const { answers } = await answersOf(w.tx, w.siteId, watch)
  const all = { ...answers, [input.characterId]: input.answer }
  await addCheck(w, deps, {
    organismId: watch.organismId,
    blockId: watch.blockId,
    answers: all,
    photo: null,
    checkedOn: null,
    made: null,
    note: '',
  })
  return toldApartOf(w.tx, w.siteId, watch)
}

/** Why nothing is done against it yet: it has not been told from a look-alike that is to be protected. Null where it has. */
export async function notToldApart(db: Queryable, siteId: string, watch: StoredWatch): Promise<string | null> {
  const { state, open, character } = await toldApartOf(db, siteId, watch)
  if (state === 'clear') return null
  const names = open.join(', ')
  if (state === 'ask') return `look first whether it is not ${names}, which is to be protected: ${character?.ask ?? ''}`
  return state === 'other'
    ? `what was seen speaks for ${names}, which is to be protected: leave it, or look again`
    : `nobody could tell it from ${names}, which is to be protected: ask somebody who knows`
}

/** Refuses to plan against what has not been told from a look-alike that is to be protected. */
export async function requireToldApart(w: Write, watch: StoredWatch): Promise<void> {
  const message = await notToldApart(w.tx, w.siteId, watch)
  if (message !== null) throw fieldProblem('identity', message)
}
