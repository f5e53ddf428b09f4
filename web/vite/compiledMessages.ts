import { parse } from '@formatjs/icu-messageformat-parser'
import type { Plugin } from 'vite'

const GROUP = /\/messages\/en\/\w+\.ts$/
/** As in `useText`: what is only letters stays a text. */
const SAYS_MORE = /[{}'<>#]/
const PARSER = '@formatjs/icu-messageformat-parser'

/** Compiles the messages while the page is built, and leaves the parser out of it. */
export function compiledMessages(): Plugin {
  return {
    name: 'compiled-messages',
    apply: 'build',
    enforce: 'pre',
    config: () => ({ resolve: { alias: [{ find: new RegExp(`^${PARSER}$`), replacement: `${PARSER}/no-parser.js` }] } }),
    transform(code, id) {
      if (!GROUP.test(id)) return undefined
      const [, name, body] = /export const (\w+) = (\{[\s\S]*\}) as const/.exec(code) ?? []
      if (!name || !body) throw new Error(`${id} has no group of messages`)
      const texts = new Function(`return ${body}`)() as Record<string, string>
      const compiled = Object.fromEntries(Object.entries(texts).map(([key, text]) => [key, SAYS_MORE.test(text) ? parse(text) : text]))
      return {
        code: `import { register } from '../registry.js'\nregister(JSON.parse(${JSON.stringify(JSON.stringify(compiled))}))\nexport const ${name} = {}\n`,
        map: null,
        moduleSideEffects: true,
      }
    },
  }
}
