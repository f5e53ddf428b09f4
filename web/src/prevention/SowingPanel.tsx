import { endpoints, type PlantingDates } from '@bocado/contract'
import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { useBlocks, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { lookedAt, lookedAtFirst, plansBy } from '../band/planting.js'
import { Choice, Picks, Select } from '../design/controls.js'
import { Columns, Empty, Fields, Quiet, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useText } from '../messages/useText.js'
import { seasonName } from '../shell/screens.js'
import { Waiting } from '../shell/Waiting.js'
import { usePlaceOptions } from '../api/usePlaceOptions.js'
import { basisWords } from './basisWords.js'
import { SowingPicture } from './SowingPicture.js'
import { SowingPlans } from './SowingPlans.js'
import { SowingSays } from './SowingSays.js'
import '../messages/en/field.js'
import '../messages/en/prevent.js'

/** The day on which a crop is sown or planted, against what comes to it, frost and harvest. */
export function SowingPanel() {
  const t = useText()
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const params = { siteId: site.id }
  const { data: known } = useRead(endpoints.crops.known, { params, input: {} })
  const { data: blocks } = useBlocks(site.id)
  const annuals = useMemo(() => (known ?? []).filter(({ lives }) => lives === 'annual'), [known])
  const crop = annuals.find(({ id }) => id === search.get('crop'))
  const ways = (['sown', 'planted'] as const).filter((way) => crop?.stages.includes(way))
  const begins = ways.find((way) => way === search.get('begins')) ?? (ways.includes('planted') && ways.length > 1 ? 'planted' : ways[0])
  const year = search.get('year') === 'next' ? 'next' : 'this'
  const where = usePlaceOptions()
  const placeId = where.find(({ id }) => id === search.get('place'))?.id ?? (where.length === 1 ? where[0]?.id : undefined)
  const set = (changes: Record<string, string | null>): void => {
    const next = new URLSearchParams(search)
    for (const [name, value] of Object.entries(changes))
      if (value === null) next.delete(name)
      else next.set(name, value)
    setSearch(next, { replace: true })
  }
  const isAsked = crop !== undefined && begins !== undefined && placeId !== undefined
  const { data: dates } = useRead(
    endpoints.prevention.dates,
    { params, input: { crop: crop?.id ?? '', begins: begins ?? 'sown', placeId: placeId ?? '', year } },
    isAsked,
  )
  if (!known || !blocks) return <Waiting />
  const next = String(Number(site.season.start.slice(0, 4)) + 1) + site.season.start.slice(4)
  return (
    <Stack $gap={14}>
      <Fields style={{ alignItems: 'end' }}>
        <Select
          label={t('prevent.crop')}
          placeholder={t('choose')}
          width="22ch"
          options={annuals.map(({ id, name }) => ({ id, label: name }))}
          value={crop?.id ?? null}
          onChange={(id) => set({ crop: id, begins: null, day: null, look: null })}
        />
        <Select
          label={t('prevent.where')}
          placeholder={t('choose')}
          width="26ch"
          options={where}
          value={placeId ?? null}
          onChange={(id) => set({ place: id, day: null, look: null })}
        />
        {ways.length > 1 && begins ? (
          <Choice
            label={t('prevent.begins')}
            options={ways.map((id) => ({ id, label: t(`prevent.begins.${id}`) }))}
            value={begins}
            onChange={(id) => set({ begins: id, day: null })}
          />
        ) : null}
        <Choice
          label={t('prevent.year')}
          options={[
            { id: 'this', label: seasonName(site.season.start) },
            { id: 'next', label: seasonName(next) },
          ]}
          value={year}
          onChange={(id) => set({ year: id === 'this' ? null : id, day: null })}
        />
      </Fields>
      {!isAsked ? (
        <Empty>
          <p>{t('prevent.choose')}</p>
        </Empty>
      ) : dates && placeId ? (
        <Sowing dates={dates} placeId={placeId} day={search.get('day')} look={search.get('look')} set={set} />
      ) : (
        <Waiting />
      )}
    </Stack>
  )
}

function Sowing({
  dates,
  placeId,
  day: asked,
  look,
  set,
}: {
  dates: PlantingDates
  placeId: string
  day: string | null
  look: string | null
  set: (changes: Record<string, string | null>) => void
}) {
  const t = useText()
  const ids = look === null ? lookedAtFirst(dates) : look.split(' ')
  const looked = lookedAt(dates, ids)
  const key = ids.join(' ')
  // eslint-disable-next-line react-hooks/exhaustive-deps -- what is looked at follows from its ids
  const plans = useMemo(() => plansBy(dates, looked), [dates, key])
  const others = dates.meetings.length - looked.length
  const wanted = asked === null ? NaN : Number(asked)
  const best = plans.find(({ kind }) => kind === 'least')?.days[0]
  const day = Number.isInteger(wanted) && dates.dates[wanted] ? wanted : (best ?? dates.season.first)
  const choose = (next: number): void => set({ day: String(Math.min(dates.season.days - 1, Math.max(0, next))) })
  return (
    <Stack $gap={14}>
      <SowingPicture dates={dates} looked={looked} plans={plans} day={day} onChoose={choose} />
      <Columns $left="1.3fr" $right="1fr">
        <SowingSays dates={dates} looked={looked} day={day} placeId={placeId} />
        <Stack>
          <SowingPlans dates={dates} plans={plans} day={day} onChoose={choose} />
          {dates.meetings.length > 0 ? (
            <Unfold title={others > 0 ? t('prevent.others', { crop: dates.crop.name.toLowerCase(), count: others }) : t('prevent.which')}>
              <Picks
                label={t('prevent.panels')}
                value={ids}
                onChange={(next) => set({ look: next.join(' ') })}
                options={dates.meetings.map((meeting) => ({
                  id: meeting.organismId,
                  text: meeting.name,
                  more: <Quiet>{basisWords(meeting, t)}</Quiet>,
                }))}
              />
            </Unfold>
          ) : (
            <Small>{t('prevent.nothing')}</Small>
          )}
          <Unfold title={t('prevent.rests')}>
            <Small>{t('prevent.rests.text')}</Small>
            {looked.map((meeting) => (
              <Small key={meeting.organismId}>
                {meeting.name}: {basisWords(meeting, t)}
              </Small>
            ))}
          </Unfold>
        </Stack>
      </Columns>
    </Stack>
  )
}
