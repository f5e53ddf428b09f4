import type { Measure } from '../design/units.js'

type Values = Readonly<Record<string, unknown>>

/** Paths to the values of a form, such as `name` and `weather.tempC`. */
export type PathOf<V> = V extends Values
  ? { [K in keyof V & string]: NonNullable<V[K]> extends Values ? K | `${K}.${PathOf<NonNullable<V[K]>>}` : K }[keyof V & string]
  : never

/** A field of a form as a control takes it: what stands there, what is typed, and what is wrong with it. */
export interface Bound<T> {
  value: T
  onChange: (value: T) => void
  error: string | undefined
}

/** Fields of one form, each bound by the path of its value, which is also that of the endpoint's input and of its refusals. */
export interface Bindings<V> {
  text: (path: PathOf<V>) => Bound<string>
  /** A number; with a measure it is shown and typed in that, and stored in SI. */
  number: (path: PathOf<V>, measure?: Pick<Measure, 'shown' | 'stored'>) => Bound<number | null>
  /** One of several, by its id. */
  choice: (path: PathOf<V>) => Omit<Bound<string | null>, 'onChange'> & { onChange: (id: string) => void }
  day: (path: PathOf<V>) => Bound<string | null>
  check: (path: PathOf<V>) => { value: boolean; onChange: (value: boolean) => void }
}

/** What stands at a path. */
export function valueAt(values: Values, path: string): unknown {
  let node: unknown = values
  for (const part of path.split('.')) node = (node as Values | null)?.[part]
  return node
}

/** Values with something else at a path; everything beside it stays the same. */
export function withValue<V extends Values>(values: V, path: string, value: unknown): V {
  const [first = '', ...rest] = path.split('.')
  return { ...values, [first]: rest.length === 0 ? value : withValue((values[first] ?? {}) as Values, rest.join('.'), value) }
}

export function bindingsOf<V extends Values>(
  values: V,
  errors: Readonly<Record<string, string>>,
  change: (path: string, value: unknown) => void,
): Bindings<V> {
  const bound = <T>(path: string): Bound<T> => ({
    value: valueAt(values, path) as T,
    onChange: (value) => change(path, value),
    error: errors[path],
  })
  return {
    text: (path) => bound(path),
    number: (path, measure) => {
      const { value, onChange, error } = bound<number | null>(path)
      if (!measure) return { value, onChange, error }
      return {
        value: value === null ? null : measure.shown(value),
        onChange: (shown) => onChange(shown === null ? null : measure.stored(shown)),
        error,
      }
    },
    choice: (path) => bound(path),
    day: (path) => bound(path),
    check: (path) => bound(path),
  }
}
