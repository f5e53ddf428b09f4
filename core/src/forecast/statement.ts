import type { SoilCover, SoilTexture } from '../derived/soil.js'
import { eventBounds } from '../phenology/eventForecast.js'
import type { OrganismModel } from '../phenology/model.js'
import type { Bounds } from '../statistics/quantile.js'
import { BEGUN_SHARE } from './begun.js'
import type { DiseaseRecords } from './diseaseRecords.js'
import { emergenceForecast, type EmergenceForecast } from './emergenceForecast.js'
import { generationWindows, type GenerationWindow } from './generationWindows.js'
import { forecastGrade, isWide, type Confidence, type ForecastGrade } from './grade.js'
import { infectionForecast, type InfectionForecast } from './infectionForecast.js'
import { makeAnew, type Keep } from './keep.js'
import { expectedBiofix, placeModel, type BloomPush, type PlacedModel } from './placedModel.js'
import type { SeasonAtPlace, Wetting } from './seasonAtPlace.js'
import { seasonEnd, type SeasonEnd } from './seasonEnd.js'

/** What a statement is made from. */
export interface StatementInput {
  model: OrganismModel
  /** Of the numbers of the model. */
  confidence: Confidence
  /** Of the heat at which its biofix is expected. */
  expectedConfidence?: Confidence | undefined
  /** Day number of the biofix that somebody entered; null where nobody has. */
  biofix: number | null
  at: SeasonAtPlace
  ground: { texture: SoilTexture | null; cover: SoilCover | null }
  wettings: readonly Wetting[]
  /** What was recorded of it, where it is a disease. */
  disease?: DiseaseRecords | undefined
  /** What blooms say of the season; undefined where they say nothing, or it does not follow them. */
  bloom?: BloomPush | undefined
  keep?: Keep
}

/** What is said of an organism in a place and season: how surely, when each event and window comes, and by what it was moved. */
export interface Statement extends PlacedModel {
  grade: ForecastGrade
  /** Too few past seasons tell how years differ: dates are given, with wide bounds. */
  wide: boolean
  /** Days of the season on which a biofix is expected that has not come. */
  expected: Bounds | null
  /** For each event the days on which it has begun and on which half have reached it; undefined without weather. */
  dates: { begins: Bounds; half: Bounds }[] | undefined
  windows: GenerationWindow[]
  infection: InfectionForecast | null
  emergence: EmergenceForecast | null
  /** When its season ends by something else than heat; null where nothing does. */
  end: SeasonEnd | null
  /** Windows as they would be without what was seen in bloom; null where that moved nothing. */
  windowsWithoutBloom: GenerationWindow[] | null
}

/**
 * The one way from the weather of a season to what is said of an organism: days, heat, events, windows, and how certain it is.
 * Server and page call the same.
 */
export function statement(input: StatementInput): Statement {
  const { model, at, keep = makeAnew, bloom, wettings } = input
  const placed = placeModel(model, input.biofix, at, bloom, keep)
  const { start, heat, ensemble, events } = placed
  const known = heat.members.length > 0
  const begins = known ? eventBounds(events, BEGUN_SHARE, ensemble) : undefined
  const half = known ? eventBounds(events, 0.5, ensemble) : undefined
  const expected = expectedBiofix(placed)
  const end = seasonEnd(placed.ends, ensemble)
  return {
    ...placed,
    grade: forecastGrade({ ...input, basis: at.basis, heat, start }),
    wide: isWide(heat),
    expected,
    dates: begins && half && events.map((_, i) => ({ begins: begins[i] as Bounds, half: half[i] as Bounds })),
    windows: generationWindows(model, placed),
    end,
    infection: model.infection
      ? infectionForecast({
          infection: model.infection,
          at,
          wettings,
          records: input.disease,
          endsOn: end && Number.isFinite(end.date.p50) ? end.date.p50 : undefined,
          heat,
          scores: ensemble.scores,
          start: start.how === 'expected' ? expectedDay(expected, heat.firstDay) : start.day,
          keep,
        })
      : null,
    emergence: model.emergence && known ? emergenceForecast(model.emergence, at, input.ground, start.day, ensemble, wettings) : null,
    windowsWithoutBloom: placed.moved && bloom ? generationWindows(model, placeModel(model, input.biofix, at, undefined, keep)) : null,
  }
}

/** The day number of the median of an expected date; undefined where it does not come in this season. */
const expectedDay = (expected: Bounds | null, firstDay: number): number | undefined =>
  expected && Number.isFinite(expected.p50) ? firstDay + Math.floor(expected.p50) : undefined
