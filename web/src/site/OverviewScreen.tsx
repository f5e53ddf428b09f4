import type { Site } from '@bocado/contract'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useBand, useBlocks, useSites } from '../api/hooks.js'
import { SiteProvider, useSite } from '../api/workplace.js'
import { byUrgency, urgencyOf } from '../band/urgency.js'
import { windowSentence } from '../band/words.js'
import { Heading, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import '../messages/en/field.js'
import '../messages/en/site.js'

/** Lines of a site in the overview; the rest is one press away. */
const MOST_LINES = 4

/** Every site with what presses on each. */
export function OverviewScreen() {
  const t = useText()
  usePageTitle(t('overview.title'))
  const { data: sites } = useSites()
  const [known, setKnown] = useState(0)
  const next = useCallback(() => setKnown((now) => now + 1), [])
  if (!sites) return <Waiting />
  const worked = sites.filter(({ archivedAt }) => archivedAt === null)
  return (
    <Page>
      <Title>{t('overview.heading', { sites: worked.length })}</Title>
      <Rows>
        {worked.map((site, i) => (
          <li key={site.id}>
            {/* One after the other, so that many sites do not ask for everything at once. */}
            {i <= known ? (
              <SiteProvider value={site}>
                <Presses onKnown={next} />
              </SiteProvider>
            ) : (
              <Heading as="h2">{site.name}</Heading>
            )}
          </li>
        ))}
      </Rows>
    </Page>
  )
}

/** What presses on one site: open windows first, then what opens soon, and what was planned and not done. */
function Presses({ onKnown }: { onKnown: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: band } = useBand(site.id, site.season.start)
  const { data: blocks } = useBlocks(site.id)
  const rows = useMemo(() => [...(band?.watches ?? [])].sort(byUrgency), [band])
  const isKnown = band !== undefined && blocks !== undefined
  useEffect(() => {
    if (isKnown) onKnown()
  }, [isKnown, onKnown])
  if (!isKnown) return <SiteName site={site} />
  const open = rows.filter((row) => ['open', 'closing'].includes(urgencyOf(row)))
  const shown = rows.filter((row) => ['open', 'closing', 'coming'].includes(urgencyOf(row))).slice(0, MOST_LINES)
  const late = rows.flatMap(({ treatments }) => treatments.filter((one) => one.status === 'planned' && one.plannedOn <= site.today))
  return (
    <Stack $gap={6}>
      <SiteName site={site} />
      {rows.length > 0 ? <Quiet>{t('overview.counts', { watches: rows.length, open: open.length })}</Quiet> : null}
      {late.map((one) => (
        <p key={one.id}>
          <Link to={`/sites/${site.id}/treatments?record=${one.id}`}>
            {t('overview.due', { name: one.name, place: one.placeName, date: f.dateInDays(one.plannedOn) })}
          </Link>
        </p>
      ))}
      {shown.map((row) => (
        <p key={row.watch.id}>
          <Link to={`/sites/${site.id}/windows?watch=${row.watch.id}`}>{row.organismName}</Link>{' '}
          <Quiet>{blocks.find(({ id }) => id === row.watch.blockId)?.name}</Quiet> {windowSentence(row, t, f)}
        </p>
      ))}
      {shown.length === 0 && late.length === 0 ? (
        <Small>{t(rows.length === 0 ? 'overview.nothingWatched' : 'overview.quiet')}</Small>
      ) : null}
    </Stack>
  )
}

function SiteName({ site }: { site: Site }) {
  return (
    <Heading as="h2">
      <Link to={`/sites/${site.id}/today`}>{site.name}</Link> <Quiet>{site.place}</Quiet>
    </Heading>
  )
}
