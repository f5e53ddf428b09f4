import { endpoints, type Endpoint, type ResponseOf, type Site } from '@bocado/contract'
import { civilDate, dayNumber, MS_PER_HOUR } from '@bocado/core/time'
import type { QueryClient } from '@tanstack/react-query'
import { call, type Call } from '../api/client.js'
import { photoAt } from '../api/keptPhotos.js'
import { noteReadForField, readForField } from '../api/keptAnswers.js'
import { noteReadAt, restsOn } from '../api/versions.js'

/** Of so many sites everything is read beforehand; whoever looks after more has what they looked at. */
const MOST_SITES = 5

/**
 * Makes the page ready to be opened without a server: its own files are kept by the service worker, and of the sites is read what is needed
 * standing in the field, so that it is kept as every answer is.
 */
export async function readyForTheField(client: QueryClient): Promise<void> {
  // Without a secure address, or in a browser that has none, the page needs its server.
  const { serviceWorker } = navigator as { serviceWorker?: ServiceWorkerContainer }
  if (!serviceWorker) return
  try {
    await serviceWorker.register('/service.js')
  } catch {
    // A certificate that this device does not trust, or a private window: the page needs its server.
    return
  }
  // On the first visit one may be only looking; whoever comes again works with it.
  if (!serviceWorker.controller) return
  const sites = client.getQueryData<Site[]>([endpoints.sites.list.path, {}, {}]) ?? []
  for (const site of sites
    .filter(({ archivedAt, people }) => archivedAt === null && !people.every(({ role }) => role === 'volunteer'))
    .slice(0, MOST_SITES))
    await readSite(client, site)
}

/** What of the band tells what else is read. */
interface BandForField {
  watches: { watch: { organismId: string }; treatments: { id: string; status: 'planned' | 'done' }[] }[]
}

/** What was read for the field within this stands for now: a morning's worth. */
const FRESH_MS = 3 * MS_PER_HOUR

/** Plots that are due within so many days have their photos with them. */
const SOON_DAYS = 30

async function readSite(client: QueryClient, site: Site): Promise<void> {
  const params = { siteId: site.id }
  const season = { season: site.season.start }
  let isAll = true
  const read = async <E extends Endpoint>(e: E, input: object, more: object = {}): Promise<unknown> => {
    const c = { params: { ...params, ...more }, input } as Call<E>
    const queryKey = [e.path, c.params, c.input]
    if (client.getQueryData(queryKey) === undefined)
      await client.prefetchQuery({
        queryKey,
        meta: restsOn(e, c.params),
        retry: false,
        queryFn: () => call(e, c, undefined, (versions) => noteReadAt(queryKey, versions)),
      })
    const answer = client.getQueryData(queryKey)
    isAll &&= answer !== undefined
    return answer
  }
  if (Date.now() - Date.parse((await readForField(site.id)) ?? '1970-01-01') < FRESH_MS) return
  await read(endpoints.blocks.list, {})
  await read(endpoints.watches.organisms, {})
  const band = (await read(endpoints.watches.band, season)) as BandForField | undefined
  await read(endpoints.places.list, {})
  await read(endpoints.ground.map, {})
  await read(endpoints.arrivals.list, {})
  await read(endpoints.flags.list, {})
  await read(endpoints.replacement.list, {})
  const marked = (await read(endpoints.plots.list, {})) as ResponseOf<typeof endpoints.plots.list> | undefined
  // The last photo of a plot is laid over what the camera sees there: those that may be looked at soon are fetched, and no others.
  const soon = civilDate(dayNumber(site.today) + SOON_DAYS)
  for (const { looks, dueOn } of marked?.plots ?? []) {
    if (dueOn === null || dueOn > soon) continue
    const photoId = looks.find((look) => look.photoId !== null)?.photoId
    if (photoId) await photoAt(`/api/v1/sites/${site.id}/photos/${photoId}/jpeg`)
  }
  await read(endpoints.traps.list, season)
  await read(endpoints.bloom.overview, {})
  await read(endpoints.bloom.records, {})
  await read(endpoints.library.indicators, {})
  await read(endpoints.treatments.products, {})
  await read(endpoints.library.methods, {})
  await read(endpoints.crops.list, season)
  await read(endpoints.crops.known, {})
  for (const organismId of new Set(band?.watches.map(({ watch }) => watch.organismId)))
    await read(endpoints.library.entry, {}, { organismId })
  await read(endpoints.harvests.list, season)
  await read(endpoints.rules.list, {})
  await read(endpoints.companions.list, {})
  await read(endpoints.programmes.list, {})
  await read(endpoints.schedule.read, season)
  await read(endpoints.living.read, {})
  await read(endpoints.equipment.machines, {})
  await read(endpoints.equipment.lots, {})
  await read(endpoints.library.reportDuties, {})
  const planned = (band?.watches ?? []).flatMap(({ treatments }) => treatments).filter(({ status }) => status === 'planned')
  for (const { id: treatmentId } of planned) await read(endpoints.treatments.sheet, {}, { treatmentId })
  if (isAll) await noteReadForField(site.id)
}
