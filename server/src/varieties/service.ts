import type { ParsedInputOf, ResponseOf, VarietyLook, VarietyStanding, varieties } from '@bocado/contract'
import { dayNumber, varietyStandings } from '@bocado/core'
import { insertOnce, restoreRow, updateOnce, type Queryable, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { requireOrganism } from '../library/catalogue.js'
import { getSite, seasonOf } from '../sites/service.js'
import { findVarietyLook, listVarietyLooks, listVarietyNames } from './store.js'
import { liveBlock } from '../places/store.js'

/** How varieties bore an organism here: what was seen, and what it amounts to for each part of the plant. */
export async function varietiesHere(db: Queryable, siteId: string, organismId: string): Promise<ResponseOf<typeof varieties.get>> {
  await requireOrganism(db, siteId, organismId)
  const looks = await listVarietyLooks(db, siteId, organismId)
  const parts = [...new Set(looks.map(({ part }) => part))]
  return {
    looks,
    standings: parts.flatMap((part) => standingsOf(looks.filter((look) => look.part === part))),
    names: await listVarietyNames(db, siteId),
  }
}

/** Looks of one part. The newest look of a variety says to which words of the library it belongs. */
function standingsOf(looks: readonly VarietyLook[]): VarietyStanding[] {
  const standings = varietyStandings(
    looks.map(({ variety, blockId, season, lookedOn, looked, hit }) => ({
      variety,
      place: `${blockId} ${season}`,
      day: dayNumber(lookedOn),
      looked,
      hit,
    })),
  )
  return standings.flatMap((standing) => {
    const newest = looks.find(({ variety }) => variety === standing.variety)
    return newest ? { ...standing, part: newest.part, libraryVariety: newest.libraryVariety } : []
  })
}

type LookInput = Omit<ParsedInputOf<typeof varieties.add>, 'organismId'>

async function columnsOf(w: Write, deps: Deps, organismId: string, input: LookInput) {
  const organism = await requireOrganism(w.tx, w.siteId, organismId)
  if (organism.kind === 'weed') throw fieldProblem('organismId', `${organism.name} is a weed; varieties bear pests and diseases`)
  const said = organism.about.varieties.map(({ what }) => what)
  if (input.libraryVariety !== null && !said.includes(input.libraryVariety))
    throw fieldProblem('libraryVariety', `must be what the library says of ${organism.name}: ${said.join('; ') || 'nothing'}`)
  const block = await liveBlock(w.tx, w.siteId, input.blockId)
  const site = await getSite(w.tx, deps.clock, w.siteId)
  if (input.lookedOn > site.today) throw refusal('lookedOn', 'day.future', { today: { day: site.today } })
  // One variety, one spelling: what is typed in other letters joins the name that is in use.
  const known = (await listVarietyNames(w.tx, w.siteId)).find((name) => name.toLowerCase() === input.variety.toLowerCase())
  const twice = (): HttpProblem =>
    fieldProblem(
      'lookedOn',
      `${input.variety} in ${block['name'] as string} is recorded already for that day and part; correct or remove that record if it is wrong`,
    )
  return {
    twice,
    columns: {
      organism_id: organismId,
      block_id: input.blockId,
      season: seasonOf(site, input.lookedOn),
      variety: known ?? input.variety,
      library_variety: input.libraryVariety,
      part: input.part,
      looked_on: input.lookedOn,
      looked: input.looked,
      hit: input.hit,
      degree: input.degree,
      note: input.note,
    },
  }
}

export async function addVarietyLook(w: Write, deps: Deps, input: ParsedInputOf<typeof varieties.add>): Promise<VarietyLook> {
  const { columns, twice } = await columnsOf(w, deps, input.organismId, input)
  return getLook(w.tx, w.siteId, await insertOnce(w, 'variety_look', columns, twice))
}

export async function changeVarietyLook(
  w: Write,
  deps: Deps,
  lookId: string,
  input: ParsedInputOf<typeof varieties.update>,
): Promise<VarietyLook> {
  const before = await getLook(w.tx, w.siteId, lookId)
  const { columns, twice } = await columnsOf(w, deps, before.organismId, input)
  await updateOnce(w, 'variety_look', lookId, input.rowVersion, columns, twice)
  return getLook(w.tx, w.siteId, lookId)
}

export async function restoreVarietyLook(w: Write, id: string, rowVersion: number): Promise<VarietyLook> {
  await restoreRow(w, 'variety_look', id, rowVersion)
  return getLook(w.tx, w.siteId, id)
}

async function getLook(db: Queryable, siteId: string, id: string): Promise<VarietyLook> {
  const look = await findVarietyLook(db, siteId, id)
  if (!look) throw new HttpProblem(404, 'There is no such look at a variety at this site.')
  return look
}
