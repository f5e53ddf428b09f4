import { describe, expect, test } from 'vitest'
import { forecastQuantities, modelOf, organisms, organismSchema, quantitySchema, restsOnPlaceholder } from './index.js'

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

describe.each(organisms.map((o) => [o.name, o] as const))('%s', (_, organism) => {
  const stages = organism.stages.map(({ id }) => id)

  test('names each stage of its events, and reaches only stages that can be reached', () => {
    for (const generation of organism.generations) {
      for (const event of generation.events) expect(stages, event.id).toContain(event.stage)
      for (const id of generation.reachableStages) expect(organism.stages.find((s) => s.id === id)?.reachable, id).toBe(true)
    }
  })

  test('says where every number of the forecast holds', () => {
    for (const quantity of forecastQuantities(organism)) expect(quantity.region.length).toBeGreaterThan(2)
  })

  test('warns of harm to food, people and by spread', () => {
    expect(new Set(organism.hazards.map(({ group }) => group))).toEqual(new Set(['food', 'people', 'spread']))
  })

  test('counts figures only from events before them', () => {
    const seen = new Set<string>()
    for (const event of modelOf(organism).generations.flatMap((g) => g.events)) {
      if (event.countedFrom) expect(seen).toContain(event.countedFrom)
      seen.add(event.id)
    }
  })

  test('falls back to months as soon as one of its numbers is a placeholder', () => {
    expect(restsOnPlaceholder(organism)).toBe(false)
    const lower = { ...organism.heat.lower, confidence: 'placeholder' as const }
    expect(restsOnPlaceholder({ ...organism, heat: { ...organism.heat, lower } })).toBe(true)
  })
})
