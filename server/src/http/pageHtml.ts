import { readFileSync } from 'node:fs'
import { join } from 'node:path'

/** What the bundler wrote of a part of the page. */
interface Part {
  file: string
  imports?: string[]
}

/** The screen with which the page begins where the address names none. */
const FIRST_SCREEN = 'windows'
/** What stands in every place for who is not signed in. */
const DOOR = 'signin'
/** What a screen stands without at first. */
const LONG = /\/organisms$/
/** Before this in the page's head. */
const FIRST_LINK = '<script type="module"'

/**
 * The page as it is sent for an address: with what its screen needs named at once, so that over a slow line nothing is found out one round
 * trip after the other. Without the bundler's list it is sent as it was built.
 *
 * @param root folder of the built page
 * @returns the page for a path, with the addresses that its screen will read; `door` for who is not signed in
 */
export function pageHtml(root: string): (path: string, asked: readonly string[], door?: boolean) => string {
  const html = readFileSync(join(root, 'index.html'), 'utf8')
  const parts = partsOf(root)
  const screens = new Map(
    Object.keys(parts).flatMap((name) => {
      const [, screen] = /^src\/\w+\/(\w+)Screen\.tsx$/.exec(name) ?? []
      return screen ? [[screen.toLowerCase(), name] as const] : []
    }),
  )
  const needed = (name: string, known = new Set<string>()): Set<string> => {
    if (known.has(name)) return known
    known.add(name)
    for (const next of parts[name]?.imports ?? []) needed(next, known)
    return known
  }
  const links = new Map(
    [...screens].map(([screen, name]) => [
      screen,
      [...needed(name)]
        .flatMap((part) => parts[part]?.file ?? [])
        .filter((file) => !html.includes(file))
        .map((file) => `<link rel="modulepreload" crossorigin href="/${file}">`)
        .join('\n    '),
    ]),
  )
  return (path, asked, door = false) => {
    const screen = door ? DOOR : (path.split('/').findLast((word) => screens.has(word)) ?? FIRST_SCREEN)
    // What is read comes first: it is what the screen waits for at the end. Long lists that it stands without come when there is room.
    const reads = asked.map((address) => {
      const priority = LONG.test(address) ? ' fetchpriority="low"' : ''
      return `<link rel="preload" as="fetch" crossorigin="anonymous" href="${address}"${priority}>`
    })
    const [before = '', after = ''] = html.split(FIRST_LINK)
    return [before, ...reads, FIRST_LINK, after].join('').replace('</head>', `  ${links.get(screen) ?? ''}\n  </head>`)
  }
}

function partsOf(root: string): Record<string, Part> {
  try {
    return JSON.parse(readFileSync(join(root, '.vite', 'manifest.json'), 'utf8')) as Record<string, Part>
  } catch {
    return {}
  }
}
