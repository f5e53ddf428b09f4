import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  activeSums,
  amountNeeded,
  canopyVolume,
  disposalOf,
  evenSpacing,
  inStock,
  intoTanks,
  jobSteps,
  leafWallArea,
  mixForArea,
  permissionsFor,
  rateBases,
  ratePartsOf,
  rowLength,
  stepsOf,
  usedOf,
  type Ground,
} from './index.js'

const NOTHING: Ground = { areaHa: null, sprayL: null, plants: null, rowM: null, wallM2: null, canopyM3: null }

describe('an amount on any base', () => {
  test('as tables of labels have it', () => {
    expect(amountNeeded('area', 0.1, { ...NOTHING, areaHa: 4.2 })).toBeCloseTo(0.42, 12)
    // 2 % in a knapsack of 15 L, and 5 mL in each of its litres.
    expect(amountNeeded('percent', 2, { ...NOTHING, sprayL: 15 })).toBeCloseTo(0.3, 12)
    expect(amountNeeded('volume', 5, { ...NOTHING, sprayL: 15 })).toBe(75)
    expect(amountNeeded('plant', 4, { ...NOTHING, plants: 120 })).toBe(480)
    expect(amountNeeded('row', 0.5, { ...NOTHING, rowM: 300 })).toBe(150)
    expect(amountNeeded('wall', 0.00002, { ...NOTHING, wallM2: 16_000 })).toBeCloseTo(0.32, 12)
    expect(amountNeeded('canopy', 0.0001, { ...NOTHING, canopyM3: 10_000 })).toBeCloseTo(1, 12)
  })
  test('less water takes more in each litre, and the same on the ground', () => {
    const half = { ...NOTHING, sprayL: 500, areaHa: 1 }
    expect(amountNeeded('volume', 2, half, 2)).toBe(amountNeeded('volume', 2, { ...half, sprayL: 1000 }))
    expect(amountNeeded('area', 2, half, 2)).toBe(amountNeeded('area', 2, half))
  })
  test('is not known where that on which it rests is not', () => {
    for (const basis of rateBases) expect(amountNeeded(basis, 1, NOTHING)).toBeNull()
    expect(amountNeeded('plant', 1, { ...NOTHING, plants: 0 })).toBeNull()
    expect(() => amountNeeded('area', 0, NOTHING)).toThrow('rate')
    expect(() => amountNeeded('area', 1, NOTHING, -1)).toThrow('concentrate')
  })
  test('rows, walls, canopies and layouts', () => {
    expect(canopyVolume({ heightM: 3, widthM: 1.5, rowSpacingM: 4.5 })).toBeCloseTo(10_000, 9)
    expect(leafWallArea({ heightM: 2, rowSpacingM: 2.5 })).toBe(16_000)
    expect(rowLength(2.5)).toBe(4000)
    expect(evenSpacing(25)).toBe(20)
    expect(() => canopyVolume({ heightM: 3, widthM: 0, rowSpacingM: 4 })).toThrow('widthM')
  })
  test('tanks hold what was worked out for the area, however it was', () => {
    const some = (max: number) => fc.double({ min: 0.01, max, noNaN: true })
    fc.assert(
      fc.property(some(50), some(20), some(2000), some(3000), (areaHa, ratePerHa, sprayLPerHa, tankL) => {
        const sprayL = areaHa * sprayLPerHa
        const product = amountNeeded('area', ratePerHa, { ...NOTHING, areaHa, sprayL }) ?? 0
        expect(intoTanks({ product, sprayL, tankL })).toEqual(mixForArea({ areaHa, ratePerHa, sprayLPerHa, tankL }))
      }),
    )
  })
})

describe('units of rates', () => {
  test('say on what a rate rests and in what it is measured', () => {
    expect(ratePartsOf('L/ha')).toEqual({ basis: 'area', of: 'L', per: 1 })
    expect(ratePartsOf('g/m²')).toEqual({ basis: 'area', of: 'g', per: 1 / 10_000 })
    expect(ratePartsOf('fl oz/acre').per).toBeCloseTo(0.404_685_642_24, 10)
    expect(ratePartsOf('mL/L')).toEqual({ basis: 'volume', of: 'mL', per: 1 })
    expect(ratePartsOf('% v/v')).toEqual({ basis: 'percent', of: 'L', per: 1 })
    expect(ratePartsOf('L/10 000 m² wall')).toEqual({ basis: 'wall', of: 'L', per: 10_000 })
    expect(() => ratePartsOf('L/field')).toThrow('L/field')
  })
  test('what was typed stands over the rate, and a dilution alone tells nothing', () => {
    expect(usedOf({ typed: null, rate: 2, areaHa: 4.2 }, 'fl oz/acre')!.amount).toBeCloseTo(20.757, 2)
    expect(usedOf({ typed: 9, rate: 2, areaHa: 4.2 }, 'L/ha')).toEqual({ amount: 9, unit: 'L' })
    expect(usedOf({ typed: null, rate: 2, areaHa: 4.2 }, '% v/v')).toBeNull()
    expect(usedOf({ typed: null, rate: 2, areaHa: null }, 'L/ha')).toBeNull()
  })
  test('stock is kept in L, kg or pieces', () => {
    expect(inStock(16, 'oz').amount).toBeCloseTo(0.453_592_37, 8)
    expect(inStock(8, 'pt')).toEqual(inStock(1, 'gal'))
    expect(inStock(250, 'mL')).toEqual({ amount: 0.25, unit: 'L' })
    expect(inStock(12, 'pieces')).toEqual({ amount: 12, unit: 'pieces' })
    expect(() => inStock(1, 'ha')).toThrow('ha')
  })
})

describe('the steps of a job', () => {
  const spray = { ways: ['spray'], formulation: 'liquid', living: false, asksOfWater: false }
  const names = (job: Parameters<typeof stepsOf>[0]) => stepsOf(job).map(({ step }) => step)
  test('water goes in first, a powder as a slurry, and the label is read before anything', () => {
    expect(names(spray)).toEqual([
      'read-label',
      'look-at-plants',
      'half-water',
      'product',
      'rest-water',
      'stir',
      'catch-test',
      'apply',
      'sample',
      'sign-up',
      'rinse',
    ])
    const powder = names({ ...spray, formulation: 'powder', asksOfWater: true })
    expect(powder.indexOf('slurry')).toBe(powder.indexOf('product') - 1)
    expect(powder.indexOf('water-acid')).toBeLessThan(powder.indexOf('product'))
    expect(powder.indexOf('adjuvant')).toBeGreaterThan(powder.indexOf('product'))
  })
  test('a stem is painted within a minute; what is alive is washed in; hand work has no label to read', () => {
    expect(stepsOf({ ...spray, ways: ['paint'] })).toContainEqual({ step: 'paint', minutes: 1 })
    expect(names({ ...spray, ways: ['drench'], living: true })).toEqual(
      expect.arrayContaining(['soak-ground', 'mix-living', 'keep-stirring', 'wash-in']),
    )
    expect(names({ ...spray, ways: null })).not.toContain('read-label')
    expect(names({ ...spray, ways: ['dispensers'] })).toContain('lay-out')
  })
  test('each step has its place once, and each job ends in a look at a sample', () => {
    for (const way of [null, [], ['spray'], ['paint'], ['trap'], ['release'], ['dusting']])
      for (const living of [false, true]) {
        const all = names({ ways: way, formulation: 'granules', living, asksOfWater: true })
        expect(new Set(all).size).toBe(all.length)
        expect(all).toContain('sample')
        expect(all.every((step) => jobSteps.includes(step))).toBe(true)
      }
  })
})

describe('where what was taken can go', () => {
  const green = { ripens: false, regrows: false, carries: false, listed: false, noFire: false }
  const open = (waste: Partial<typeof green>) =>
    disposalOf({ ...green, ...waste })
      .filter(({ bars }) => bars.length === 0)
      .map(({ way }) => way)
  test('green stems may lie; what ripens, roots or is sick may not', () => {
    expect(open({})).toContain('leave')
    for (const waste of [{ ripens: true }, { regrows: true }, { carries: true }]) expect(open(waste)).not.toContain('leave')
    expect(open({ regrows: true })).not.toContain('compost-hot')
    expect(open({ regrows: true })).toContain('dry')
  })
  test('a rule closes the fire, and what the law names is neither composted nor buried', () => {
    expect(open({ noFire: true })).not.toContain('burn')
    expect(open({ listed: true, ripens: true, noFire: true })).toEqual(['bag', 'waste-site'])
  })
  test('something is always left', () => {
    fc.assert(
      fc.property(fc.boolean(), fc.boolean(), fc.boolean(), fc.boolean(), fc.boolean(), (ripens, regrows, carries, listed, noFire) => {
        expect(open({ ripens, regrows, carries, listed, noFire })).toContain('waste-site')
      }),
    )
  })
})

describe('what a season put on a block', () => {
  const copper = { blockId: 'vines', areaHa: 5, amount: 10, active: 'copper', activeGramsPer: 350, mostActiveKgHa: 4 }
  const areas = new Map([['vines', 5]])
  test('is summed over the whole block and held against the lowest cap', () => {
    const [sum] = activeSums([copper, { ...copper, areaHa: 2, active: 'Copper', mostActiveKgHa: 3 }], areas)
    expect(sum).toMatchObject({ kg: 7, mostKgHa: 3, isOver: false, unknown: 0 })
    expect(sum?.kgHa).toBeCloseTo(1.4, 12)
    expect(activeSums([{ ...copper, amount: 50 }, copper], areas)[0]?.isOver).toBe(true)
  })
  test('what is not known is said, and does not hide what is over already', () => {
    const [sum] = activeSums(
      [
        { ...copper, amount: 100 },
        { ...copper, amount: null },
      ],
      areas,
    )
    expect(sum).toMatchObject({ kgHa: null, kg: 35, unknown: 1, isOver: true })
    expect(activeSums([copper], new Map([['vines', null]]))[0]).toMatchObject({ kgHa: null, isOver: false })
    expect(activeSums([{ ...copper, active: '' }], areas)).toEqual([])
  })
})

describe('a consent', () => {
  const consent = {
    kind: 'consent',
    ruleId: 'owner',
    placeId: 'vines',
    productId: null,
    validFrom: '2026-03-01',
    validUntil: '2026-06-15',
  } as const
  const asked = { kind: 'consent', ruleId: 'owner', placeIds: ['row 3', 'vines'], productId: 'sulphur', day: '2026-06-14' } as const
  test('holds for what lies in its place, to its last day', () => {
    expect(permissionsFor([consent], asked)).toEqual({ holds: [consent], ended: null })
    expect(permissionsFor([consent], { ...asked, day: '2026-06-15' }).holds).toHaveLength(1)
    expect(permissionsFor([consent], { ...asked, day: '2026-06-16' })).toEqual({ holds: [], ended: consent })
    expect(permissionsFor([consent], { ...asked, day: '2026-02-28' })).toEqual({ holds: [], ended: null })
  })
  test('of another place, rule, product or kind is none', () => {
    for (const other of [{ placeIds: ['apples'] }, { ruleId: 'buyer' }, { kind: 'permit' as const }])
      expect(permissionsFor([consent], { ...asked, ...other }).holds).toEqual([])
    expect(permissionsFor([{ ...consent, productId: 'copper' }], asked).holds).toEqual([])
    expect(permissionsFor([{ ...consent, ruleId: null, placeId: null, validUntil: null }], asked).holds).toHaveLength(1)
  })
  test('says which ended last where several have', () => {
    const older = { ...consent, validUntil: '2026-04-01' }
    expect(permissionsFor([older, consent, older], { ...asked, day: '2026-07-01' }).ended).toBe(consent)
  })
})
