import { endpoints } from '@bocado/contract'
import { useSiteItself } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Stack } from '../design/text.js'
import { SiteFields } from './SiteForm.js'
import '../messages/en/field.js'
import '../messages/en/site.js'

/** Name, place, clock and units of the site, to be changed. */
export function EditSite({ onDone }: { onDone: () => void }) {
  const site = useSite()
  // Its own units, not those in which somebody reads it.
  const { name, kind, place, timeZone, units, latitude, longitude, elevationM, auditYears } = useSiteItself()
  const values = { name, kind, place, timeZone, units, latitude, longitude, elevationM, auditYears }
  const entry = useEntry(endpoints.sites.update, values, site, site.id)
  const save = async (): Promise<void> => {
    if (await entry.submit({ siteId: site.id }, (v, rowVersion) => ({ ...v, rowVersion }))) onDone()
  }
  return (
    <Stack>
      <SiteFields bind={entry.bind} />
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}
