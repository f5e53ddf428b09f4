import type { WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { isAtSowing } from '../band/late.js'
import { handMeans, productMeans, type Means } from '../band/means.js'
import { MORNING_DAYS, notShown, opensSoon, type TodayLine } from '../band/today.js'
import type { Errand } from '../band/walk.js'
import { TextButton } from '../design/buttons.js'
import { Caution, Empty, Line, Page, Small, Stack, Title } from '../design/text.js'
import { colour, PHONE, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { partLater } from '../shell/partLater.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { useProducts } from '../api/hooks.js'
import { FirstStepsHere } from '../windows/FirstStepsHere.js'
import { chosenOf, useMethods, useOffered, useShelfFor } from '../windows/useShelfFor.js'
import { useHours } from '../windows/useHours.js'
import { AlertsToday } from '../alerts/AlertsToday.js'
import { AroundHere } from './AroundHere.js'
import { Changed } from './Changed.js'
import { FindsWait } from './FindsWait.js'
import { HourRow, HourRowLater, HoursOfDay } from './HoursOfDay.js'
import { OpensSoon, SOON_DAYS } from './OpensSoon.js'
import { linePath, lineWhat, lineWhen, lineWhy, type NameOf } from './todayWords.js'
import { useMorning, type Morning } from './useMorning.js'
import '../messages/en/today.js'

const DoorSheets = partLater(async () => (await import('./DoorSheets.js')).DoorSheets)

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr);
  gap: 28px;
  align-items: start;
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
  }
`
const Lines = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 2px solid ${colour.ink};
  li {
    display: grid;
    grid-template-columns: 15ch minmax(0, 1fr) max-content;
    gap: 2px 16px;
    align-items: center;
    padding: 10px 0;
    border-bottom: 1px solid ${colour.rule};
    break-inside: avoid;
  }
  .when {
    font-weight: 650;
    align-self: start;
  }
  li[data-late] .when {
    color: ${colour.beet};
  }
  .why {
    border-left: 3px solid ${colour.rule};
    padding-left: 8px;
    font-size: ${size.small};
    color: ${colour.inkSoft};
  }
  .go {
    display: inline-grid;
    place-items: center;
    min-height: 40px;
    padding: 0 14px;
    border-radius: 4px;
    background: ${colour.bar};
    color: ${colour.onBar};
    text-decoration: none;
    font-weight: 600;
  }
  li:not([data-now]) .go {
    background: none;
    color: ${colour.petrol};
    text-decoration: underline;
    padding: 0;
  }
  @media ${PHONE} {
    li {
      grid-template-columns: minmax(0, 1fr) max-content;
    }
    .when {
      grid-column: 1 / -1;
    }
    .go {
      min-height: 48px;
    }
  }
  @media print {
    .go {
      display: none;
    }
  }
`

/** So many lines are read in a garden, and elsewhere; the rest of the week is one press away. */
const FEW = { garden: 3, farm: 8, land: 8, others: 8 } as const
/** So many have their hours shown. */
const HOURS_SHOWN = 3

/** The morning: what has to be done today and by when, what opens soon, what to go and count, and what changed. */
export function TodayScreen() {
  const t = useText()
  usePageTitle(t('nav.today'))
  const morning = useMorning()
  const [sheets, setSheets] = useState(false)
  const { isPast } = useSeasonChoice()
  if (isPast)
    return (
      <Page>
        <Title>{t('nav.today')}</Title>
        <Empty>
          <p>{t('today.past')}</p>
        </Empty>
      </Page>
    )
  if (!morning) return <Waiting />
  if (sheets) return <DoorSheets morning={morning} onDone={() => setSheets(false)} />
  return <MorningPage morning={morning} onSheets={() => setSheets(true)} />
}

function MorningPage({ morning, onSheets }: { morning: Morning; onSheets: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { lines, walked, closed, blockName } = morning
  const [open, setOpen] = useState(false)
  const rows = walked.band.watches
  const soon = opensSoon(rows, site.today, SOON_DAYS)
  const few = FEW[site.kind]
  const isNow = ({ due }: TodayLine): boolean => due <= site.today
  const shown = open ? lines : lines.slice(0, few)
  const pressing = lines.filter(isNow)
  const deeds = pressing.filter(({ kind }) => kind === 'deed' || kind === 'supply' || kind === 'step' || kind === 'decide').length
  return (
    <>
      <FirstStepsHere band={walked.band} />
      <Page>
        <Stack $gap={22}>
          <HoursToday lines={lines} />
          <Two>
            <Stack>
              <Title>{t('today.heading', { date: f.date(site.today), deeds, looks: pressing.length - deeds })}</Title>
              {closed.map(({ id, done, placeName, name }) => (
                <Caution key={id}>{t('today.entry', { place: placeName, name, when: f.moment(done?.reEntryUntil ?? '') })}</Caution>
              ))}
              {lines.length === 0 ? (
                <Empty>
                  <p>{t('today.nothing')}</p>
                </Empty>
              ) : (
                <Lines data-testid="today-lines">
                  {shown.map((line) => (
                    <One key={line.id} line={line} place={blockName(line.blockId)} isNow={isNow(line)} nameOf={morning.nameOf} />
                  ))}
                </Lines>
              )}
              <Line style={{ justifyContent: 'space-between' }}>
                {lines.length > shown.length || open ? (
                  <TextButton aria-expanded={open} onPress={() => setOpen(!open)}>
                    {open
                      ? t('today.fewer')
                      : t('today.more', {
                          count: lines.length - shown.length,
                          now: pressing.length - Math.min(pressing.length, shown.length),
                        })}
                  </TextButton>
                ) : (
                  <span />
                )}
                <TextButton onPress={onSheets}>{t('today.sheet')}</TextButton>
              </Line>
              <Small>
                {t('today.notShown', { count: notShown(rows, lines, soon), until: f.date(f.nudge(site.today, MORNING_DAYS)) })}{' '}
                <Link to={`/sites/${site.id}/windows`}>{t('today.all')}</Link>
              </Small>
            </Stack>
            <Stack $gap={22}>
              <OpensSoon rows={soon} blooms={walked.band.blooms} />
              <Changed morning={morning} />
              <AroundHere />
              <AlertsToday />
              <FindsWait />
            </Stack>
          </Two>
        </Stack>
      </Page>
    </>
  )
}

/** What a deed is done with; undefined while the shelf comes. */
function useMeansOf(): (line: TodayLine) => Means | undefined {
  const site = useSite()
  const { data: products } = useProducts(site.id)
  const { data: methods } = useMethods()
  return ({ treatment }) => {
    const product = products?.find(({ id }) => id === treatment?.productId)
    const method = methods?.find(({ id }) => id === treatment?.methodId)
    return product ? productMeans(product) : method ? handMeans(method) : undefined
  }
}

const isErrand = (kind: TodayLine['kind']): kind is Errand['kind'] => ['count', 'trap', 'flags', 'plots', 'arrival'].includes(kind)

function One({ line, place, isNow, nameOf }: { line: TodayLine; place: string; isNow: boolean; nameOf: NameOf }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const meansOf = useMeansOf()
  const isDeed = line.kind === 'deed' && line.due <= site.today
  const hours = useHours(isDeed ? line.row : undefined, isDeed ? meansOf(line) : undefined)
  const what = lineWhat(line, t, nameOf)
  const { kind } = line
  const go = isErrand(kind) ? t(`walk.go.${kind}`) : t(`today.go.${kind}`)
  const named = line.kind === 'deed' ? (line.row?.organismName ?? '') : place
  return (
    <li data-now={isNow || undefined} data-late={line.due < site.today || undefined} data-kind={line.kind}>
      <span className="when">{lineWhen(line, hours, t, f)}</span>
      <span>
        <b>{what}</b>
        {named === '' ? '' : `, ${named}`}
        <div className="why">{lineWhy(line, site.season.start, t, f)}</div>
      </span>
      <Link className="go" to={linePath(line, site.id)} aria-label={t('today.goOne', { go, what: `${what}, ${named}` })}>
        {go}
      </Link>
    </li>
  )
}

/** The hours of what is to be done or decided today, up to three of them. */
function HoursToday({ lines }: { lines: readonly TodayLine[] }) {
  const site = useSite()
  const due = lines.filter(({ kind, due: day }) => (kind === 'deed' || kind === 'decide') && day <= site.today).slice(0, HOURS_SHOWN)
  return due.length === 0 ? null : (
    <HoursOfDay>
      {due.map((line) =>
        line.row === undefined ? null : line.kind === 'deed' ? (
          <OfDeed key={line.id} line={line} row={line.row} />
        ) : (
          <OfDecision key={line.id} row={line.row} />
        ),
      )}
    </HoursOfDay>
  )
}

function OfDeed({ line, row }: { line: TodayLine; row: WatchForecast }) {
  const meansOf = useMeansOf()
  const means = meansOf(line)
  return means ? <HourRow row={row} means={means} place={line.treatment?.placeName ?? ''} /> : <HourRowLater />
}

/** Of what is not planned yet, by what would be thought of first. */
function OfDecision({ row }: { row: WatchForecast }) {
  const shelf = useShelfFor(row.watch)
  const now = useOffered(shelf).filter(({ means: way }) => !isAtSowing(way))
  const means = chosenOf(now, row, { means: null, moving: null })?.means
  if (!shelf.known) return <HourRowLater />
  return means && shelf.block ? <HourRow row={row} means={means} place={shelf.block.name} /> : null
}
