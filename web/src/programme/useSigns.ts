import { endpoints } from '@bocado/contract'
import { useMemo } from 'react'
import { useRead } from '../api/hooks.js'
import { useBlockOf } from '../api/useBlockOf.js'
import { useSite } from '../api/workplace.js'
import { signsOf, type Signs } from '../band/programme.js'

/** Signs of the season that steps of programmes wait for; null until they are there. */
export function useSigns(): Signs | null {
  const site = useSite()
  const params = { siteId: site.id }
  const season = site.season.start
  const { data: records } = useRead(endpoints.bloom.records, { params, input: {} })
  const { data: plantings } = useRead(endpoints.crops.list, { params, input: { season } })
  const blockOf = useBlockOf()
  return useMemo(() => {
    if (!records || !plantings || !blockOf) return null
    return signsOf(records, plantings, season, blockOf)
  }, [records, plantings, blockOf, season])
}
