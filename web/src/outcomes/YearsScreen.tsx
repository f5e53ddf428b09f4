import { endpoints, type ResponseOf, type YearsOf } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { usePlots, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Heading, Line, Page, PlainTable, Small, Stack, Title } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { CoverPicture } from '../plots/CoverPicture.js'
import { coverSays } from '../plots/coverWords.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { seasonName } from '../shell/screens.js'
import { Waiting } from '../shell/Waiting.js'
import { YearsPicture } from './YearsPicture.js'
import { pickedSays, trendSays } from './yearWords.js'
import '../messages/en/ahead.js'
import '../messages/en/known.js'
import '../messages/en/plots.js'

const MINUTES_PER_HOUR = 60

const OneLine = styled.article`
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: 4px 24px;
  padding: 10px 0;
  border-top: 1px solid ${colour.rule};
  break-inside: avoid;
  @media (max-width: 720px) {
    grid-template-columns: 1fr;
  }
`

/** Every organism and block season by season: what was counted or stood, what it took, how it goes, and what was picked. */
export function YearsScreen() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  usePageTitle(t('years.title'))
  const { data } = useRead(endpoints.outcomes.years, { params: { siteId: site.id }, input: {} })
  const [tables, setTables] = useState(false)
  if (!data) return <Waiting />
  const seasons = [...new Set(data.lines.flatMap(({ years }) => years.map(({ season }) => season)))].sort()
  const blocks = [...new Map(data.lines.map(({ blockId, blockName }) => [blockId, blockName]))].sort((a, b) => a[1].localeCompare(b[1]))
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <div>
          <Title>{t('years.title')}</Title>
          <Small>{t('years.says')}</Small>
        </div>
        <Line $gap={18} className="off-paper">
          {data.lines.length > 0 ? (
            <TextButton onPress={() => setTables(!tables)}>{t(tables ? 'years.pictures' : 'years.tables')}</TextButton>
          ) : null}
          <Link to={`/sites/${site.id}/outcomes`}>{t('known.back')}</Link>
        </Line>
      </Line>
      {data.lines.length === 0 ? <p>{t('years.none')}</p> : tables ? null : <Small>{t('years.legend')}</Small>}
      {blocks.map(([blockId, name]) => (
        <Stack key={blockId} $gap={6}>
          <Heading>{name}</Heading>
          <Picked all={data.picked.filter((one) => one.blockId === blockId)} />
          {data.lines
            .filter((line) => line.blockId === blockId)
            .map((line) => (
              <OneLine key={line.organismId}>
                <Stack $gap={4}>
                  <b>{line.organismName}</b>
                  <p>{trendSays(line.trend, t, f)}</p>
                  {line.weed && line.years.some(({ plants }) => plants) ? (
                    <Link className="off-paper" to={`/sites/${site.id}/outcomes/ahead?organism=${line.organismId}&block=${line.blockId}`}>
                      {t('ahead.open')}
                    </Link>
                  ) : null}
                </Stack>
                {tables ? <AsTable line={line} t={t} f={f} /> : <YearsPicture line={line} seasons={seasons} />}
              </OneLine>
            ))}
          <CoverThere blockId={blockId} />
        </Stack>
      ))}
    </Page>
  )
}

/** How cover goes in the plots of a block: of the weeds, and of what grows in their place. */
function CoverThere({ blockId }: { blockId: string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = usePlots(site.id)
  const lines = data?.covers.filter(({ placeId }) => placeId === blockId) ?? []
  if (lines.length === 0) return null
  return (
    <OneLine>
      <Stack $gap={4}>
        <b>{t('plots.inPlots')}</b>
        {lines.map((line) => (
          <p key={`${line.worked} ${line.of} ${line.id}`}>{coverSays(line, t, f)}</p>
        ))}
        <Link className="off-paper" to={`/sites/${site.id}/scouting/plots`}>
          {t('plots.open')}
        </Link>
      </Stack>
      <CoverPicture lines={lines} />
    </OneLine>
  )
}

function Picked({ all }: { all: ResponseOf<typeof endpoints.outcomes.years>['picked'] }) {
  const t = useText()
  const f = useFormat()
  if (all.length === 0) return null
  return <Small>{t('years.picked', { all: all.map((one) => pickedSays(one, t, f)).join('; ') })}</Small>
}

function AsTable({ line, t, f }: { line: YearsOf; t: Say; f: Format }) {
  const stood = line.years.some(({ patches }) => patches !== null)
  const counted = line.years.some(({ highest }) => highest)
  return (
    <PlainTable>
      <thead>
        <tr>
          <th scope="col">{t('years.season')}</th>
          {counted ? (
            <>
              <th scope="col">{t('years.highest')}</th>
              <th scope="col">{t('years.check')}</th>
              <th scope="col">{t('years.daysOver')}</th>
            </>
          ) : null}
          {stood ? <th scope="col">{t('years.stood')}</th> : null}
          <th scope="col">{t('years.treated')}</th>
          <th scope="col">{t('years.hours')}</th>
          <th scope="col">{t('years.bags')}</th>
        </tr>
      </thead>
      <tbody>
        {line.years.map((year) => (
          <tr key={year.season}>
            <th scope="row">{seasonName(year.season)}</th>
            {counted ? (
              <>
                <td>{year.highest ? `${f.number(year.highest.per100, 1)} (${f.shortDate(year.highest.countedOn)})` : ''}</td>
                <td>{year.check === null ? '' : f.number(year.check, 1)}</td>
                <td>{year.daysOver === null ? '' : f.number(year.daysOver)}</td>
              </>
            ) : null}
            {stood ? (
              <td>
                {year.patches === null
                  ? ''
                  : t('years.patches', { patches: year.patches, plants: year.plants === null ? 'none' : f.number(year.plants) })}
              </td>
            ) : null}
            <td>{year.treatments === 0 ? '' : f.number(year.treatments)}</td>
            <td>{year.minutes === 0 ? '' : f.number(year.minutes / MINUTES_PER_HOUR, 1)}</td>
            <td>{year.bags === 0 ? '' : f.number(year.bags)}</td>
          </tr>
        ))}
      </tbody>
    </PlainTable>
  )
}
