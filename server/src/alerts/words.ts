import type { Alert } from '@bocado/contract'

/** "Thu 18 Jun". */
export const dayWords = (day: string): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', weekday: 'short', day: 'numeric', month: 'short' })
    .format(new Date(`${day}T00:00:00Z`))
    .replace(',', '')

const clock = (hour: string | number | undefined): string => `${String(hour).padStart(2, '0')}:00`

/** What an alert says where no page is there to say it: in mail, and in calendars. */
export function alertWords({ kind, says, about }: Alert): string {
  const { name = '', place = '', from, until, share, flowers = '', state } = says
  const day = dayWords(about)
  const words: Record<Alert['kind'], string> = {
    opens: `${name}, ${place}: the window opens ${day}.`,
    peak: `${name}, ${place}: most can be reached about ${day}.`,
    closes: `${name}, ${place}: the window closes about ${day}.`,
    infection:
      state === 'cure'
        ? `${name}, ${place}: infection on ${day} can still be cured.`
        : `${name}, ${place}: infection is likely on ${day}; protect before it.`,
    hours:
      Number(from) < 0
        ? `${name}, ${place}: no hour of today is left in which it may be used.`
        : `${name}, ${place}: can be used today from ${clock(from)} to ${clock(until)}.`,
    frost: `${name}: frost in the night to ${day} in ${Math.round(Number(share) * 100)} % of the forecast, while ${flowers} may flower.`,
    entry: `${place}: open again after ${name}.`,
    count: `${name}, ${place}: a count is due.`,
    bloom: `${name}: expected, and nobody has written that it came.`,
    silent: `${name}: the station has sent nothing for hours.`,
    order: `${name}, ${place}: order by ${day}, so that it is there in time.`,
    keeps: `${name}, ${place}: keeps until ${day}; put it out, or it dies.`,
  }
  return words[kind]
}
