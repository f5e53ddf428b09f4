import type { Flag, flags as flagOperations, FlagVisit, ParsedInputOf, ResponseOf, Search, Site } from '@bocado/contract'
import { bankAlive, civilDate, cleanLooks, dayNumber, detectability, flagState, smallerAtFlower, type Flowering } from '@bocado/core'
import type { Organism } from '@bocado/library'
import { grouped, type Queryable } from '../database/index.js'
import type { Deps } from '../http/route.js'
import { methodsOf, organismsOf } from '../library/catalogue.js'
import { getSite } from '../sites/service.js'
import { tree } from '../places/store.js'
import { absentOf, looksAt, withinOf, type Look } from './looks.js'
import { listFlags, listSearches, listSecondLooks, listVisits, type StoredFlag, type StoredVisit } from './store.js'

/** How long what lies in the soil of an organism lives; null where the library does not say. */
export const bankYears = (organism: Organism | undefined) =>
  organism?.bank ? { shortest: organism.bank.shortest.value, longest: organism.bank.longest.value } : null

/** What is known of the flags of a site on a day, and of the searches before it. */
export async function flagsOf(
  { db, clock }: Deps,
  siteId: string,
  { on }: ParsedInputOf<typeof flagOperations.list>,
): Promise<ResponseOf<typeof flagOperations.list>> {
  const site = await getSite(db, clock, siteId)
  const day = on !== undefined && on < site.today ? on : site.today
  const [stored, visits, searches, secondLooks, places, organisms, methods] = await Promise.all([
    listFlags(db, siteId),
    listVisits(db, siteId, day),
    listSearches(db, siteId, day),
    listSecondLooks(db, siteId, day),
    tree(db, siteId),
    organismsOf(db, siteId),
    methodsOf(db, siteId),
  ])
  const organism = new Map(organisms.map((one) => [one.id, one]))
  const methodName = new Map(methods.map(({ id, name }) => [id, name]))
  const byFlag = grouped(visits, ({ flagId }) => flagId)
  const detect = [...grouped(secondLooks, ({ organismId }) => organismId)].flatMap(([organismId, looks]) => {
    const known = detectability(looks)
    return known ? [{ organismId, ...known }] : []
  })
  const isWithin = withinOf(places)
  const nameOf = (id: string): string => organism.get(id)?.name ?? id
  const known = stored.flatMap((flag): Flag[] => {
    const seen = byFlag.get(flag.id)
    if (!seen) return []
    const name = flag.organismId === null ? null : nameOf(flag.organismId)
    const looks = looksAt(flag, seen, searches, isWithin)
    const share = detect.find(({ organismId }) => organismId === flag.organismId)?.lower
    return [
      { ...flagOf(flag, name, seen, looks, organism.get(flag.organismId ?? ''), methodName), absent: absentOf(looks, flag.prior, share) },
    ]
  })
  return {
    flags: known,
    searches: searches.map((search): Search => ({ ...search, organismNames: search.organismIds.map(nameOf) })),
    detect,
    secondLooks: secondLooks.map((look) => ({ ...look, organismName: nameOf(look.organismId) })),
    years: yearsOf(stored, visits),
    smaller: smallerOf(stored, byFlag, organism, site, day),
  }
}

function flagOf(
  flag: StoredFlag,
  organismName: string | null,
  seen: readonly StoredVisit[],
  looks: readonly Look[],
  organism: Organism | undefined,
  methodName: ReadonlyMap<string, string>,
): Omit<Flag, 'absent'> {
  const alive = bankAlive(looks, bankYears(organism))
  const visits = seen
    .map(({ flagId: _, season: __, ...visit }): FlagVisit => ({
      ...visit,
      methodName: visit.methodId === null ? null : (methodName.get(visit.methodId) ?? visit.methodId),
    }))
    .reverse()
  const last = visits[0] as FlagVisit
  return {
    ...flag,
    organismName,
    foundOn: (seen[0] as StoredVisit).seenOn,
    state: flagState(looks),
    cleanLooks: cleanLooks(looks),
    bankAlive: alive && organism?.bank ? { of: organism.bank.of, from: civilDate(alive.from), until: civilDate(alive.until) } : null,
    last,
    // A day to look again is that of the newest visit: whoever came since has set another, or none.
    dueOn: last.dueOn,
    visits,
  }
}

const isUp = ({ sight }: Pick<FlagVisit, 'sight'>): boolean => sight === 'standing' || sight === 'regrowing'

/** What stood in each season, by organism. */
function yearsOf(flags: readonly StoredFlag[], visits: readonly StoredVisit[]): ResponseOf<typeof flagOperations.list>['years'] {
  const organismOf = new Map(flags.map(({ id, organismId }) => [id, organismId]))
  const named = visits.filter(({ flagId }) => organismOf.get(flagId))
  const groups = grouped(named, ({ flagId, season }) => `${organismOf.get(flagId)} ${season}`)
  return [...groups.values()]
    .map((all) => {
      const [{ flagId, season }] = all as [StoredVisit]
      const flagged = [...grouped(all, (visit) => visit.flagId).values()]
      const up = flagged.filter((some) => some.some(isUp))
      const sizes = up.flatMap((some) => {
        const known = some.flatMap(({ areaM2 }) => (areaM2 === null ? [] : [areaM2]))
        return known.length > 0 ? [Math.max(...known)] : []
      })
      return {
        organismId: organismOf.get(flagId) as string,
        season,
        standing: up.length,
        clean: flagged.length - up.length,
        areaM2: sizes.length === 0 ? null : sizes.reduce((a, b) => a + b, 0),
        minutes: all.reduce((sum, { minutes }) => sum + (minutes ?? 0), 0),
      }
    })
    .sort((a, b) => (a.season === b.season ? a.organismId.localeCompare(b.organismId) : a.season < b.season ? 1 : -1))
}

/** Silhouettes of stages that flower or carry seed. */
const FLOWERING: ReadonlySet<string> = new Set(['flower', 'pod'])

/** Organisms whose plants flower lower from pass to pass, told of this season's passes or of those that led into it. */
function smallerOf(
  flags: readonly StoredFlag[],
  byFlag: ReadonlyMap<string, readonly StoredVisit[]>,
  organisms: ReadonlyMap<string, Organism>,
  site: Pick<Site, 'season'>,
  day: string,
): ResponseOf<typeof flagOperations.list>['smaller'] {
  const named = flags.filter(({ organismId }) => organisms.has(organismId ?? ''))
  return [...grouped(named, ({ organismId }) => organismId as string)].flatMap(([organismId, own]) => {
    const { name, stages } = organisms.get(organismId) as Organism
    const flowering = new Set(stages.filter(({ silhouette }) => FLOWERING.has(silhouette)).map(({ id }) => id))
    const seen = own
      .flatMap(({ id }) => byFlag.get(id) ?? [])
      .flatMap(({ seenOn, plants, height, stage }): Flowering[] =>
        plants !== null && height !== null && stage !== null && flowering.has(stage) ? [{ day: dayNumber(seenOn), plants, height }] : [],
      )
    const passes = smallerAtFlower(seen)?.map(civilDate)
    const newest = passes?.at(-1)
    return passes && newest !== undefined && newest >= site.season.start && newest <= day
      ? [{ organismId, organismName: name, passes }]
      : []
  })
}

/** A flag with its visits, for whoever writes to it. Throws nothing: undefined where there is none. */
export async function storedFlag(db: Queryable, siteId: string, id: string): Promise<StoredFlag | undefined> {
  return (await listFlags(db, siteId)).find((one) => one.id === id)
}
