import type { Biofix, Indicator, Organism, Quantity } from './schema.js'

/** A figure of an entry with the path at which it stands, such as `first.hatch.heat`. */
export interface NamedFigure {
  path: string
  quantity: Quantity
}

type EventEntry = Organism['generations'][number]['events'][number]

const figuresOf = (prefix: string, node: object): NamedFigure[] =>
  Object.entries(node).flatMap(([name, value]: [string, unknown]) => {
    if (typeof value !== 'object' || value === null) return []
    return isQuantity(value) ? [{ path: `${prefix}${name}`, quantity: value }] : []
  })

const isQuantity = (value: object): value is Quantity => 'value' in value && 'confidence' in value

/** Every number on which a forecast of an entry's dates rests. The expected biofix is not among them: it is gone once one is entered. */
export function forecastFigures(organism: Organism): NamedFigure[] {
  const { heat, generations, infection, emergence } = organism
  return [
    ...figuresOf('heat.', heat),
    ...generations.flatMap((generation) => [
      ...generation.events.flatMap((event) => figuresOf(`${event.id}.`, event)),
      ...(generation.diapause ? figuresOf(`${generation.id}.diapause.`, generation.diapause) : []),
    ]),
    ...(infection
      ? [
          ...figuresOf('infection.', infection),
          ...figuresOf('infection.model.', infection.model),
          ...figuresOf('infection.latent.', infection.latent),
        ]
      : []),
    ...organism.ends.map((end, i) => ({ path: `ends.${i}.limit`, quantity: end.limit })),
    ...(emergence ? [...figuresOf('emergence.', emergence), ...figuresOf('emergence.clock.', emergence.clock)] : []),
  ]
}

/** The numbers of the expected biofix, where the entry has one. */
export function expectedFigures({ biofix }: Pick<Organism, 'biofix'>): NamedFigure[] {
  if (biofix.kind === 'chill') return figuresOf('biofix.', biofix)
  return 'expected' in biofix ? figuresOf('biofix.expected.', biofix.expected) : []
}

/** The numbers that a forecast of dates rests on. */
export const forecastQuantities = (organism: Organism): Quantity[] => forecastFigures(organism).map(({ quantity }) => quantity)

/** A forecast that rests on a placeholder is given in months, without dates. */
export function restsOnPlaceholder(organism: Organism): boolean {
  return (
    organism.heat.confidence === 'placeholder' ||
    organism.infection?.confidence === 'placeholder' ||
    forecastQuantities(organism).some((q) => q.confidence === 'placeholder')
  )
}

const plainRule = ({ method, lower, upper, cutoff }: Organism['heat']) => ({
  method,
  lower: lower.value,
  ...(upper ? { upper: upper.value } : {}),
  ...(cutoff ? { cutoff } : {}),
})

const plainEvent = (e: EventEntry) => ({
  id: e.id,
  stage: e.stage,
  heat: e.heat.value,
  atShare: e.atShare.value,
  heatSe: e.heatSe.value,
  ...(e.distribution === 'weibull'
    ? { distribution: e.distribution, shape: e.shape?.value ?? 1, onset: e.onset?.value ?? 0 }
    : { distribution: e.distribution, spread: e.spread?.value ?? 1 }),
  ...(e.countedFrom ? { countedFrom: e.countedFrom } : {}),
})

/** Replaces every figure within a node by its number. */
type Plain<T> = T extends Quantity ? number : T extends object ? { [K in keyof T]: Plain<T[K]> } : T

function plain<T>(node: T): Plain<T> {
  if (typeof node !== 'object' || node === null) return node as Plain<T>
  if (isQuantity(node)) return node.value as Plain<T>
  return Object.fromEntries(Object.entries(node).map(([key, value]) => [key, plain(value)])) as Plain<T>
}

function plainBiofix(biofix: Biofix) {
  switch (biofix.kind) {
    case 'date':
      return { kind: biofix.kind, month: biofix.month, day: biofix.day }
    case 'chill':
      return { kind: biofix.kind, portions: biofix.portions.value }
    default:
      return { kind: biofix.kind, expected: plain(biofix.expected) }
  }
}

/** The organism's year as plain numbers, in the form that the computation takes. */
export function modelOf(organism: Organism) {
  const { infection, emergence, ends } = organism
  return {
    heat: plainRule(organism.heat),
    biofix: plainBiofix(organism.biofix),
    generations: organism.generations.map(({ id, reachableStages, diapause, events }) => ({
      id,
      reachableStages,
      ...(diapause ? { diapause: plain(diapause) } : {}),
      events: events.map(plainEvent),
    })),
    ...(infection
      ? {
          infection: {
            model: plain(infection.model),
            ...(infection.ends ? { ends: infection.ends.value } : {}),
            latent: plain(infection.latent),
            curativeDays: infection.curativeDays.value,
          },
        }
      : {}),
    ...(emergence
      ? {
          emergence: {
            clock: plain(emergence.clock),
            onset: emergence.onset.value,
            median: emergence.median.value,
            shape: emergence.shape.value,
            medianSe: emergence.medianSe.value,
          },
        }
      : {}),
    ...(ends.length > 0 ? { ends: ends.map(({ by, limit }) => ({ by, limit: limit.value })) } : {}),
  }
}

/** A bloom plant's year as plain numbers. */
export function indicatorModel(indicator: Indicator) {
  return { heat: plainRule(indicator.heat), biofix: plainBiofix(indicator.biofix), events: indicator.events.map(plainEvent) }
}
