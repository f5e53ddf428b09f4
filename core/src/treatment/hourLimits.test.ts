import { describe, expect, test } from 'vitest'
import { hourLimits, type ActingMeans } from './hourLimits.js'

const label = { ways: ['spray'], bees: 'none-stated' as const, maxWindMs: null, minTempC: null, maxTempC: null, rainFastHours: null }
const means = (change: Partial<NonNullable<ActingMeans['product']>> = {}, more: Partial<ActingMeans> = {}): ActingMeans => ({
  product: { ...label, ...change },
  methods: ['granulosis-virus'],
  systemic: false,
  ...more,
})

describe('what binds a way to act', () => {
  test('its label comes before what is usual', () => {
    expect(hourLimits(means(), false)).toEqual({
      limits: { maxWind: 5, rainFastHours: 4, inversion: true, deltaT: [2, 8] },
      from: { wind: 'usual', rain: 'usual', inversion: 'usual', 'delta-t': 'usual' },
    })
    const said = hourLimits(means({ maxWindMs: 3, rainFastHours: 0, maxTempC: 27, minTempC: 8 }), false)
    expect(said.limits).toMatchObject({ maxWind: 3, rainFastHours: 0, maxTemperature: 27, minTemperature: 8 })
    expect(said.from).toMatchObject({ wind: 'label', rain: 'label', temperature: 'label' })
  })

  test('drops: coarse ones neither dry nor hang, what has none is not carried by wind', () => {
    const coarse = hourLimits(means({ ways: ['spot-spray'] }), false).limits
    expect(coarse).toEqual({ maxWind: 5, rainFastHours: 4 })
    const bait = hourLimits(means({ ways: ['bait'] }), false).limits
    expect(bait).toEqual({ maxRain: 1, daylight: true })
    // Nobody has said how: taken for what is bound most.
    expect(hourLimits(means({ ways: [] }), false).limits.deltaT).toEqual([2, 8])
    expect(hourLimits(means({ ways: ['drench', 'spray'] }), false).limits.inversion).toBe(true)
  })

  test('what burns leaves waits for cooler hours; nematodes for the dark', () => {
    expect(hourLimits(means({}, { methods: ['insecticidal-soap'] }), false).limits.maxTemperature).toBe(30)
    expect(hourLimits(means({ maxTempC: 25 }, { methods: ['sulphur'] }), false).limits.maxTemperature).toBe(25)
    expect(hourLimits(means({ ways: ['drench'] }, { methods: ['nematodes'] }), false).limits).toEqual({ dark: true })
  })

  test('nematodes want soil above what their label says, else above the floor of their species', () => {
    const living = { ways: ['drench'], methods: ['nematodes'] }
    const of = (soilMinC: number | null, soilFloor: number | null) => {
      const { limits, from } = hourLimits({ ...means({ ways: living.ways, soilMinC }), methods: living.methods, soilFloor }, false)
      return [limits.soil, from.soil]
    }
    expect(of(null, 10)).toEqual([[10, 30], 'usual'])
    expect(of(12, 10)).toEqual([[12, 30], 'label'])
    expect(of(null, null)).toEqual([undefined, undefined])
  })

  test('hands want to see, and stop when it pours', () => {
    expect(hourLimits({ product: null, methods: ['hand-pulling'], systemic: false }, true).limits).toEqual({ daylight: true, maxRain: 1 })
  })
})

describe('what flowers there', () => {
  const bees = (change: Parameters<typeof means>[0], more: Partial<ActingMeans> = {}, flowers = true) =>
    hourLimits(means(change, more), flowers).limits.bees
  test('binds only where something flowers and the label names bees', () => {
    expect(bees({ bees: 'hazardous-in-bloom' }, {}, false)).toBeUndefined()
    expect(bees({ bees: 'none-stated' })).toBeUndefined()
  })

  test('is told by class of residue; what no class is known of waits until nothing flowers', () => {
    expect(bees({ bees: 'hazardous-in-bloom' })).toBe(0)
    expect(bees({ bees: 'hazardous-in-bloom' }, { methods: ['spinosyn'] })).toBe(8)
    expect(bees({ bees: 'hazardous-in-bloom' }, { methods: ['growth-regulator'] })).toBe('never')
    expect(bees({ bees: 'hazardous-in-bloom' }, { methods: [] })).toBe('never')
    // Of two the worse counts.
    expect(bees({ bees: 'hazardous-in-bloom' }, { methods: ['horticultural-oil', 'pyrethrin'] })).toBe(8)
  })

  test('lets nothing near that its label forbids, or that the plant takes up', () => {
    expect(bees({ bees: 'forbidden-in-bloom' })).toBe('never')
    expect(hourLimits(means({ bees: 'forbidden-in-bloom' }), true).from.bees).toBe('label')
    expect(bees({ bees: 'hazardous-in-bloom' }, { systemic: true })).toBe('never')
  })
})
