import { endpoints, type bloomEvents, type BloomOverview, type Indicator } from '@bocado/contract'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { useRead } from '../api/hooks.js'
import { nameOf } from '../api/unsent.js'
import { useRecorded } from '../api/useRecorded.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Choice } from '../design/controls.js'
import { Explained } from '../design/Explained.js'
import { FormError } from '../design/FormError.js'
import { Caution, Columns, Heading, Line, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { partLater } from '../shell/partLater.js'
import { useUndo } from '../shell/Undo.js'
import { UnsentHere } from '../shell/UnsentHere.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { LadderPicture } from './LadderPicture.js'
import { DueTriggers, Triggers } from './Triggers.js'
import '../messages/en/bloom.js'
import '../messages/en/field.js'

const BloomLog = partLater(async () => (await import('./BloomLog.js')).BloomLog)
const CropCalendar = partLater(async () => (await import('./CropCalendar.js')).CropCalendar)
const Notebook = partLater(async () => (await import('./Notebook.js')).Notebook)
const Plants = partLater(async () => (await import('./Plants.js')).Plants)

const PANELS = ['ladder', 'crops', 'log', 'plants', 'notebook', 'triggers', 'nectar'] as const

/** Plants feel the same spring as the insects: what is in bloom, what it says of the season, and what it foretells. */
export function BloomScreen() {
  const t = useText()
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const panel = PANELS.find((p) => p === search.get('panel')) ?? 'ladder'
  usePageTitle(t('nav.bloom'), t(`bloom.panel.${panel}`))
  const params = { siteId: site.id }
  const { data: overview } = useRead(endpoints.bloom.overview, { params, input: {} })
  const { data: plants } = useRead(endpoints.library.indicators, { params, input: {} })
  const { data: records } = useRead(endpoints.bloom.records, { params, input: {} })
  if (!overview || !plants || !records) return <Waiting />
  return (
    <Page>
      <Title>{t('bloom.title')}</Title>
      <Columns $left="1.1fr" $right="1fr">
        <Stack>
          <Evidence overview={overview} plants={plants} />
          <DueTriggers triggers={overview.triggers} plants={plants} />
        </Stack>
        <LookFor overview={overview} />
      </Columns>
      <Choice
        label={t('bloom.panels')}
        options={PANELS.map((id) => ({ id, label: t(`bloom.panel.${id}`) }))}
        value={panel}
        onChange={(p) => setSearch({ panel: p }, { replace: true })}
      />
      {panel === 'ladder' ? <LadderPicture /> : null}
      {panel === 'log' ? <BloomLog records={records} plants={plants} /> : null}
      {panel === 'crops' ? <CropCalendar /> : null}
      {panel === 'plants' ? <Plants plants={plants} /> : null}
      {panel === 'notebook' ? <Notebook plants={plants} /> : null}
      {panel === 'triggers' ? <Triggers triggers={overview.triggers} plants={plants} /> : null}
      {panel === 'nectar' ? <Nectar overview={overview} /> : null}
    </Page>
  )
}

/** What blooms so far say of the season, station by station, and which of them. */
function Evidence({ overview, plants }: { overview: BloomOverview; plants: readonly Indicator[] }) {
  const t = useText()
  const f = useFormat()
  const [open, setOpen] = useState(false)
  const told = overview.stations.filter(({ shift }) => shift !== null)
  const nameOf = (plantId: string, event: string): string =>
    `${plants.find(({ id }) => id === plantId)?.name ?? plantId}, ${t(`bloom.event.${event as (typeof bloomEvents)[number]}`)}`
  return (
    <Stack data-testid="bloom-evidence">
      <Heading>{t('bloom.says')}</Heading>
      {told.length === 0 ? <p>{t('bloom.saysNothing')}</p> : null}
      {told.map(({ stationId, stationName, shift }) =>
        shift ? (
          <div key={stationId}>
            <p>
              <b>
                {t('bloom.shift', {
                  station: stationName,
                  blooms: shift.blooms,
                  way: Math.abs(shift.days) < 0.25 ? 'same' : shift.days < 0 ? 'ahead' : 'behind',
                  days: f.number(Math.abs(shift.days), 1),
                  heat: f.heat(Math.abs(shift.heat)),
                  notYet: shift.notYet,
                })}
              </b>
            </p>
            <Small>
              <Explained>
                {t('bloom.shiftHow', { sd: f.heat(shift.sd), prior: f.heat(shift.prior), own: shift.priorOwn ? 'yes' : 'no' })}
              </Explained>
              {shift.held ? ` ${t('bloom.held')}` : ''}
            </Small>
          </div>
        ) : null,
      )}
      {told.length > 0 ? (
        <>
          <Line>
            <TextButton onPress={() => setOpen(!open)} aria-expanded={open}>
              {t(open ? 'bloom.hideUsed' : 'bloom.showUsed')}
            </TextButton>
          </Line>
          {open
            ? told.map(({ stationId, used }) => (
                <Rows key={stationId}>
                  {used.map((one) => (
                    <li key={one.recordId}>
                      {t('bloom.used', {
                        name: nameOf(one.plantId, one.event),
                        notYet: one.notYet ? 'yes' : 'no',
                        heat: f.heat(one.heat),
                        expected: f.heat(one.expected),
                        years: one.ownYears,
                      })}
                    </li>
                  ))}
                </Rows>
              ))
            : null}
        </>
      ) : null}
      <Small>{t('bloom.movesWatches')}</Small>
    </Stack>
  )
}

/** So many stand there before one asks for all of them: the ladder is the picture of this screen. */
const SHOWN_FIRST = 4

/** Blooms to look for these weeks; two taps write one down. */
function LookFor({ overview }: { overview: BloomOverview }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const undo = useUndo()
  const add = useRecorded(endpoints.bloom.add)
  const [refused, setRefused] = useState<string | null>(null)
  const [all, setAll] = useState(false)
  const start = site.season.start
  // What is nearest to today first: it is what one passes on the next walk.
  const today = f.seasonIndex(start, site.today)
  const near = [...overview.ahead].sort((a, b) => Math.abs((a.date.p50 ?? 0) - today) - Math.abs((b.date.p50 ?? 0) - today))
  const shown = all ? near : near.slice(0, SHOWN_FIRST)
  const put = async (plant: BloomOverview['ahead'][number], notYet: boolean): Promise<void> => {
    setRefused(null)
    try {
      const says = t('bloom.written', { name: plant.name, event: plant.eventName, notYet: notYet ? 'yes' : 'no' })
      const input = { plantId: plant.plantId, event: plant.event, seenFrom: site.today, notYet, place: plant.place }
      const { takeBack } = await add.save({ params: { siteId: site.id }, input }, says)
      if (takeBack) undo.offer(says, takeBack)
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error))
    }
  }
  return (
    <Stack data-testid="look-for">
      <Heading>{t('bloom.lookFor')}</Heading>
      {overview.ahead.length === 0 ? <p>{t('bloom.nothingAhead')}</p> : null}
      <FormError text={refused} />
      <UnsentHere of={(item) => item.what === nameOf(endpoints.bloom.add)} />
      <Rows>
        {shown.map((plant) => (
          <li key={`${plant.plantId} ${plant.event}`}>
            <Line>
              <span style={{ flex: '1 1 26ch' }}>
                <b>{plant.name}</b>, {plant.eventName} <Quiet>{plant.place}</Quiet>
                <br />
                <Quiet>
                  {t('bloom.expected', {
                    overdue: plant.overdue ? 'yes' : 'no',
                    date: plant.date.p50 === null ? '' : f.date(f.seasonDay(start, plant.date.p50)),
                    span:
                      plant.date.p10 === null || plant.date.p90 === null
                        ? ''
                        : f.span(f.seasonDay(start, plant.date.p10), f.seasonDay(start, plant.date.p90)),
                    looked: plant.lastLooked ? f.date(plant.lastLooked) : 'none',
                  })}
                </Quiet>
              </span>
              <Button
                aria-label={t('bloom.thereOne', { name: plant.name, event: plant.eventName })}
                onPress={() => void put(plant, false)}
                isDisabled={add.isBarred}
              >
                {t('bloom.there')}
              </Button>
              <Button
                $plain
                aria-label={t('bloom.notYetOne', { name: plant.name, event: plant.eventName })}
                onPress={() => void put(plant, true)}
                isDisabled={add.isBarred}
              >
                {t('bloom.notYet')}
              </Button>
            </Line>
          </li>
        ))}
      </Rows>
      {near.length > SHOWN_FIRST ? (
        <Line>
          <TextButton onPress={() => setAll(!all)} aria-expanded={all}>
            {all ? t('bloom.fewer') : t('bloom.all', { count: near.length })}
          </TextButton>
        </Line>
      ) : null}
    </Stack>
  )
}

/** Weeks in which nothing of the route blooms, and what would fill them. */
function Nectar({ overview }: { overview: BloomOverview }) {
  const t = useText()
  const f = useFormat()
  return (
    <Stack>
      <Heading>{t('bloom.nectar')}</Heading>
      <p>{t(overview.gaps.length === 0 ? 'bloom.noGaps' : 'bloom.gaps')}</p>
      <Rows data-testid="nectar">
        {overview.gaps.map(({ from, to, fill }) => (
          <li key={from}>
            <b>{f.span(from, to)}</b>: {t('bloom.fill', { list: fill.join(', ') || 'none' })}
          </li>
        ))}
      </Rows>
      <Caution>{t('bloom.nectarCaution')}</Caution>
    </Stack>
  )
}
