import type { units } from './schema.js'

type Unit = (typeof units)[number]

/** The unit of a figure by its name, so that an entry says it once for all. */
const UNIT_OF: Readonly<Record<string, Unit>> = {
  heat: '°C·d',
  heatSe: '°C·d',
  spread: '°C·d',
  ends: '°C·d',
  onset: '°C·d',
  median: '°C·d',
  medianSe: '°C·d',
  atShare: 'share',
  killedBelow: '°C',
  lower: '°C',
  upper: '°C',
  base: '°C',
  optimum: '°C',
  tmin: '°C',
  topt: '°C',
  tmax: '°C',
  waterBase: 'MPa',
  wmin: 'h',
  wmax: 'h',
  longestBreak: 'h',
  criticalHours: 'h',
  slope: 'h',
  curativeDays: 'd',
  shortest: 'years',
  longest: 'years',
  portions: 'portions',
  shape: '1',
  dueAt: '1',
  followUpAt: '1',
}

type Json = string | number | boolean | null | Json[] | { [key: string]: Json }
type Bases = Readonly<Record<string, { [key: string]: Json }>>

/**
 * An entry as its authors write it, spelt out: `bases` names what figures rest on, `basis` says which one holds from there inwards,
 * and a figure is a bare number or `{ value, unit?, basis? }`. What comes out has confidence, region and source at every figure; an
 * entry that is spelt out already stays as it is.
 *
 * @throws Error naming a basis that the entry does not have
 */
export function spellOut(entry: unknown): unknown {
  const { bases = {}, ...rest } = entry as { [key: string]: Json } & { bases?: Bases }
  const whole = rest['monthsOnly'] === true ? { ...STAND_IN, ...rest } : rest
  return within(withoutYesNo(whole as { [key: string]: Json }), '', undefined, { ...(bases as Bases), ...UNKNOWN })
}

/** Entries once said of each stage whether anything reaches it; what reaches it says so now. */
function withoutYesNo(entry: { [key: string]: Json }): Json {
  const { stages } = entry
  if (!Array.isArray(stages)) return entry
  const plain = stages.map((stage) =>
    stage !== null && typeof stage === 'object' && !Array.isArray(stage)
      ? Object.fromEntries(Object.entries(stage).filter(([name]) => name !== 'reachable'))
      : stage,
  )
  return { ...entry, stages: plain }
}

const UNKNOWN: Bases = { unknown: { confidence: 'placeholder', region: 'no figure known', source: { kind: 'none' } } }

/** What an entry by months has in place of a heat rule and a biofix; nothing is computed from it. */
const STAND_IN = {
  heat: { method: 'single-sine', lower: 10, basis: 'unknown' },
  biofix: { kind: 'date', ask: 'Only months are known of it; there is no date to enter.', month: 1, day: 1 },
}

function within(node: Json, name: string, basis: string | undefined, bases: Bases): Json {
  if (Array.isArray(node)) return node.map((inner) => within(inner, LISTED.has(name) ? name : '', basis, bases))
  const unit = UNIT_OF[name]
  if (typeof node === 'number') return unit ? figure({ value: node }, unit, basis, bases) : node
  if (node === null || typeof node !== 'object') return node
  const { basis: own, ...rest } = node
  const held = typeof own === 'string' ? own : basis
  if (typeof rest['value'] === 'number') return figure(rest, unit, held, bases)
  const inner = Object.fromEntries(Object.entries(rest).map(([key, value]) => [key, within(value, key, held, bases)]))
  // A rule, a model and the usual months are statements of their own and carry what they rest on themselves.
  const stated = STATEMENTS[name]
  return stated && inner['confidence'] === undefined ? { ...inner, ...pick(basisOf(held, bases), stated) } : inner
}

/** Lists of statements, each of which carries what it rests on itself. */
const LISTED: ReadonlySet<string> = new Set(['varieties', 'meets'])

const STATEMENTS: Readonly<Record<string, readonly string[]>> = {
  heat: ['confidence', 'source'],
  infection: ['confidence', 'source'],
  usual: ['confidence', 'region', 'source'],
  varieties: ['confidence', 'region', 'source'],
  meets: ['confidence', 'region', 'source'],
  hours: ['confidence', 'region', 'source'],
}

function basisOf(name: string | undefined, bases: Bases): { [key: string]: Json } {
  const basis = name === undefined ? undefined : bases[name]
  if (!basis) throw new Error(`the entry has no basis ${name ?? 'here'}`)
  return basis
}

const pick = (from: { [key: string]: Json }, keys: readonly string[]): { [key: string]: Json } =>
  Object.fromEntries(keys.flatMap((key) => (from[key] === undefined ? [] : [[key, from[key]]])))

function figure(given: { [key: string]: Json }, unit: Unit | undefined, basis: string | undefined, bases: Bases): Json {
  const whole = { ...(unit ? { unit } : {}), ...given }
  return given['confidence'] === undefined ? { ...whole, ...basisOf(basis, bases) } : whole
}
