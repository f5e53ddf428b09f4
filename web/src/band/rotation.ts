import type { Label, Treatment, WatchForecast } from '@bocado/contract'
import { dayNumber, rotationFault, rotationGroup, type RotationFault, type RotationUse } from '@bocado/core'

export type { RotationFault }

/** The generation that something on a day meets: the last of which the window has opened by then; the first before any has. */
function generationOn({ windows, watch }: WatchForecast, day: number): string | null {
  const at = day - dayNumber(watch.season)
  const opened = windows.filter(({ opens }) => opens.p50 !== null && Math.floor(opens.p50) <= at)
  return (opened.at(-1) ?? windows[0])?.generation ?? null
}

/** What a material used on a day puts on resistance. */
export const putOn = (row: WatchForecast, label: Pick<Label, 'actionGroup' | 'methods'>, day: number): Omit<RotationUse, 'id' | 'day'> => ({
  season: row.watch.season,
  organism: row.watch.organismId,
  disease: row.infection !== null,
  generation: generationOn(row, day),
  group: rotationGroup(label),
})

/** Uses of a season before: which generation each met nobody computes any more. */
export const usesBefore = (
  treatments: readonly Treatment[],
  rows: readonly WatchForecast[],
  watchOf: (watchId: string) => { organismId: string; blockId: string } | undefined,
  season: string,
): (RotationUse & { blockId: string })[] =>
  treatments.flatMap(({ id, watchId, done }) => {
    const watch = watchOf(watchId)
    if (!done?.label || !watch) return []
    const disease = rows.some(({ watch: { organismId }, infection }) => organismId === watch.organismId && infection !== null)
    return [
      {
        id,
        blockId: watch.blockId,
        day: dayNumber(done.day),
        season,
        organism: watch.organismId,
        disease,
        generation: null,
        group: rotationGroup(done.label),
      },
    ]
  })

/** What a material on a day does to the rotation of groups in the block of a watch, with the name of the deed that it meets. */
export function rotationHere(
  row: WatchForecast,
  rows: readonly WatchForecast[],
  planned: { id: string | null; label: Label; date: string },
  labelOf: (treatment: Treatment) => Label | null,
  before: readonly (RotationUse & { blockId: string })[],
): { fault: RotationFault; other: Treatment | undefined } | null {
  const day = dayNumber(planned.date)
  const { blockId } = row.watch
  const there = rows.filter(({ watch }) => watch.blockId === blockId)
  const deeds = there.flatMap((one) => one.treatments.map((treatment) => ({ one, treatment })))
  const others = deeds.flatMap(({ one, treatment }): RotationUse[] => {
    const label = labelOf(treatment)
    const on = dayNumber(treatment.done?.day ?? treatment.plannedOn)
    return label && treatment.id !== planned.id ? [{ ...putOn(one, label, on), id: treatment.id, day: on }] : []
  })
  const use = { ...putOn(row, planned.label, day), id: planned.id ?? '', day }
  const fault = rotationFault(use, [...before.filter((one) => one.blockId === blockId), ...others])
  return fault && { fault, other: deeds.find(({ treatment }) => treatment.id === fault.with)?.treatment }
}
