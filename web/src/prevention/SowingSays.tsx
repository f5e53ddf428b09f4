import { endpoints, type PlantingDates } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { coverFor, stripsFor, type Looked } from '../band/planting.js'
import { Bullets, Caution, Heading, Line, Rows, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { PutOnSchedule } from './PutOnSchedule.js'
import '../messages/en/crops.js'
import '../messages/en/prevent.js'

/** Less than this is said in words. */
const HARDLY_ANY = 0.02

/** What the chosen day brings, and what it asks for. */
export function SowingSays({
  dates,
  looked,
  day,
  placeId,
}: {
  dates: PlantingDates
  looked: readonly Looked[]
  day: number
  placeId: string
}) {
  const t = useText()
  const f = useFormat()
  const date = dates.dates[day]
  if (!date) return null
  const { start, first } = dates.season
  const dateOf = (at: number): string => f.date(f.seasonDay(start, at))
  return (
    <Stack data-testid="sowing-says">
      <Heading>{t('prevent.on', { how: dates.begins, date: dateOf(day) })}</Heading>
      {day < first ? <Caution>{t('prevent.passed')}</Caution> : null}
      <Bullets>
        {looked.map(({ organismId, name, at }) => {
          const met = date.met[at]
          if (!met) return null
          const { share, beforeHarvest } = met
          if (share.p50 < HARDLY_ANY && share.p90 < 3 * HARDLY_ANY)
            return <li key={organismId}>{t('prevent.meetsNone', { organism: name })}</li>
          return (
            <li key={organismId}>
              {t('prevent.meetsOne', {
                organism: name,
                share: f.percent(share.p50),
                low: f.percent(share.p10),
                high: f.percent(share.p90),
                before: share.p50 - beforeHarvest.p50 > HARDLY_ANY ? f.percent(beforeHarvest.p50) : 'none',
              })}
            </li>
          )
        })}
        {date.harvest ? (
          <li>
            {t('prevent.picked', {
              date: dateOf(date.harvest.p50),
              from: dateOf(date.harvest.p10),
              until: dateOf(date.harvest.p90),
            })}
          </li>
        ) : null}
        <li>{frostWords(dates, date, t, f)}</li>
      </Bullets>
      <AsksFor dates={dates} looked={looked} day={day} placeId={placeId} />
      <Ground dates={dates} />
      <Kinds looked={looked} />
    </Stack>
  )
}

function frostWords(
  { crop, frostSeasons: seasons }: PlantingDates,
  { springFrost, autumnFrost }: PlantingDates['dates'][number],
  t: ReturnType<typeof useText>,
  f: ReturnType<typeof useFormat>,
): string {
  if (!crop.frostKills) return t('prevent.frost.bears')
  if (springFrost === null || autumnFrost === null) return t('prevent.frost.unknown')
  if (springFrost === 0 && autumnFrost === 0) return t('prevent.frost.none', { seasons })
  const often = (share: number): string => f.number(share * seasons)
  return t('prevent.frost.some', { spring: often(springFrost), autumn: often(autumnFrost), seasons })
}

/** Work that the day asks for, each with its own day. */
function AsksFor({ dates, looked, day, placeId }: { dates: PlantingDates; looked: readonly Looked[]; day: number; placeId: string }) {
  const t = useText()
  const f = useFormat()
  const { crop, begins, season } = dates
  const dayOf = (at: number): string => f.seasonDay(season.start, at)
  if (day < season.first) return null
  const cover = coverFor(dates, day, looked)
  const name = crop.name.toLowerCase()
  const work = [
    ...stripsFor(dates, day, looked).map((strip) => ({
      what: t('prevent.strip', { organism: strip.organism.toLowerCase(), crop: name }),
      why: t('prevent.stripWhy'),
      at: strip.day,
      kind: 'sowing' as const,
    })),
    { what: t('prevent.sow', { how: begins, crop: name }), why: '', at: day, kind: 'sowing' as const },
    ...(cover.kind === 'cover'
      ? [
          { what: t('prevent.coverOn', { crop: name }), why: '', at: cover.on, kind: 'crop-work' as const },
          {
            what: t('prevent.coverOff', { crop: name }),
            why: t(`prevent.coverOffWhy.${cover.why}`, { stage: cover.stage ? t(`crops.stage.${cover.stage as 'first-flower'}`) : '' }),
            at: cover.off,
            kind: 'crop-work' as const,
          },
        ]
      : []),
  ]
  return (
    <Stack>
      <h3>{t('prevent.asks')}</h3>
      {cover.kind === 'not' ? (
        <Caution>
          {t('prevent.coverNot', { organism: cover.organism, crop: cover.crop.toLowerCase(), date: f.withYear(cover.until) })}
        </Caution>
      ) : null}
      <Rows data-testid="sowing-asks">
        {work.map(({ what, why, at, kind }) => (
          <li key={what}>
            <Line $gap={12}>
              <span>
                {f.date(dayOf(at))}: {what}
              </span>
              <PutOnSchedule placeId={placeId} name={what} kind={kind} day={dayOf(at)} />
            </Line>
            {why ? <Small>{why}</Small> : null}
          </li>
        ))}
      </Rows>
    </Stack>
  )
}

function Ground({ dates }: { dates: PlantingDates }) {
  const t = useText()
  const f = useFormat()
  const { sameFamily, clear } = dates
  return (
    <Stack>
      <h3>{t('prevent.ground')}</h3>
      {sameFamily.length === 0 ? <p>{t('prevent.familyNone')}</p> : null}
      {sameFamily.map(({ cropName, until }) => (
        <Caution key={`${cropName} ${until}`}>{t('prevent.family', { crop: cropName, date: f.withYear(until) })}</Caution>
      ))}
      {sameFamily.length > 0 && clear.length > 0 ? (
        <Small>
          {t('prevent.clear', {
            list: clear
              .map(({ name, metres }) => t('prevent.clearOne', { name, metres: metres === null ? 'none' : f.height(metres) }))
              .join(', '),
          })}
        </Small>
      ) : null}
    </Stack>
  )
}

/** Which kinds bear what comes, by the library and by what was looked at here. */
function Kinds({ looked }: { looked: readonly Looked[] }) {
  const t = useText()
  const told = looked.filter(({ varieties }) => varieties.length > 0)
  return told.length === 0 ? null : (
    <Unfold title={t('prevent.kinds')}>
      <Bullets>
        {told.map((meeting) => (
          <KindsOf key={meeting.organismId} meeting={meeting} />
        ))}
      </Bullets>
    </Unfold>
  )
}

function KindsOf({ meeting }: { meeting: Looked }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { organismId, name: organism } = meeting
  const { data } = useRead(endpoints.varieties.get, { params: { siteId: site.id }, input: { organismId } })
  return (
    <>
      {meeting.varieties.map(({ what, effect }) => (
        <li key={what}>{t('prevent.kind', { what, effect, organism })}</li>
      ))}
      {(data?.standings ?? []).map(({ variety, share, looked, part }) => (
        <li key={`${variety} ${part}`}>{t('prevent.kindOwn', { variety, share: f.percent(share), looked, organism })}</li>
      ))}
    </>
  )
}
