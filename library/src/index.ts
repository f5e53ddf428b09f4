/// <reference types="vite/client" />
import { spellOut } from './authored.js'
import { causeSchema, type Cause } from './cause.js'
import { cropsSchema, type Crop } from './crop.js'
import cropEntries from '../crops/crops.json' with { type: 'json' }
import { methodSchema, type Method } from './method.js'
import { indicatorSchema, organismSchema, type Indicator, type Organism } from './schema.js'

export * from './regions.js'
export * from './about.js'
export * from './cause.js'
export * from './crop.js'
export * from './datedEvents.js'
export * from './method.js'
export * from './model.js'
export * from './provenance.js'
export * from './schema.js'
export * from './vocabulary.js'
export * from './weedForm.js'
export { spellOut } from './authored.js'

type Files = Record<string, unknown>

/** Entries of a folder, each file one, checked; a bad entry stops the program at start and is named. */
const entriesOf = <T>(files: Files, parse: (entry: unknown) => T): T[] =>
  Object.entries(files).map(([file, entry]) => {
    try {
      return parse(spellOut(entry))
    } catch (error) {
      throw new Error(`${file}: ${error instanceof Error ? error.message : String(error)}`, { cause: error })
    }
  })

const byName = (a: { name: string }, b: { name: string }): number => a.name.localeCompare(b.name)
const firstBloom = ({ biofix, events }: Indicator): number => (biofix.kind === 'date' ? 0 : 1e4) + (events[0]?.heat.value ?? 0)

/** Every organism of the library, by name. */
export const organisms: readonly Organism[] = [
  ...entriesOf(import.meta.glob('../organisms/*.json', { eager: true, import: 'default' }), (e) => organismSchema.parse(e)),
  ...entriesOf(import.meta.glob('../pathogens/*.json', { eager: true, import: 'default' }), (e) => organismSchema.parse(e)),
  ...entriesOf(import.meta.glob('../weeds/*.json', { eager: true, import: 'default' }), (e) => organismSchema.parse(e)),
].sort(byName)

/** The plants whose bloom tells the season, in the order in which they bloom; those that wait for chill last. */
export const indicators: readonly Indicator[] = entriesOf(
  import.meta.glob('../indicators/*.json', { eager: true, import: 'default' }),
  (e) => indicatorSchema.parse(e),
).sort((a, b) => firstBloom(a) - firstBloom(b))

/** Ways to act, by name. */
export const methods: readonly Method[] = entriesOf(import.meta.glob('../methods/*.json', { eager: true, import: 'default' }), (e) =>
  methodSchema.parse(e),
).sort(byName)

/** Causes of damage that are no organism. */
export const causes: readonly Cause[] = entriesOf(import.meta.glob('../causes/causes.json', { eager: true, import: 'default' }), (e) =>
  causeSchema.array().parse((e as { causes: unknown }).causes),
).flat()

/** What is grown, by name, with its stages. */
export const crops: readonly Crop[] = cropsSchema.parse(cropEntries).crops.toSorted(byName)
const cropsById = new Map(crops.map((crop) => [crop.id, crop]))
export const findCrop = (id: string): Crop | undefined => cropsById.get(id)

const organismsById = new Map(organisms.map((organism) => [organism.id, organism]))
const methodsById = new Map(methods.map((method) => [method.id, method]))

/** The entry with this id, if the library has it. */
export const findOrganism = (id: string): Organism | undefined => organismsById.get(id)
export const findMethod = (id: string): Method | undefined => methodsById.get(id)
