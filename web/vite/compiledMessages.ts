import { parse } from '@formatjs/icu-messageformat-parser'
import { runnerImport, type Plugin } from 'vite'

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
    async transform(_, id) {
      if (!GROUP.test(id)) return undefined
      const { module } = await runnerImport<Record<string, Record<string, string>>>(id, { configFile: false, mode: 'production' })
      const [[name, texts] = []] = Object.entries(module)
      if (!name || !texts) throw new Error(`${id} has no group of messages`)
      const compiled = Object.fromEntries(Object.entries(texts).map(([key, text]) => [key, SAYS_MORE.test(text) ? parse(text) : text]))
      const json = JSON.stringify(JSON.stringify(compiled))
      return {
        code: `import { register } from '../registry.js'\nregister(JSON.parse(${json}))\nexport const ${name} = {}\n`,
        map: null,
        moduleSideEffects: true,
      }
    },
  }
}
