import { endpoints, type Treatment, type WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { useWrite } from '../api/hooks.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import type { DraftPin, PinEvent } from '../band/Pins.js'
import { firstDayOffered } from '../band/urgency.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'

/** A treatment that is being thought about: its day, and the planned one that it moves, where it does. */
export interface Planning {
  date: string | null
  moving: Treatment | null
  setDate: (date: string | null) => void
  /** Key of what it is to be done with, where somebody chose it. */
  means: string | null
  setMeans: (key: string | null) => void
  take: (treatment: Treatment) => void
  /** Forgets what is being thought about. */
  clear: () => void
  draft: DraftPin | null
  /** A pin of the band was taken, moved or let go. */
  onPin: (event: PinEvent) => void
}

interface Thought {
  watchId: string
  date: string | null
  moving: Treatment | null
  means: string | null
}

/** What is being planned for the chosen watch; the panel and the pin on the band work on the same. */
export function usePlanning(forecast: WatchForecast | undefined): Planning {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { isPast } = useSeasonChoice()
  const move = useWrite(endpoints.treatments.move)
  const undo = useUndo()
  const [thought, setThought] = useState<Thought | null>(null)
  const watchId = forecast?.watch.id ?? ''
  const start = forecast?.watch.season ?? site.season.start
  const held = thought?.watchId === watchId ? thought : null
  const usual = forecast ? f.seasonDay(start, firstDayOffered(forecast, f.seasonIndex(start, site.today))) : null
  const date = held ? held.date : usual
  const moving = held?.moving ?? null
  const means = held?.means ?? null
  const think = (next: Partial<Omit<Thought, 'watchId'>>): void => setThought({ watchId, date, moving, means, ...next })

  const drop = async (): Promise<void> => {
    if (!moving || !date || date === moving.plannedOn) return
    const params = { siteId: site.id, treatmentId: moving.id }
    const input = { productId: moving.productId, methodId: moving.methodId, placeId: moving.placeId, note: moving.note }
    const moved = await move.save({ params, input: { ...input, plannedOn: date, rowVersion: moving.rowVersion } })
    setThought(null)
    undo.offer(t('plan.moved', { date: f.date(date) }), () =>
      move.save({ params, input: { ...input, plannedOn: moving.plannedOn, rowVersion: moved.rowVersion } }),
    )
  }
  return {
    date,
    moving,
    setDate: (next) => think({ date: next }),
    means,
    setMeans: (key) => think({ means: key }),
    take: (treatment) => think({ moving: treatment, date: treatment.plannedOn, means: null }),
    clear: () => setThought(null),
    draft: forecast && date && !isPast ? { watchId, dayIndex: f.seasonIndex(start, date), moving: moving?.id ?? null } : null,
    onPin: (event) => {
      if (event.kind === 'take') think({ moving: event.treatment, date: event.treatment.plannedOn, means: null })
      else if (event.kind === 'drop') void drop()
      else
        setThought((now) => ({
          moving: now?.watchId === watchId ? now.moving : null,
          means: now?.watchId === watchId ? now.means : null,
          watchId,
          date: f.seasonDay(start, event.dayIndex),
        }))
    },
  }
}
