import { endpoints, type CoverLine, type ResponseOf } from '@bocado/contract'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { addressOf } from '../api/client.js'
import { useBand, useBlocks, useOrganisms, useRead } from '../api/hooks.js'
import { useMay } from '../api/may.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Choice } from '../design/controls.js'
import { Columns, Empty, Heading, Line, Page, Rows, Small, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { namesFirst } from '../flags/named.js'
import { useText } from '../messages/useText.js'
import { partLater } from '../shell/partLater.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { CoverPicture } from './CoverPicture.js'
import { coverSays } from './coverWords.js'
import { PlotLine } from './PlotLine.js'
import '../messages/en/field.js'
import '../messages/en/flags.js'
import '../messages/en/plots.js'
import '../messages/en/record.js'
import '../messages/en/work.js'

const PlotAdd = partLater(async () => (await import('./PlotForm.js')).PlotAdd)
const Instead = partLater(async () => (await import('../replacement/Instead.js')).Instead)

const PARTS = ['plots', 'instead'] as const

/** Plots that are looked at year after year, and what is planted in place of weeds. */
export function PlotsScreen() {
  const t = useText()
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const part = search.get('part') === 'instead' ? 'instead' : 'plots'
  usePageTitle(t('plots.title'))
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <Title>{t('plots.title')}</Title>
        <Line $gap={18}>
          <Choice
            label={t('plots.parts')}
            options={PARTS.map((id) => ({ id, label: t(`plots.part.${id}`) }))}
            value={part}
            onChange={(id) => setSearch(id === 'plots' ? {} : { part: id }, { replace: true })}
          />
          <Link to={`/sites/${site.id}/scouting?panel=flags`}>{t('plots.back')}</Link>
        </Line>
      </Line>
      {part === 'plots' ? <Plots /> : <Instead />}
    </Page>
  )
}

type Known = ResponseOf<typeof endpoints.plots.list>

function Plots() {
  const t = useText()
  const site = useSite()
  const may = useMay('tend')
  const [search, setSearch] = useSearchParams()
  const params = { siteId: site.id }
  const { data } = useRead(endpoints.plots.list, { params, input: {} })
  const { data: instead } = useRead(endpoints.replacement.list, { params, input: {} })
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  const { data: band } = useBand(site.id, site.season.start)
  const [adding, setAdding] = useState(false)
  if (!data || !instead || !blocks || !organisms || !band) return <Waiting />
  const chosen = search.get('plot')
  const choose = (id: string | null): void => setSearch(id === null ? {} : { plot: id }, { replace: true })
  const weeds = namesFirst(organisms, band.watches, []).filter(({ kind }) => kind === 'weed')
  const known = { blocks, weeds, wanted: instead.wanted }
  const due = (day: string | null): number => (day !== null && day <= site.today ? 0 : 1)
  const shown = [...data.plots].sort((a, b) => due(a.dueOn) - due(b.dueOn) || a.number - b.number)
  return (
    <>
      {adding ? (
        <PlotAdd
          {...known}
          placeId={shown.at(-1)?.placeId ?? (blocks.length === 1 ? (blocks[0]?.id ?? null) : null)}
          onDone={() => setAdding(false)}
        />
      ) : may ? (
        <div>
          <Button onPress={() => setAdding(true)}>{t('plots.add')}</Button>
        </div>
      ) : null}
      {shown.length === 0 ? (
        <Empty>
          <p>{t('plots.none')}</p>
        </Empty>
      ) : (
        <Columns $left="6fr" $right="6fr">
          <Rows>
            {shown.map((plot) => (
              <li key={plot.id}>
                <PlotLine {...known} plot={plot} isChosen={plot.id === chosen} onChoose={choose} />
              </li>
            ))}
          </Rows>
          <Covers covers={data.covers} />
        </Columns>
      )}
    </>
  )
}

/** How cover goes, place by place. */
function Covers({ covers }: { covers: Known['covers'] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const places = [...new Map(covers.map((line) => [line.placeId, line.placeName]))]
  if (places.length === 0) return null
  return (
    <Stack $gap={18}>
      {places.map(([placeId, name]) => {
        const own = covers.filter((line: CoverLine) => line.placeId === placeId)
        return (
          <Stack key={placeId} $gap={6}>
            <Heading>{name}</Heading>
            <CoverPicture lines={own} />
            {own.map((line) => (
              <p key={`${line.worked} ${line.of} ${line.id}`}>{coverSays(line, t, f)}</p>
            ))}
          </Stack>
        )
      })}
      <Small>
        {t('plots.legend')} {t('plots.howTold')}
      </Small>
      <a href={addressOf(endpoints.plots.list, { params: { siteId: site.id }, input: {} }).concat('.csv')}>{t('plots.csv')}</a>
    </Stack>
  )
}
