import { dayNumber, stationDays as daysFrom, type Position, type StationDays as DaysOfStation } from '@bocado/core'
import { LRUCache } from 'lru-cache'
import type { Queryable } from '../database/index.js'
import { ContentSum } from './contentKey.js'
import { doubtedDays, listDayDecisions, type DoubtedDay } from './doubtedDays.js'
import { listFixes, type StoredFix } from './fixStore.js'
import { believed, checkedStation, type StationHours } from './quality.js'
import { HOUR_VALUES, readDays, readTypedDays, type TypedDayRow } from './readingStore.js'
import { isNothing, rawHours, type RawHours } from './stationHours.js'
import type { StoredStation } from './store.js'

/** A station over all its years, with what is believed of each hour. */
export interface StationDays extends DaysOfStation {
  /** The hours behind its days. */
  hours: StationHours
  /** Days of which a file gave the extremes alone. */
  daysAlone: number
  /** Days of files that lie outside what the place has had; those that nobody believed are left out. */
  doubtedDays: readonly DoubtedDay[]
  /** Days that somebody typed: they win over hours and files. */
  typed: readonly TypedDayRow[]
  /** What is doubted of the readings, and the readings themselves as far as corrections have put them right. */
  fixes: readonly StoredFix[]
  raw: RawHours
  /**
   * A text that is the same as long as nothing before a day number changed: hours, extremes, rain, and what is believed of them. A new
   * hour of today leaves it as it is, and with it whatever rests on the days before.
   */
  contentBefore: (day: number) => string
}

interface Memory {
  raw: RawHours | undefined
  version: number
  made: string
  days: Promise<StationDays> | undefined
}

/**
 * All years of the stations, as hours and as daily values, held in memory and kept at the version of their history. A new reading
 * only fetches the hours that changed.
 */
export class StationHistory {
  private readonly memories: LRUCache<string, Memory>
  /** One station is refreshed by one at a time: two would fetch the same. */
  private readonly turns = new Map<string, Promise<unknown>>()

  /** @param mostBytes what hours and days of stations may take; the least recently asked for are read anew */
  constructor(mostBytes: number) {
    this.memories = new LRUCache<string, Memory>({ maxSize: mostBytes, sizeCalculation: bytesOf })
  }

  async daysOf(db: Queryable, station: StoredStation, place: Position | undefined): Promise<StationDays> {
    const memory = this.memoryOf(station.id)
    const made = `${station.utcOffsetMinutes} ${place?.latitude} ${place?.longitude}`
    // Somebody who asked later may have been served earlier; what they were given holds here, too.
    if (memory.days && memory.version >= station.historyVersion && memory.made === made) return memory.days
    const days = this.makeDays(db, station, place)
    Object.assign(memory, { version: station.historyVersion, made, days })
    days.then(
      () => this.memories.set(station.id, memory),
      () => {
        if (memory.days === days) memory.days = undefined
      },
    )
    return days
  }

  /** What a check of the station now says, made from one state of the database. */
  check(db: Queryable, station: StoredStation): ReturnType<typeof checkedStation> {
    return checkedStation(db, station, this.rawOf)
  }

  private memoryOf(stationId: string): Memory {
    const known = this.memories.get(stationId)
    if (known) return known
    const memory: Memory = { raw: undefined, version: -1, made: '', days: undefined }
    this.memories.set(stationId, memory)
    return memory
  }

  private rawOf = async (db: Queryable, station: StoredStation): Promise<RawHours> => {
    const turn = (this.turns.get(station.id) ?? Promise.resolve()).then(async () => {
      const memory = this.memoryOf(station.id)
      // Somebody asked later and was served earlier: their readings are newer than the ones asked for here.
      if (memory.raw && memory.raw.version > station.historyVersion && memory.raw.utcOffsetMinutes === station.utcOffsetMinutes)
        return memory.raw
      memory.raw = await rawHours(db, station, memory.raw)
      this.memories.set(station.id, memory)
      return memory.raw
    })
    const held = turn.catch(() => undefined).finally(() => this.turns.get(station.id) === held && this.turns.delete(station.id))
    this.turns.set(station.id, held)
    return turn
  }

  private async makeDays(db: Queryable, station: StoredStation, place: Position | undefined): Promise<StationDays> {
    const raw = await this.rawOf(db, station)
    const checked = station.checkedVersion === station.historyVersion
    const fixes = checked ? await listFixes(db, station.id) : (await this.check(db, station)).found
    const hours = believed(raw, fixes, station.utcOffsetMinutes)
    const read = await readDays(db, station.id)
    const typed = await readTypedDays(db, station.id)
    const from = (file: typeof read) =>
      daysFrom(
        hours,
        [...file.map((day) => ({ ...day, byHand: false })), ...typed.map((day) => ({ ...day, byHand: true }))].map(
          ({ day, min, max, rain: mm, byHand }) => ({ day: dayNumber(day), min, max, rain: mm, byHand }),
        ),
        place,
        station.utcOffsetMinutes,
      )
    const whole = from(read)
    const doubted =
      read.length > 0 ? doubtedDays(read, new Set(typed.map(({ day }) => day)), await listDayDecisions(db, station.id), whole) : []
    const leftOut = new Set(doubted.flatMap(({ day, decision }) => (decision === 'overruled' ? [] : [day])))
    const { series, rain, temperatures } = leftOut.size > 0 ? from(read.filter(({ day }) => !leftOut.has(day))) : whole
    const contentBefore = contentKey({ series, rain, hours })
    return { series, rain, hours, temperatures, daysAlone: read.length, doubtedDays: doubted, typed, fixes, raw, contentBefore }
  }
}

function contentKey({ series, rain, hours }: Pick<StationDays, 'series' | 'rain' | 'hours'>): StationDays['contentBefore'] {
  const known = new Map<number, string>()
  const upTo = (values: Float64Array, first: number, until: number): Float64Array => values.subarray(0, Math.max(0, until - first))
  return (day) => {
    const held = known.get(day)
    if (held !== undefined) return held
    const sum = new ContentSum().number(series.firstDay).number(hours.firstHour)
    for (const values of [series.min, series.max, series.filled]) sum.numbers(upTo(values, series.firstDay, day))
    for (const variable of HOUR_VALUES)
      if (!isNothing(hours.values[variable])) sum.numbers(upTo(hours.values[variable], hours.firstHour, day * 24))
    for (const [of, mm] of rain) if (of < day) sum.number(of).number(mm)
    known.set(day, sum.text)
    return sum.text
  }
}

/** Bytes of the arrays of a station: those of what was read, and those of what is believed that differ from them. */
function bytesOf({ raw }: Memory): number {
  const readings = raw ? raw.length * 8 * new Set(Object.values(raw.values).map(({ buffer }) => buffer)).size : 0
  // Believed temperatures, made hours, daily series and rain come on top.
  return 4096 + readings + (raw ? raw.length * 26 : 0)
}
