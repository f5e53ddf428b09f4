import type { Alert } from '@bocado/contract'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import '../messages/en/alerts.js'

const clock = (hour: number): string => `${String(hour % 24).padStart(2, '0')}:00`

/** What an alert says. */
export function alertSays({ kind, says, about }: Alert, t: Say, f: Format): string {
  const { name = '', place = '', state = '', flowers = '', share = 0, from = -1, until = -1, since, late } = says
  return t(`alert.${kind}`, {
    name,
    place,
    state,
    flowers,
    date: f.date(kind === 'bloom' && typeof late === 'string' ? late : about),
    share: f.percent(Number(share)),
    run: Number(from) < 0 ? 'none' : `${clock(Number(from))}–${clock(Number(until))}`,
    since: typeof since === 'string' && kind === 'silent' ? f.moment(since) : '',
  })
}
