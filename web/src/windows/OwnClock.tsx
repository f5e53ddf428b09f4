import { endpoints, type EventClock } from '@bocado/contract'
import { useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Caution, Heading, Line, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'

/** The clock that dates of an event make where no figure is known, beside the calendar; taken and given up by a person. */
export function OwnClock({ of, watchId }: { of: EventClock; watchId: string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const take = useWrite(endpoints.calibration.takeClock)
  const { name, seasons, left, clock, taken } = of
  return (
    <Stack data-testid={`clock-${of.event}`}>
      <Heading as="h3">{name}</Heading>
      <p>{t('ownClock.seasons', { count: seasons.length, days: seasons.map(({ day }) => f.withYear(day)).join('; ') })}</p>
      {clock ? (
        <p>
          {t('ownClock.makes', {
            heat: f.heat(clock.heat),
            lower: `${f.number(f.measures.temperature.shown(clock.lower), 1)} ${f.measures.temperature.unit}`,
            error: f.number(clock.error.clock, 1),
            calendar: f.number(clock.error.calendar, 1),
            date: f.shortDate(clock.calendarDay),
          })}{' '}
          {clock.offered ? t('ownClock.nearer') : t(seasons.length < 5 ? 'ownClock.fewSeasons' : 'ownClock.notNearer')}
        </p>
      ) : (
        <p>{t('ownClock.notYet')}</p>
      )}
      {taken ? (
        <Line>
          <span style={{ flex: '1 1 24ch' }}>{t('ownClock.taken', { seasons: taken.seasons, current: taken.current ? 'yes' : 'no' })}</span>
          <RemoveButton
            remove={endpoints.calibration.dropClock}
            restore={endpoints.calibration.restoreClock}
            params={{ siteId: site.id, clockId: taken.id }}
            rowVersion={taken.rowVersion}
            words={t('ownClock.drop')}
            label={t('ownClock.dropOne', { name })}
            said={t('ownClock.dropped', { name })}
          />
        </Line>
      ) : null}
      {clock?.offered && !taken?.current ? (
        <Line>
          <Button
            isDisabled={take.isBarred}
            onPress={() => void take.save({ params: { siteId: site.id, watchId }, input: { event: of.event } })}
          >
            {t(taken ? 'ownClock.takeNewer' : 'ownClock.take')}
          </Button>
        </Line>
      ) : null}
      {left.map((season) => (
        <Caution key={season}>{t('ownClock.left', { season: season.slice(0, 4) })}</Caution>
      ))}
    </Stack>
  )
}
