import type { Confidence, Source } from './schema.js'

/** Twelve monthly means of a region, January first: °C and mm. */
export interface RegionNormals {
  confidence: Confidence
  region: string
  source: Source
  months: readonly { min: number; max: number; rain: number }[]
}

const MILD_COLD_WINTER = {
  months: [
    { min: -6, max: 2, rain: 60 },
    { min: -5, max: 4, rain: 55 },
    { min: -1, max: 10, rain: 70 },
    { min: 5, max: 17, rain: 80 },
    { min: 10, max: 22, rain: 95 },
    { min: 15, max: 27, rain: 95 },
    { min: 18, max: 29, rain: 95 },
    { min: 17, max: 28, rain: 90 },
    { min: 13, max: 24, rain: 80 },
    { min: 6, max: 18, rain: 70 },
    { min: 1, max: 11, rain: 75 },
    { min: -4, max: 4, rain: 70 },
  ],
  confidence: 'approximate',
  source: { kind: 'common-knowledge' },
} as const

/**
 * What the years are like in the regions for which usual months are given, so that they can be moved to other places. The months of the
 * library are those of the middle of the temperate east and north of North America, whatever else a region's name says.
 */
export const regions: Readonly<Record<string, RegionNormals>> = {
  'temperate North America': { ...MILD_COLD_WINTER, region: 'temperate North America, middle latitudes inland' },
  'temperate North America and Europe': { ...MILD_COLD_WINTER, region: 'temperate North America, middle latitudes inland' },
}
