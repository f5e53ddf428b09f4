import type { Organism } from './schema.js'

/** An event that can be seen and dated. */
export interface DatableEvent {
  id: string
  name: string
  /** The stage that begins with it. */
  stage: string
  /** A published sum of heat that dates it. */
  figure?: Organism['named'][number]['figure']
  /** Whether the entry has a figure of heat for it that is more than a placeholder. */
  hasFigure: boolean
}

/**
 * Every event of an entry that can be dated: those on the heat scale, and those that are only named. An entry of somebody's own that
 * names none has the beginning of each of its stages.
 */
export function datedEvents({
  generations,
  named,
  stages,
  heat,
}: Pick<Organism, 'generations' | 'named' | 'stages' | 'heat'>): DatableEvent[] {
  const guessed = heat.confidence === 'placeholder'
  const byHeat = generations.flatMap(({ events }) =>
    events.map(({ id, name, stage, heat: figure }) => ({ id, name, stage, hasFigure: !guessed && figure.confidence !== 'placeholder' })),
  )
  const seen = named.map((event) => ({ ...event, hasFigure: false }))
  if (byHeat.length + seen.length > 0) return [...byHeat, ...seen]
  return stages.map(({ id, name }) => ({ id: `first-${id}`, name: `first ${name}`, stage: id, hasFigure: false }))
}
