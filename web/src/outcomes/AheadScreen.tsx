import { endpoints, type YearsOf } from '@bocado/contract'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useRead } from '../api/hooks.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { Checkbox, Choice, Select } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { Caution, Columns, Empty, Fields, Line, Page, Small, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { seasonName } from '../shell/screens.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import type { WeedQuestion, YearsWay } from '../workers/weeds.js'
import { AheadPicture } from './AheadPicture.js'
import { aheadSays } from './aheadWords.js'
import { PassesByYear } from './PassesByYear.js'
import { useWeedYears } from './useWeedYears.js'
import { countsOf, FOUND_PERCENT, MINUTES_PER_PLANT, standOf } from './weedQuestion.js'
import '../messages/en/ahead.js'
import '../messages/en/known.js'
import '../messages/en/programme.js'

/** Seeds or pieces that come from elsewhere in a year, by what people can say of it. */
const ARRIVALS = { none: 0, some: 20, much: 200 } as const
type Arrives = keyof typeof ARRIVALS
const WAYS: readonly YearsWay[] = ['none', 'one', 'two', 'three', 'seeders', 'own']
/** With which the own programme begins. */
const OWN_BEGINS = [3, 3, 2, 2, 1, 1]
/** Under which way of working a weed becomes few, how long that takes, and what it costs; from its counts of the years. */
export function AheadScreen() {
  const t = useText()
  const site = useSite()
  usePageTitle(t('ahead.title'))
  const [search] = useSearchParams()
  const { now } = useSeasonChoice()
  const { data } = useRead(endpoints.outcomes.years, { params: { siteId: site.id }, input: {} })
  if (!data) return <Waiting />
  const line = data.lines.find(({ organismId, blockId }) => organismId === search.get('organism') && blockId === search.get('block'))
  const counts = line ? countsOf(line, now) : []
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <Title>{line ? t('ahead.of', { name: line.organismName, block: line.blockName }) : t('ahead.title')}</Title>
        <Link className="off-paper" to={`/sites/${site.id}/outcomes/years`}>
          {t('known.years')}
        </Link>
      </Line>
      {line?.weed && counts.length > 0 ? (
        <Ahead line={line} weed={line.weed} counts={counts} />
      ) : (
        <Empty>
          <p>{t('ahead.none')}</p>
        </Empty>
      )}
    </Page>
  )
}

interface AheadProps {
  line: YearsOf
  weed: NonNullable<YearsOf['weed']>
  counts: { year: number; plants: number }[]
}

function Ahead({ line, weed, counts }: AheadProps) {
  const t = useText()
  const [passes, setPasses] = useState('1')
  const [found, setFound] = useState<number | null>(FOUND_PERCENT)
  const [lying, setLying] = useState(false)
  const [arrives, setArrives] = useState<Arrives>('none')
  const [minutes, setMinutes] = useState<number | null>(Math.round(100 * (weed.minutesPerPlant ?? MINUTES_PER_PLANT)) / 100)
  const [hourly, setHourly] = useState<number | null>(null)
  const [way, setWay] = useState<YearsWay>('two')
  const [own, setOwn] = useState<number[]>(OWN_BEGINS)
  const isOwn = way === 'own'
  const isSaid = found !== null && found >= 0 && found <= 100
  const question: WeedQuestion | null = isSaid
    ? {
        stand: standOf(weed, line.years, counts, ARRIVALS[arrives]),
        passesSoFar: Number(passes),
        found: found / 100,
        leftLying: lying ? 1 : 0,
        own: isOwn ? own : null,
      }
    : null
  const { ways, isFirst } = useWeedYears(question)
  const chosen = ways?.find((one) => one.way === way)
  return (
    <>
      <Choice label={t('ahead.ways')} options={WAYS.map((id) => ({ id, label: t(`ahead.way.${id}`) }))} value={way} onChange={setWay} />
      <Columns $left="7fr" $right="4fr">
        <Stack style={{ minHeight: 300 }}>
          {ways ? <AheadPicture counts={counts} ways={ways} chosen={chosen?.way ?? 'two'} /> : <Waiting />}
          {isOwn ? <PassesByYear from={(counts.at(-1)?.year ?? 0) + 1} passes={own} onChange={setOwn} /> : null}
          <Small>
            {t('ahead.how', { form: weed.form, seasons: counts.map(({ year }) => seasonName(`${year}-01-01`)).join(', ') })}{' '}
            {ways && isFirst ? t('ahead.first') : null}
          </Small>
        </Stack>
        <Stack>
          {chosen ? (
            <Says
              one={chosen}
              all={ways ?? []}
              arrivals={ARRIVALS[arrives]}
              minutes={minutes ?? MINUTES_PER_PLANT}
              hourly={hourly}
              plantsPerBag={weed.plantsPerBag}
            />
          ) : null}
          <Fields>
            <Select
              label={t('ahead.soFar')}
              placeholder={t('choose')}
              width="9ch"
              options={['0', '1', '2', '3'].map((id) => ({ id, label: id }))}
              value={passes}
              onChange={setPasses}
            />
            <NumberField label={t('ahead.found')} unit="%" width="11ch" value={found} onChange={setFound} />
            <NumberField
              label={t('ahead.minutes')}
              unit="min"
              width="12ch"
              value={minutes}
              onChange={setMinutes}
              {...(weed.minutesPerPlant === null ? {} : { hint: t('ahead.minutesOwn') })}
            />
            <NumberField label={t('programme.hourly')} width="18ch" digits={2} hint={t('optional')} value={hourly} onChange={setHourly} />
          </Fields>
          <Select
            label={t('ahead.arrivals')}
            placeholder={t('choose')}
            width="22ch"
            options={(Object.keys(ARRIVALS) as Arrives[]).map((id) => ({ id, label: t(`ahead.arrivals.${id}`) }))}
            value={arrives}
            onChange={(id) => setArrives(id as Arrives)}
          />
          <Checkbox label={t('ahead.lying')} value={lying} onChange={setLying} />
        </Stack>
      </Columns>
    </>
  )
}

function Says(p: Parameters<typeof aheadSays>[0]) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { sentences, caution } = aheadSays(p, t, f)
  return (
    <Stack $gap={6} data-testid="ahead-says">
      {sentences.map((sentence, i) => (
        <p key={sentence}>{i === 0 ? <b>{sentence}</b> : sentence}</p>
      ))}
      {caution ? <Caution>{caution}</Caution> : null}
      <Link className="off-paper" to={`/sites/${site.id}/scouting/plots?part=instead`}>
        {t('ahead.instead')}
      </Link>
    </Stack>
  )
}
