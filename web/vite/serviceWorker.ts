import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { build, type Plugin } from 'vite'

/** Files of the page that nobody needs in the field. */
const LEFT_OUT = /\.map$|^\.vite\/|^service\.js$/
/** Their names change with what is in them. */
const NAMED_BY_CONTENT = /^assets\//

const read = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((file) => file.isFile())
    .map((file) => `${file.parentPath}/${file.name}`.slice(folder.length + 1))

/** Writes `service.js`, which keeps the page on a device: it has to know every file of the page, and so is built after them. */
export function serviceWorker(): Plugin {
  let folder = ''
  return {
    name: 'bocado-service-worker',
    apply: 'build',
    configResolved: ({ root, build: { outDir } }) => {
      folder = `${root}/${outDir}`
    },
    closeBundle: async () => {
      const files = read(folder)
        .filter((file) => !LEFT_OUT.test(file))
        .sort()
        .map((file) => ({
          url: `/${file}`,
          revision: NAMED_BY_CONTENT.test(file)
            ? null
            : createHash('sha256')
                .update(readFileSync(`${folder}/${file}`))
                .digest('hex')
                .slice(0, 16),
        }))
      await build({
        configFile: false,
        logLevel: 'warn',
        define: { PAGE_FILES: JSON.stringify(files), 'process.env.NODE_ENV': '"production"' },
        build: {
          outDir: folder,
          emptyOutDir: false,
          copyPublicDir: false,
          target: 'es2023',
          lib: {
            entry: fileURLToPath(new URL('../src/service/service.ts', import.meta.url)),
            formats: ['iife'],
            name: 'service',
            fileName: () => 'service.js',
          },
        },
      })
    },
  }
}
