import type { Say } from '../messages/useText.js'
import '../messages/en/library.js'

/** "holes in a leaf": a sign and the part that it is on. */
export const signWords = ({ part, sign }: { part: string; sign: string }, t: Say): string =>
  t('sign.on', { sign: t(`sign.${sign}` as Parameters<Say>[0]), part: t(`part.${part}` as Parameters<Say>[0]) })

/** "May to September", "November, April": months in their runs. */
export function monthsWords(months: readonly number[], t: Say, nameOf: (day: string) => string): string {
  const name = (month: number): string => nameOf(`2026-${String(month).padStart(2, '0')}-01`)
  if (months.length === 12) return t('organism.allYear')
  const runs: [number, number][] = []
  for (const month of months) {
    const last = runs.at(-1)
    if (last && (last[1] % 12) + 1 === month) last[1] = month
    else runs.push([month, month])
  }
  return runs.map(([from, to]) => (from === to ? name(from) : t('window.months.span', { from: name(from), to: name(to) }))).join(', ')
}
