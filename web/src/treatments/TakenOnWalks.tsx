import type { Band, Taken } from '@bocado/contract'
import { Link } from 'react-router'
import { useFlags } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { depletionBy } from '../band/depletion.js'
import { Heading, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/walked.js'
import '../messages/en/work.js'

interface Walked {
  id: string
  day: string
  name: string
  place: string
  taken: Taken | null
  how: string
  minutes: number | null
  personName: string
  to: string
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
        day: visit.seenOn,
        name: `${flag.organismName ?? t('walked.unnamed')} #${flag.number}`,
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
        {all.map((one) => (
          <li key={one.id}>
            <Link to={`/sites/${site.id}/${one.to}`}>{one.name}</Link>{' '}
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
          </li>
        ))}
      </Rows>
    </Stack>
  )
}
