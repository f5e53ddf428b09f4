import type { Downwind } from '@bocado/contract'
import { isOnArc } from '@bocado/core/compass'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import '../messages/en/wind.js'

/** The wind of a record: how strong, and from where, as far as either was noted. */
export function windWords({ windMs, windFrom }: { windMs: number | null; windFrom: number | null }, t: Say, f: Format): string | null {
  const from = windFrom === null ? 'none' : f.compass(windFrom)
  if (windMs !== null) return t('wind.said', { wind: f.wind(windMs), from })
  return windFrom === null ? null : t('wind.saidFrom', { from })
}

/** What lies beside a place and its distance: by its name, or as what it is. */
const nameOf = ({ name, kind, metres }: Downwind, t: Say, f: Format): string =>
  t('wind.there', { name: name || t(`wind.kind.${kind}`), away: f.height(metres) })

/** From where the wind must not blow, thing by thing; what lies within the place, no wind keeps clear. */
export function keepFromWords(downwind: readonly Downwind[], t: Say, f: Format): string {
  const lines = downwind.map((one) => {
    if (one.from === null) return t('wind.within', { name: one.name || t(`wind.kind.${one.kind}`) })
    const whole = one.from.to - one.from.from >= 360
    return t('wind.arc', {
      there: nameOf(one, t, f),
      from: whole ? 'all' : f.compass(one.from.from),
      to: f.compass(one.from.to),
    })
  })
  return lines.join('; ')
}

/** What the wind from a direction would be carried to. */
export const carriedTo = (downwind: readonly Downwind[], degrees: number | null, t: Say, f: Format): string[] =>
  degrees === null ? [] : downwind.filter(({ from }) => from !== null && isOnArc(degrees, from)).map((one) => nameOf(one, t, f))
