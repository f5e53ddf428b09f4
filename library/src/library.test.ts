import { describe, expect, test } from 'vitest'
import {
  causes,
  crops,
  datedEvents,
  expectedFigures,
  findMethod,
  forecastFigures,
  forecastQuantities,
  indicatorModel,
  indicators,
  methods,
  modelOf,
  organisms,
  organismSchema,
  plantParts,
  quantitySchema,
  restsOnPlaceholder,
  signKinds,
  spellOut,
} from './index.js'

test('a biofix that the bloom log can tell waits for a plant of the library', () => {
  const plants = indicators.map(({ id }) => id)
  for (const { biofix, name } of organisms) if (biofix.kind === 'bloom' && biofix.event) expect(plants, name).toContain(biofix.plant)
})

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

  test('that is spelt out already stays as it is', () => {
    for (const entry of [organisms[0], organisms.at(-1), methods[0]]) expect(spellOut(entry)).toEqual(entry)
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

/** Words of the sentences on bloom that name no plant; a word that is neither here nor a plant of the log nor a crop of the entry is one that nobody can write down. */
const NO_PLANT = new Set(
  `a about after all and are as at bare before bloom bloomed blooming blooms break bud by cherries cluster come comes cool counts down dry each egg end
  ends every fades fall first fly for four from frost fruit go goes green growth hang harvest has heat in into is it late laying leaf leafs leaves marks
  month moths nights no on once open opens others out outside overlapping past petal pods rain red ripen seed shoot show summer systemic tells the then
  three through tight time to traps tunnel under until way weeks well when while winter with yellow five part pink rough sign king`.split(
    /\s+/,
  ),
)

test('the plants that announce a generation are in the bloom log, or are its own crop', () => {
  const words = (text: string): string[] => text.toLowerCase().match(/[a-z’]+/g) ?? []
  const plants = new Set(indicators.flatMap(({ name }) => words(name)))
  const unknown = organisms.flatMap(({ name, crops, generations }) => {
    const own = new Set(words(crops.join(' ')))
    return generations.flatMap(({ usual }) =>
      words(usual?.bloom ?? '')
        .filter((word) => !NO_PLANT.has(word) && !plants.has(word) && !own.has(word))
        .map((word) => `${name}: ${word}`),
    )
  })
  expect(unknown).toEqual([])
})

/** What a text tells people to do, and the methods of which one then has to stand in `reach`. */
const TOLD: readonly [RegExp, readonly string[]][] = [
  [/\b(cut and paint|painted)\b/, ['cut-stem-paint']],
  [/\bslit/, ['stem-surgery']],
  [/\btill(ed|age)\b/, ['tillage']],
  [/\bflam(e|ing)\b/, ['flaming']],
  [/\bmulch/, ['mulch-cover']],
  [/\bsmother/, ['smothering']],
  [/\bcollars?\b/, ['collars']],
  [/\btrap crop/, ['trap-crop']],
  [/\bnematodes?\b/, ['nematodes']],
  [/\b(winter|dormant) oil\b/, ['horticultural-oil']],
  [/\bgraz/, ['grazing']],
  [/\brow cover|netting\b/, ['row-cover']],
  [/\bpull(ed|ing)? (small|seedlings)/, ['hand-pulling']],
  [/\binject/, ['stem-injection']],
  [/\bmating disruption/, ['mating-disruption']],
]

test('what a text tells people to do is a method that the entry has', () => {
  const missing = organisms.flatMap(({ name, tooLate, poorlyReachable, stages, about }) => {
    const has = new Set(about.reach.map(({ method }) => method))
    const texts = [tooLate, poorlyReachable ?? '', ...stages.map(({ where }) => where)]
    return texts.flatMap((text) =>
      TOLD.filter(([told, methods]) => told.test(text.toLowerCase()) && !methods.some((id) => has.has(id))).map(
        ([, [id]]) => `${name}: "${text}" tells of ${id}`,
      ),
    )
  })
  expect(missing).toEqual([])
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

  test('names each stage of its events, and has a method that reaches each generation, or says that none does', () => {
    const reached = new Set(organism.about.reach.flatMap((way) => way.stages))
    for (const generation of organism.generations) {
      for (const event of generation.events) expect(stages, event.id).toContain(event.stage)
      for (const id of generation.reachableStages) expect(stages, id).toContain(id)
      const nothing = generation.reachableStages.filter((id) => !reached.has(id))
      if (generation.noReach === undefined) expect(nothing, generation.id).toEqual([])
      else expect(nothing, generation.id).toEqual(generation.reachableStages)
      if (generation.diapause) expect(generation.events.map(({ id }) => id)).toContain(generation.diapause.at)
    }
  })

  test('ends in a stage that nothing reaches, so that its last window closes', () => {
    const last = organism.generations.at(-1)
    const ends = last?.events.at(-1)
    if (last && ends) expect(last.reachableStages).not.toContain(ends.stage)
  })

  test('has a model of events, infection or emergence, or says its months', () => {
    const { generations, infection, emergence } = modelOf(organism)
    const events = generations.flatMap((generation) => generation.events)
    if (organism.monthsOnly) {
      expect(events).toEqual([])
      expect(restsOnPlaceholder(organism)).toBe(true)
      for (const { usual, name } of organism.generations) expect(usual?.months.length, name).toBeGreaterThan(0)
    } else expect(events.length > 0 || infection !== undefined || emergence !== undefined).toBe(true)
  })

  test('says where every number of the forecast holds, once by each name', () => {
    const figures = [...forecastFigures(organism), ...expectedFigures(organism)]
    for (const { quantity } of figures) expect(quantity.region.length).toBeGreaterThan(2)
    expect(new Set(figures.map(({ path }) => path)).size).toBe(figures.length)
    if (!organism.monthsOnly) expect(figures.length).toBeGreaterThan(3)
  })

  test('warns of harm to people and by spread, a disease of harm to food, and says what helps when it is too late', () => {
    const groups = new Set(organism.hazards.map(({ group }) => group))
    // What burns, blisters or poisons by touch is said before anybody is asked to look closer.
    for (const { group, text, touch } of organism.hazards)
      if (group === 'people' && /^Sap |deadly|[Hh]airs (itch|cause)/.test(text)) expect(touch, text).toBe(true)
    const needed = organism.kind === 'disease' ? (['food', 'people', 'spread'] as const) : (['people', 'spread'] as const)
    for (const group of needed) expect(groups, group).toContain(group)
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

describe.each(organisms.map((o) => [o.name, o] as const))('what is known of %s', (_, { about, stages, kind, name }) => {
  const ids = stages.map(({ id }) => id)

  test('names only stages, methods and strains that there are, and a strain wherever a method has any', () => {
    expect([...ids, 'adult', 'larva']).toContain(about.damage.stage)
    for (const { method, stages: reached, strains } of about.reach) {
      expect(findMethod(method), method).toBeDefined()
      for (const stage of reached) expect(ids, `${method} on ${stage}`).toContain(stage)
      const known = findMethod(method)!.strains.map(({ id }) => id)
      expect(strains !== undefined, method).toBe(known.length > 0)
      for (const strain of strains ?? []) expect(known, method).toContain(strain)
    }
    for (const { what } of about.doesNotWork)
      expect(
        about.reach.map(({ method }) => findMethod(method)!.name),
        `${what} does not work, and is offered`,
      ).not.toContain(what)
  })

  test('can be told from its look-alikes by at least two characters, one of them decisive, and each look-alike by one', () => {
    const { lookAlikes, characters } = about.identity
    expect(characters.some(({ decisive }) => decisive)).toBe(true)
    for (const { id } of lookAlikes)
      expect(
        characters.some(({ others }) => others.of.includes(id)),
        id,
      ).toBe(true)
    expect(new Set(characters.map(({ id }) => id)).size).toBe(characters.length)
    for (const { here, others, id } of characters) expect(here.text, id).not.toBe(others.text)
  })

  test('gives itself away by a sign that is typical', () => {
    expect(Math.max(...about.signs.map(({ typical }) => typical))).toBeGreaterThanOrEqual(0.7)
    if (kind === 'weed')
      expect(
        about.signs.some(({ sign }) => sign === 'stranger' || sign === 'carpet'),
        name,
      ).toBe(true)
  })

  test('has something gentler than a spray against it', () => {
    expect(about.reach.some(({ method }) => findMethod(method)!.kind !== 'chemical')).toBe(true)
  })
})

describe.each(methods.map((m) => [m.name, m] as const))('the method %s', (_, method) => {
  test('has its hazards to people or a label, its order of steps, and one who may use it knows how it went', () => {
    const groups = new Set(method.hazards.map(({ group }) => group))
    expect(groups.has('people') || groups.has('spread') || groups.has('plants') || groups.has('food')).toBe(true)
    expect(method.steps.length).toBeGreaterThanOrEqual(2)
    expect(method.goodJob).not.toBe(method.failedJob)
    if (method.kind === 'chemical' && !['cut-stem-paint', 'stem-injection'].includes(method.id))
      expect(
        method.hazards.some(({ text }) => text.includes('label')),
        'the label',
      ).toBe(true)
  })
})

test('a cut stem is painted within a minute, and nothing by hand that ripens is left to lie', () => {
  expect(findMethod('cut-stem-paint')!.steps.some(({ within }) => within?.includes('minute'))).toBe(true)
  expect(findMethod('hand-pulling')!.hazards.some(({ group, text }) => group === 'spread' && /bag/.test(text))).toBe(true)
})

test('the library is wide enough: animals, diseases, weeds of every form, bloom plants, methods and causes that are no pest', () => {
  const of = (...kinds: string[]): number => organisms.filter(({ kind }) => kinds.includes(kind)).length
  expect(of('insect', 'mite')).toBeGreaterThanOrEqual(45)
  expect(of('disease')).toBeGreaterThanOrEqual(10)
  expect(of('weed')).toBeGreaterThanOrEqual(25)
  expect(indicators.length).toBeGreaterThanOrEqual(25)
  expect(methods.length).toBeGreaterThanOrEqual(40)
  expect(new Set(methods.map(({ kind }) => kind)).size).toBe(5)
  expect(causes.map(({ id }) => id)).toEqual(expect.arrayContaining(['drought', 'frost', 'herbicide', 'nitrogen']))
  const places = organisms.flatMap(({ crops, about }) => [...crops, ...about.hosts]).join(' ')
  for (const place of ['apple', 'grape', 'strawberry', 'corn', 'cabbage', 'rose', 'cucumber', 'woods', 'stream banks', 'marshes'])
    expect(places, place).toContain(place)
  // How varieties bear it is known of most crop pests and of every disease.
  expect(organisms.filter(({ about }) => about.varieties.length > 0).length).toBeGreaterThanOrEqual(35)
  for (const { kind, about, name } of organisms) if (kind === 'disease') expect(about.varieties.length, name).toBeGreaterThan(0)
  const signs = [...organisms.flatMap(({ about }) => about.signs), ...causes.flatMap((cause) => cause.signs)]
  for (const part of plantParts)
    expect(
      signs.some((sign) => sign.part === part),
      part,
    ).toBe(true)
  for (const kind of signKinds)
    expect(
      signs.some((sign) => sign.sign === kind),
      kind,
    ).toBe(true)
})

test('any two weeds of one place can be told apart by a mark that one shows and the other hardly ever does', () => {
  const weeds = organisms.filter(({ kind }) => kind === 'weed')
  const shown = (weed: (typeof weeds)[number], part: string, sign: string): number =>
    Math.max(0, ...weed.about.signs.filter((s) => s.sign === sign && (s.part === part || part === '')).map(({ typical }) => typical))
  const alike = weeds.flatMap((a, i) =>
    weeds
      .slice(i + 1)
      .filter((b) => a.about.hosts.some((host) => b.about.hosts.includes(host)))
      .filter(
        (b) =>
          ![
            [a, b],
            [b, a],
          ].some(([one, other]) => one!.about.signs.some((s) => s.typical >= 0.7 && shown(other!, '', s.sign) < 0.1)),
      )
      .map((b) => `${a.id} and ${b.id}`),
  )
  expect(alike).toEqual([])
  for (const { about, id } of weeds) expect(about.signs.length, id).toBeGreaterThanOrEqual(4)
})

describe('what comes with a label', () => {
  test('says so in its hazards, and only that is put on a shelf', () => {
    for (const { product, kind, hazards, id } of methods) {
      if (kind === 'chemical') expect(product, id).toBe(true)
      if (product && kind === 'chemical') expect(hazards.length, id).toBeGreaterThan(1)
    }
    for (const id of ['hand-picking', 'fallen-fruit', 'stem-surgery', 'tillage', 'repeated-mowing'])
      expect(findMethod(id)!.product, id).toBe(false)
  })

  test('has strains wherever the wrong one does nothing', () => {
    for (const id of ['bt', 'nematodes', 'predatory-mites', 'parasitoids', 'mating-disruption', 'single-site-fungicide', 'foliar-systemic'])
      expect(findMethod(id)!.strains.length, id).toBeGreaterThan(1)
  })

  test('every method that people do without proof says how to find out fairly', () => {
    for (const { evidence, product, fairTest, id, kind } of methods)
      if (evidence === 'anecdotal' && !product && kind !== 'biological' && kind !== 'prevention') expect(fairTest, id).toBeDefined()
  })
})

describe('events that can be dated', () => {
  test('are there for every organism, by words of their own, each once, and of a stage that it has', () => {
    for (const organism of organisms) {
      const events = datedEvents(organism)
      expect(events.length, organism.id).toBeGreaterThanOrEqual(2)
      expect(new Set(events.map(({ id }) => id)).size, organism.id).toBe(events.length)
      for (const { name, stage } of events) {
        expect(
          organism.stages.map(({ id }) => id),
          `${organism.id} ${name}`,
        ).toContain(stage)
        // "first in the soil" would be nothing to see.
        expect(name, organism.id).not.toMatch(/^first (in |on |under )|undefined/)
      }
    }
  })

  test('an entry of one’s own that names none has the beginning of each of its stages', () => {
    const { named, ...own } = organisms.find(({ id }) => id === 'japanese-beetle')!
    expect(named.length).toBeGreaterThan(1)
    expect(datedEvents({ ...own, named: [] })[0]).toEqual({ id: 'first-adult', name: 'first beetles', stage: 'adult', hasFigure: false })
  })
})

describe('what is said of an organism is said of it', () => {
  test('no word on food stands in many entries', () => {
    const said = organisms.flatMap(({ hazards }) => hazards.filter(({ group }) => group === 'food').map(({ text }) => text))
    const times = (text: string): number => said.filter((other) => other === text).length
    expect([...new Set(said)].filter((text) => times(text) > 5)).toEqual([])
  })

  test.each(organisms.map((o) => [o.name, o] as const))('%s: a look-alike is told in whole sentences', (_, { lookAlikes }) => {
    for (const text of lookAlikes) expect(text).toMatch(/^[A-Z].*[.]$/)
    for (const text of lookAlikes) expect(text).not.toMatch(/ Here: /)
  })

  test.each(organisms.map((o) => [o.name, o] as const))(
    '%s: named events have names of their own, and figures with a paper or none',
    (_, o) => {
      const ids = [...o.generations.flatMap(({ events }) => events), ...o.named].map(({ id }) => id)
      expect(new Set(ids).size).toBe(ids.length)
      for (const { figure } of o.named) if (figure) expect(figure.heat.confidence).not.toBe('placeholder')
    },
  )
})

describe('crops', () => {
  test('what several organisms of the library feed on is a crop with stages', () => {
    const GROUPS = ['ornamentals', 'brassicas', 'glasshouse crops', 'soft fruit', 'field', 'canola']
    const words = new Set(crops.flatMap(({ name, words: others }) => [name.toLowerCase(), ...others]))
    const fedOn = organisms.filter(({ kind }) => kind !== 'weed').flatMap(({ crops: eaten }) => [...new Set(eaten)])
    const often = [...new Set(fedOn)].filter((crop) => fedOn.filter((other) => other === crop).length >= 3)
    expect(often.filter((crop) => !GROUPS.includes(crop) && !words.has(crop))).toEqual([])
  })

  test('each can be told apart by its words, and says when it flowers where it bears fruit', () => {
    const all = crops.flatMap(({ name, words }) => [name.toLowerCase(), ...words])
    expect(all.filter((word, i) => all.indexOf(word) !== i)).toEqual([])
    for (const { name, stages, flowers } of crops)
      if (stages.some(({ id }) => id === 'fruit-set' || id === 'petal-fall')) expect(flowers, name).not.toBeNull()
  })

  test('nothing is expected without a beginning: every stage but the first ones follows another', () => {
    for (const { name, lives, stages } of crops)
      for (const [i, { id, after }] of stages.entries())
        if (i > 0 && !['planted', 'sown'].includes(id)) expect(after.length, `${name}, ${id}, ${lives}`).toBeGreaterThan(0)
  })
})

test('what a date of sowing keeps apart is said between stages that the crop has, by stages that the organism has', () => {
  for (const { name, about, stages } of organisms)
    for (const { crops: met, from, until, stages: comes } of about.meets)
      for (const id of met) {
        const crop = crops.find((one) => one.id === id)
        expect(crop?.lives, `${name}: ${id}`).toBe('annual')
        const order = crop!.stages.map((stage) => stage.id)
        expect(order, `${name}: ${id}`).toEqual(expect.arrayContaining([from, until]))
        expect(order.indexOf(from), `${name}: ${id}`).toBeLessThan(order.indexOf(until))
        for (const stage of comes)
          expect(
            stages.map((one) => one.id),
            name,
          ).toContain(stage)
      }
  expect(organisms.filter(({ about }) => about.meets.length > 0).length).toBeGreaterThanOrEqual(18)
})
