/**
 * npm run restore FILE: puts a copy or an archive back as the shop (or with -- --demo as the demo, or as
 * DATABASE_URL), while it runs or not. What is there now is kept under another name.
 */
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { restore } from './lib/copies.mjs'
import { StartError } from './lib/postgres.mjs'
import { command, migrationsOf, NAMES, runOn } from './lib/where.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')

/** Brings the copy up to date before anybody sees it. */
async function prepare(url) {
  const r = runOn(root, url, 'migrate')
  if (r.status !== 0) throw new StartError(`The copy could not be brought up to date:\n${r.stderr}`)
}

await command(
  root,
  async ({ name, file, ...at }) => {
    const migrations = migrationsOf(root).map(m => m.name)
    const unpack = async url => {
      const r = runOn(root, url, 'unpack', resolve(file))
      if (r.status !== 0) throw new StartError(r.stderr.trim() || `${file} could not be read`)
      console.log(r.stdout.trimEnd())
    }
    const kept = await restore({ ...at, file: resolve(file), migrations, prepare, unpack })
    const now = name === NAMES.demo && !process.env.DATABASE_URL ? 'the demo' : 'the shop'
    console.log(`  ${file} is ${now} now${kept ? `; what was there before is the database ${kept}` : ''}`)
  },
  file => {
    if (file === null) throw new StartError('Which copy? npm run restore FILE')
  },
)
