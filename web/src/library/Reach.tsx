import { endpoints, type LibraryEntry } from '@bocado/contract'
import { Link } from 'react-router'
import { useOutcomes, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Bullets, Heading, PlainTable, Quiet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

/** What reaches which stage, in the order from prevention to chemical. */
export function Reach({ entry }: { entry: LibraryEntry }) {
  const t = useText()
  const site = useSite()
  const kinds = ['prevention', 'cultural', 'mechanical', 'biological', 'chemical']
  const rows = entry.about.reach
    .map((reach) => ({ ...reach, known: entry.methods.find(({ id }) => id === reach.method) }))
    .sort((a, b) => kinds.indexOf(a.known?.kind ?? '') - kinds.indexOf(b.known?.kind ?? ''))
  return (
    <Stack>
      <Heading>{t('organism.reach')}</Heading>
      <PlainTable data-testid="reach">
        <thead>
          <tr>
            <th scope="col">{t('organism.method')}</th>
            <th scope="col">{t('organism.stagesReached')}</th>
            <th scope="col">{t('organism.evidence')}</th>
            <th scope="col">{t('organism.hours')}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ method, stages, strains, note, known }) => (
            <tr key={`${method} ${stages.join()}`}>
              <th scope="row">
                {known ? <Link to={`/sites/${site.id}/library/methods/${method}`}>{known.name}</Link> : method}{' '}
                {known ? <Quiet>{t(`methodKind.${known.kind}`)}</Quiet> : null}
              </th>
              <td>
                {stages.map((id) => entry.stages.find((stage) => stage.id === id)?.name ?? id).join(', ')}
                {note ? <Quiet> ({note})</Quiet> : null}
                {strains ? (
                  <Quiet>
                    {' '}
                    {known?.strains
                      .filter(({ id }) => strains.includes(id))
                      .map(({ name }) => name)
                      .join(', ')}
                  </Quiet>
                ) : null}
              </td>
              <td>{known ? t(`evidence.${known.evidence}`) : null}</td>
              <td>{known ? t('way.hours', { hours: known.hours.perUnit, unit: known.hours.unit }) : null}</td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
      <Small>{t('organism.reach.how')}</Small>
    </Stack>
  )
}

/** What was tried against it here this season, and what can be said of it. */
export function TriedHere({ entry }: { entry: LibraryEntry }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: list } = useRead(endpoints.library.list, { params: { siteId: site.id }, input: {} })
  const { data: outcomes } = useOutcomes(site.id, site.season.start)
  const watched = list?.find(({ id }) => id === entry.id)?.watches.map(({ id }) => id) ?? []
  const tried = outcomes?.filter(({ watchId }) => watched.includes(watchId)) ?? []
  return (
    <Stack>
      <Heading>{t('organism.tried')}</Heading>
      {tried.length === 0 ? <p>{t('organism.notTried')}</p> : null}
      <Bullets>
        {tried.map(({ treatmentId, productName, treatedOn, comparison }) => (
          <li key={treatmentId}>
            {t('organism.triedOne', { product: productName, date: f.date(treatedOn) })}{' '}
            {comparison ? t(`organism.verdict.${comparison.verdict}`) : t('organism.verdict.none')}{' '}
            <Link to={`/sites/${site.id}/outcomes`}>{t('nav.outcomes')}</Link>
          </li>
        ))}
      </Bullets>
    </Stack>
  )
}
