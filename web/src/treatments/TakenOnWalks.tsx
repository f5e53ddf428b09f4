import type { Band, Taken } from '@bocado/contract'
import { Link } from 'react-router'
import { useFlags } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { depletionBy } from '../band/depletion.js'
import { Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/walked.js'
import '../messages/en/work.js'

interface Walked {
  id: string
  /** What was walked for, where and how on one day: one line. */
  walk: string
  day: string
  name: string
  /** Of its flag; none where it was counted. */
  number?: number
  place: string
  taken: Taken | null
  how: string
  minutes: number | null
  personName: string
  to: string
}

/** Flags that one walk went along, in one line with what was taken in all, where that was measured alike. */
function walksOf(all: readonly Walked[]): (Walked & { flags: { number: number; to: string }[] })[] {
  const walks = new Map<string, Walked[]>()
  for (const one of all) walks.set(one.walk, [...(walks.get(one.walk) ?? []), one])
  return [...walks.values()].flatMap((walk) => {
    const [first] = walk
    if (!first) return []
    const units = new Set(walk.flatMap(({ taken }) => taken?.unit ?? []))
    const [unit] = units
    const sum = (of: (one: Walked) => number | null | undefined): number => walk.reduce((total, one) => total + (of(one) ?? 0), 0)
    return [
      {
        ...first,
        taken: unit !== undefined && units.size === 1 ? { amount: sum(({ taken }) => taken?.amount), unit } : null,
        minutes: walk.every(({ minutes }) => minutes === null) ? null : sum(({ minutes }) => minutes),
        flags: walk.flatMap(({ number, to }) => (number === undefined ? [] : [{ number, to }])).sort((a, b) => a.number - b.number),
      },
    ]
  })
}

/** What was picked, pulled or crushed while somebody counted or looked at flags: deeds as well, written down where they were done. */
export function TakenOnWalks({ band, placeOf }: { band: Band; placeOf: (blockId: string) => string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useFlags(site.id)
  const counted = band.watches.flatMap(({ rounds, watch, organismName }) =>
    rounds.flatMap((round): Walked[] =>
      round.taken
        ? [
            {
              id: round.id,
              walk: round.id,
              day: round.countedOn,
              name: organismName,
              place: round.checkAreaName ?? placeOf(watch.blockId),
              taken: round.taken,
              how: '',
              minutes: round.minutes,
              personName: round.personName,
              to: `scouting/${watch.id}/count?round=${round.id}`,
            },
          ]
        : [],
    ),
  )
  const flagged = (data?.flags ?? []).flatMap((flag) =>
    flag.visits
      .filter(({ taken, methodId, seenOn }) => (taken !== null || methodId !== null) && seenOn >= site.season.start)
      .map((visit): Walked => ({
        id: visit.id,
        walk: [flag.organismId, flag.placeId, visit.methodId, visit.seenOn, visit.personName].join(' '),
        day: visit.seenOn,
        name: flag.organismName ?? t('walked.unnamed'),
        number: flag.number,
        place: flag.placeName,
        taken: visit.taken,
        how: visit.methodName ?? '',
        minutes: visit.minutes,
        personName: visit.personName,
        to: `scouting?panel=flags&flag=${flag.id}`,
      })),
  )
  const all = [...counted, ...flagged].sort((a, b) => (a.day < b.day ? 1 : -1))
  if (all.length === 0) return null
  const swept = band.watches.flatMap(({ rounds, organismName }) => depletionBy(rounds).map((found) => ({ ...found, organismName })))
  return (
    <Stack>
      <Heading>{t('walked.title')}</Heading>
      {swept.map(({ day, there, left, organismName }) => (
        <Small key={`${organismName} ${day}`}>
          {t('walked.depletion', { name: organismName, date: f.date(day), there: f.number(there, 0), left: f.number(left, 0) })}
        </Small>
      ))}
      <Rows>
        {walksOf(all).map(({ flags, ...one }) => (
          <li key={one.id}>
            {flags.length > 1 ? (
              <b>{t('walked.flags', { name: one.name, count: flags.length })}</b>
            ) : (
              <Link to={`/sites/${site.id}/${one.to}`}>{flags.length === 1 ? `${one.name} #${flags[0]?.number}` : one.name}</Link>
            )}{' '}
            {[
              one.how,
              one.taken ? t('treatments.taken', { amount: f.number(one.taken.amount, 1), unit: t(`taken.${one.taken.unit}`) }) : '',
            ]
              .filter(Boolean)
              .join(', ')}{' '}
            <Quiet>
              {[
                one.place,
                f.date(one.day),
                one.minutes === null ? '' : t('treatments.took', { minutes: one.minutes }),
                one.taken && one.minutes ? t('walked.each', { each: f.number((60 * one.taken.amount) / one.minutes, 0) }) : '',
                one.personName,
              ]
                .filter(Boolean)
                .join(', ')}
            </Quiet>
            {flags.length > 1 ? (
              <Unfold title={t('walked.which')}>
                <Line>
                  {flags.map(({ number, to }) => (
                    <Link key={to} to={`/sites/${site.id}/${to}`}>
                      #{number}
                    </Link>
                  ))}
                </Line>
              </Unfold>
            ) : null}
          </li>
        ))}
      </Rows>
    </Stack>
  )
}
