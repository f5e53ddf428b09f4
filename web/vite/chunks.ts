/** What the bundler says of a module. */
interface Module {
  importedIds: readonly string[]
  dynamicallyImportedIds: readonly string[]
}
interface Context {
  getModuleInfo: (id: string) => Module | null
}

/** Everything that is there once a module is. */
function closure(id: string, context: Context, known = new Set<string>()): Set<string> {
  if (known.has(id)) return known
  known.add(id)
  for (const next of context.getModuleInfo(id)?.importedIds ?? []) closure(next, context, known)
  return known
}

/** Brings a package with it that not every screen needs, and comes by itself. */
const isHeavy = (id: string): boolean => id.endsWith('/DateField.tsx')

/** Sentences of a part of the work: large, and never all needed by one screen. */
const isSentences = (id: string): boolean => id.includes('/messages/en/')

/** By as many screens and panels a module of ours has to be needed before it comes with what many need. */
const MANY = 7

/**
 * Whether a module goes into the one file of what many screens need beyond the frame: over a slow line each file costs a round trip, and the
 * bundler alone makes dozens of small ones. Packages are left to it, since they are shaken.
 *
 * @param main path of the module with which the page begins
 */
export function isCommon(main: string): (id: string, context: Context) => boolean {
  let common: Set<string> | undefined
  const sort = (context: Context): Set<string> => {
    const frame = closure(main, context)
    const later = new Set<string>()
    const walk = (id: string): void => {
      for (const inside of closure(id, context))
        for (const next of context.getModuleInfo(inside)?.dynamicallyImportedIds ?? []) {
          if (later.has(next)) continue
          later.add(next)
          walk(next)
        }
    }
    walk(main)
    const needed = new Map<string, number>()
    for (const entry of later) for (const id of closure(entry, context)) needed.set(id, (needed.get(id) ?? 0) + 1)
    return new Set(
      [...needed].flatMap(([id, by]) =>
        by >= MANY && !frame.has(id) && !id.includes('node_modules') && !isHeavy(id) && !isSentences(id) ? id : [],
      ),
    )
  }
  return (id, context) => {
    if (!context.getModuleInfo(main)) return false
    common ??= sort(context)
    return common.has(id)
  }
}
