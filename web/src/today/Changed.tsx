import { endpoints, type bloomEvents } from '@bocado/contract'
import { useRead, useStations } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Heading, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import type { Morning } from './useMorning.js'
import '../messages/en/field.js'
import '../messages/en/today.js'

/** As many as are read in a morning. */
const MOST = 6

/** What moved, came in or fell silent since yesterday. */
export function Changed({ morning }: { morning: Morning }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: stations = [] } = useStations(site.id)
  const { data: records = [] } = useRead(endpoints.bloom.records, { params: { siteId: site.id }, input: {} })
  const { walked, blockName } = morning
  const yesterday = f.nudge(site.today, -1)
  const rows = walked.band.watches
  const said = [
    ...stations
      .filter(({ silent }) => silent)
      .map(({ id, name, lastHour }) => ({
        id,
        name: null,
        text: t('today.silent', { station: name, last: lastHour === null ? 'none' : f.moment(lastHour) }),
      })),
    ...rows.flatMap(({ watch, moved, organismName }) =>
      moved
        ? [
            {
              id: `moved ${watch.id}`,
              name: organismName,
              text: t('today.moved', {
                place: blockName(watch.blockId),
                days: Math.abs(moved.days),
                way: moved.days < 0 ? 'earlier' : 'later',
                since: f.date(moved.since),
              }),
            },
          ]
        : [],
    ),
    ...rows.flatMap(({ watch, organismName, rounds }) =>
      rounds
        .filter(({ countedOn, checkAreaId }) => checkAreaId === null && countedOn >= yesterday)
        .map(({ id, countedOn, per100 }) => ({
          id,
          name: organismName,
          text: t('today.countedSince', { place: blockName(watch.blockId), count: f.number(per100, 1), date: f.date(countedOn) }),
        })),
    ),
    ...rows.flatMap(({ treatments }) =>
      treatments
        .filter(({ done }) => done && done.day >= yesterday)
        .map(({ id, name, placeName, done }) => ({
          id,
          name: null,
          text: t('today.doneSince', { name, place: placeName, date: f.date(done?.day ?? '') }),
        })),
    ),
    ...records
      .filter(({ seenTo, notYet }) => !notYet && seenTo >= yesterday && seenTo <= site.today)
      .map(({ id, plantId, plantName, event, seenTo }) => ({
        id,
        name: null,
        text: t('today.seenSince', {
          plant: plantName ?? walked.band.blooms.find(({ plant }) => plant === plantId)?.name ?? plantId,
          event: t(`bloom.event.${event as (typeof bloomEvents)[number]}`),
          date: f.date(seenTo),
        }),
      })),
  ].slice(0, MOST)
  return (
    <Stack $gap={8} data-part="changed" data-testid="changed">
      <Heading>{t('today.changed')}</Heading>
      {said.length === 0 ? <Small>{t('today.changedNone')}</Small> : null}
      <Rows>
        {said.map(({ id, name, text }) => (
          <li key={id}>
            {name === null ? null : <b>{name} </b>}
            {text}
          </li>
        ))}
      </Rows>
    </Stack>
  )
}
