import type { coverClasses, FlagVisit, heightClasses, Taken } from '@bocado/contract'
import type { SmallPhoto } from '../library/photo.js'

/** Stands for a choice that nobody made. */
export const NONE = 'none'

/** What is typed of a look at a flag. */
export type SeenValues = {
  seenOn: string | null
  plants: number | null
  areaM2: number | null
  stage: string
  height: string
  cover: string
  methodId: string
  taken: number | null
  takenUnit: string
  minutes: number | null
  dueOn: string | null
  note: string
}

export const nothingSeen = (today: string | null): SeenValues => ({
  seenOn: today,
  plants: null,
  areaM2: null,
  stage: NONE,
  height: NONE,
  cover: NONE,
  methodId: NONE,
  taken: null,
  takenUnit: 'pieces',
  minutes: null,
  dueOn: null,
  note: '',
})

const chosen = <T extends string>(id: string): T | null => (id === NONE ? null : (id as T))

/** What was typed, as the endpoint takes it. Where nothing stands, nothing is said of how it stands. */
export function seenInput(v: SeenValues, sight: FlagVisit['sight'], photo: SmallPhoto | null, today: string) {
  const isUp = sight === 'standing' || sight === 'regrowing'
  return {
    seenOn: v.seenOn ?? '',
    sight,
    plants: isUp ? v.plants : null,
    areaM2: isUp ? v.areaM2 : null,
    stage: isUp ? chosen(v.stage) : null,
    height: isUp ? chosen<(typeof heightClasses)[number]>(v.height) : null,
    cover: isUp ? chosen<(typeof coverClasses)[number]>(v.cover) : null,
    methodId: chosen(v.methodId),
    taken: v.taken === null ? null : { amount: v.taken, unit: v.takenUnit as Taken['unit'] },
    minutes: v.minutes,
    dueOn: v.dueOn,
    photo: photo ? { jpeg: photo.jpeg, takenOn: photo.takenOn ?? today, position: null } : null,
    note: v.note,
  }
}
