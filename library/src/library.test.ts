import { describe, expect, test } from 'vitest'
import {
  expectedFigures,
  forecastFigures,
  forecastQuantities,
  indicatorModel,
  indicators,
  modelOf,
  organisms,
  organismSchema,
  quantitySchema,
  restsOnPlaceholder,
  spellOut,
} from './index.js'

describe('what the schema refuses', () => {
  const figure = { value: 139, unit: '°C·d', region: 'temperate orchards' }

  test('an established value without a paper', () => {
    expect(quantitySchema.safeParse({ ...figure, confidence: 'established', source: { kind: 'common-knowledge' } }).success).toBe(false)
    expect(
      quantitySchema.safeParse({
        ...figure,
        confidence: 'established',
        source: { kind: 'paper', authors: 'Riedl, Croft & Howitt', year: 1976 },
      }).success,
    ).toBe(true)
  })

  test('an organism without hazards, and a misspelt field', () => {
    const entry = organisms[0]
    expect(organismSchema.safeParse({ ...entry, hazards: [] }).success).toBe(false)
    expect(organismSchema.safeParse({ ...entry, hazard: [] }).success).toBe(false)
  })
})

describe('an entry as it is written', () => {
  const bases = {
    field: { confidence: 'approximate', region: 'temperate orchards', source: { kind: 'common-knowledge' } },
    guess: { confidence: 'placeholder', region: 'no figure known', source: { kind: 'none' } },
  }

  test('gives every figure the unit of its name and the basis that holds where it stands', () => {
    const spelt = spellOut({ bases, basis: 'field', event: { heat: 139, spread: { value: 80, basis: 'guess' } }, stages: 3 })
    expect(spelt).toEqual({
      event: { heat: { value: 139, unit: '°C·d', ...bases.field }, spread: { value: 80, unit: '°C·d', ...bases.guess } },
      stages: 3,
    })
  })

  test('is refused where a figure rests on a basis that it does not have', () => {
    expect(() => spellOut({ bases, event: { heat: 139 } })).toThrow('has no basis here')
    expect(() => spellOut({ bases, basis: 'feild', event: { heat: 139 } })).toThrow('has no basis feild')
  })
})

test('the library holds each kind of model', () => {
  const kinds = new Set(organisms.map(({ infection }) => infection?.model.kind))
  expect([...kinds].filter((kind) => kind !== undefined).sort()).toEqual([
    'apple-scab',
    'fire-blight',
    'onion-downy-mildew',
    'physiological-days',
    'severity-table',
    'two-day-humidity',
    'vine-downy-mildew',
    'vine-powdery-mildew',
    'wetness',
  ])
  expect(new Set(organisms.flatMap(({ emergence }) => (emergence ? [emergence.clock.kind] : []))).size).toBe(3)
  expect(new Set(organisms.map(({ biofix }) => biofix.kind))).toEqual(new Set(['date', 'sustained-catch', 'bloom']))
  expect(indicators.map(({ biofix }) => biofix.kind)).toContain('chill')
  expect(organisms.length).toBeGreaterThanOrEqual(30)
})

test('bloom plants are in the order in which they bloom', () => {
  const first = indicators.filter(({ biofix }) => biofix.kind === 'date').map((plant) => plant.events[0]!.heat.value)
  expect(first).toEqual([...first].sort((a, b) => a - b))
  for (const plant of indicators) {
    const heats = plant.events.map(({ heat }) => heat.value)
    expect(heats, plant.name).toEqual([...heats].sort((a, b) => a - b))
    expect(indicatorModel(plant).events).toHaveLength(3)
  }
})

describe.each(organisms.map((o) => [o.name, o] as const))('%s', (_, organism) => {
  const stages = organism.stages.map(({ id }) => id)

  test('names each stage of its events, and reaches only stages that can be reached', () => {
    for (const generation of organism.generations) {
      for (const event of generation.events) expect(stages, event.id).toContain(event.stage)
      for (const id of generation.reachableStages) expect(organism.stages.find((s) => s.id === id)?.reachable, id).toBe(true)
      if (generation.diapause) expect(generation.events.map(({ id }) => id)).toContain(generation.diapause.at)
    }
  })

  test('ends in a stage that nothing reaches, so that its last window closes', () => {
    const last = organism.generations.at(-1)
    if (last) expect(last.reachableStages).not.toContain(last.events.at(-1)!.stage)
  })

  test('has a model of events, infection or emergence', () => {
    const { generations, infection, emergence } = modelOf(organism)
    expect(generations.length > 0 || infection !== undefined || emergence !== undefined).toBe(true)
  })

  test('says where every number of the forecast holds, once by each name', () => {
    const figures = [...forecastFigures(organism), ...expectedFigures(organism)]
    for (const { quantity } of figures) expect(quantity.region.length).toBeGreaterThan(2)
    expect(new Set(figures.map(({ path }) => path)).size).toBe(figures.length)
    expect(figures.length).toBeGreaterThan(3)
  })

  test('warns of harm to food, people and by spread, and says what helps when it is too late', () => {
    const groups = new Set(organism.hazards.map(({ group }) => group))
    for (const group of ['food', 'people', 'spread'] as const) expect(groups, group).toContain(group)
    expect(organism.tooLate.length).toBeGreaterThan(40)
  })

  test('counts figures only from events before them', () => {
    const seen = new Set<string>()
    for (const event of modelOf(organism).generations.flatMap((g) => g.events)) {
      if (event.countedFrom) expect(seen).toContain(event.countedFrom)
      seen.add(event.id)
    }
  })

  test('falls back to months as soon as one of its numbers is a placeholder', () => {
    const guessed = forecastQuantities(organism).some(({ confidence }) => confidence === 'placeholder')
    if (guessed) expect(restsOnPlaceholder(organism)).toBe(true)
    const lower = { ...organism.heat.lower, confidence: 'placeholder' as const }
    expect(restsOnPlaceholder({ ...organism, heat: { ...organism.heat, lower } })).toBe(true)
  })
})
