import type { Round } from '@bocado/contract'
import { depletion } from '@bocado/core'

/** How many there were where one swept the same ground several times on one day, in pieces, by day. */
export function depletionBy(rounds: readonly Round[]): { day: string; there: number; left: number }[] {
  const swept = rounds.filter(({ taken, minutes, checkAreaId }) => taken?.unit === 'pieces' && (minutes ?? 0) > 0 && checkAreaId === null)
  return [...new Set(swept.map(({ countedOn }) => countedOn))].flatMap((day) => {
    const sweeps = swept.filter(({ countedOn }) => countedOn === day)
    const found = depletion(sweeps.map(({ taken, minutes }) => ({ taken: taken?.amount ?? 0, minutes: minutes ?? 1 })))
    return found ? [{ day, ...found }] : []
  })
}
