import { endpoints, type Endpoint, type Site } from '@bocado/contract'
import type { QueryClient } from '@tanstack/react-query'
import { call, type Call } from '../api/client.js'
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
  await serviceWorker.register('/service.js')
  // On the first visit one may be only looking; whoever comes again works with it.
  if (!serviceWorker.controller) return
  const sites = client.getQueryData<Site[]>([endpoints.sites.list.path, {}, {}]) ?? []
  for (const site of sites.filter(({ archivedAt }) => archivedAt === null).slice(0, MOST_SITES)) await readSite(client, site)
}

async function readSite(client: QueryClient, site: Site): Promise<void> {
  const params = { siteId: site.id }
  const season = { season: site.season.start }
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
    return client.getQueryData(queryKey)
  }
  await read(endpoints.blocks.list, {})
  await read(endpoints.watches.organisms, {})
  const band = (await read(endpoints.watches.band, season)) as { watches: { watch: { organismId: string } }[] } | undefined
  await read(endpoints.places.list, {})
  await read(endpoints.ground.map, {})
  await read(endpoints.bloom.overview, {})
  await read(endpoints.bloom.records, {})
  await read(endpoints.library.indicators, {})
  await read(endpoints.treatments.products, {})
  await read(endpoints.library.methods, {})
  await read(endpoints.harvests.list, season)
  for (const organismId of new Set(band?.watches.map(({ watch }) => watch.organismId)))
    await read(endpoints.library.entry, {}, { organismId })
}
