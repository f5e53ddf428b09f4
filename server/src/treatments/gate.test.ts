import { methods, organisms, type Method, type Organism } from '@bocado/library'
import { describe, expect, test } from 'vitest'
import { gateFor } from './gate.js'

/** A method as a product: any stage, nothing else entered of its label. */
const product = (method: string, strain: string | null, organism: Pick<Organism, 'stages'>) => ({
  methods: [method],
  strain,
  stages: organism.stages.map(({ id }) => id),
  targets: [],
  crops: [],
  places: [],
})
const find = (id: string): Organism => organisms.find((o) => o.id === id)!
const somewhere = { grows: '', kind: 'field' as const }
const verdict = (method: string, strain: string | null, organism: string) =>
  gateFor(product(method, strain, find(organism)), find(organism), somewhere)

const withLabel = methods.filter((method) => method.product)
const strainsOf = ({ strains }: Method): (string | null)[] => (strains.length > 0 ? strains.map(({ id }) => id) : [null])

describe.each(withLabel.map((m) => [m.name, m] as const))('%s on the shelf', (_, method) => {
  test('is offered against what its entry names, by the right strain, and against nothing else', () => {
    let fits = 0
    for (const organism of organisms) {
      const ways = organism.about.reach.filter((way) => way.method === method.id)
      for (const strain of strainsOf(method)) {
        const said = gateFor(product(method.id, strain, organism), organism, somewhere)
        const right = ways.filter(({ strains }) => strains === undefined || strains.includes(strain ?? ''))
        const where = `${strain ?? 'any'} against ${organism.id}`
        if (right.length > 0) {
          fits++
          expect(said, where).toEqual({
            verdict: 'fits',
            methods: [method.id],
            stages: [...new Set(right.flatMap(({ stages }) => stages))],
          })
        } else expect(said, where).toEqual({ verdict: 'refused', because: ways.length > 0 ? 'other-strain' : 'no-way-to-act' })
      }
      if (method.strains.length > 0 && ways.length > 0)
        expect(gateFor(product(method.id, null, organism), organism, somewhere), organism.id).toMatchObject({ verdict: 'doubtful' })
    }
    expect(fits).toBeGreaterThan(0)
  })
})

describe('what does nothing is not offered', () => {
  test.each([
    ['sulphur', null, 'vine-downy-mildew'],
    ['bt', 'caterpillars', 'fungus-gnats'],
    ['bt', 'gnats', 'european-corn-borer'],
    ['bt', 'caterpillars', 'colorado-potato-beetle'],
    ['nematodes', 'feltiae', 'black-vine-weevil'],
    ['mating-disruption', 'lure-codling-moth', 'oriental-fruit-moth'],
    ['single-site-fungicide', 'true-fungi', 'potato-late-blight'],
    ['foliar-systemic', 'broad-leaved', 'quackgrass'],
    ['foliar-systemic', 'grasses', 'yellow-nutsedge'],
    ['granulosis-virus', null, 'european-corn-borer'],
    ['mass-trapping', null, 'japanese-beetle'],
    ['cut-stem-paint', null, 'tree-of-heaven'],
  ] as const)('%s (%s) against %s', (method, strain, organism) => {
    expect(verdict(method, strain, organism).verdict).toBe('refused')
  })
})

test('a label that names other targets, crops or places decides, and what was not entered of it does not', () => {
  const moth = find('codling-moth')
  const of = (label: object, grows = 'apple, 1988, on seedling stock') =>
    gateFor({ ...product('granulosis-virus', null, moth), ...label }, moth, { grows, kind: 'orchard' })
  expect(of({}).verdict).toBe('fits')
  expect(of({ targets: ['grape-berry-moth'] })).toEqual({ verdict: 'refused', because: 'target-not-on-label' })
  expect(of({ crops: ['Pears', 'quince'] })).toEqual({ verdict: 'refused', because: 'crop-not-on-label' })
  expect(of({ crops: ['Apples'] }).verdict).toBe('fits')
  expect(of({ crops: ['pear'] }, '').verdict).toBe('fits')
  expect(of({ places: ['tunnel'] })).toEqual({ verdict: 'refused', because: 'place-not-on-label' })
  expect(of({ stages: ['egg'] })).toEqual({ verdict: 'refused', because: 'no-stage' })
  expect(of({ methods: [] })).toEqual({ verdict: 'doubtful', because: 'unmapped' })
})
