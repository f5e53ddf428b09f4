import type { Site } from '@bocado/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'

/** Fetches everything anew when the site's day turned or a reading of its stations changed, so that nobody has to reload. */
export function useFreshWeather(site: Site | undefined): void {
  const client = useQueryClient()
  const seen = useRef<string | null>(null)
  const version = site ? `${site.id} ${site.today} ${site.weatherVersion}` : null
  useEffect(() => {
    if (version === null || version === seen.current) return
    const first = seen.current === null
    seen.current = version
    if (!first) void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== '/sites' })
  }, [version, client])
}
