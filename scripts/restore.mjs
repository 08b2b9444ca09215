/**
 * npm run restore FILE: puts a copy or an archive back as the shop (or with -- --demo as the demo, or as
 * DATABASE_URL), while it runs or not. What is there now is kept under another name.
 */
import { spawnSync } from 'node:child_process'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { restore } from './lib/copies.mjs'
import { StartError } from './lib/postgres.mjs'
import { asked, migrationsOf, NAMES, reach } from './lib/where.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')

/** Runs a script on a database. */
const on = (url, script, ...args) =>
  spawnSync(process.execPath, ['--import', 'tsx', `scripts/${script}.ts`, ...args], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: url },
    encoding: 'utf8',
  })

/** Brings the copy up to date before anybody sees it. */
async function prepare(url) {
  const r = on(url, 'migrate')
  if (r.status !== 0) throw new StartError(`The copy could not be brought up to date:\n${r.stderr}`)
}

let at = null
try {
  const { name, file } = asked()
  if (file === null) throw new StartError('Which copy? npm run restore FILE')
  at = await reach(root, name)
  const migrations = migrationsOf(root).map(m => m.name)
  const unpack = async url => {
    const r = on(url, 'unpack', resolve(file))
    if (r.status !== 0) throw new StartError(r.stderr.trim() || `${file} could not be read`)
    console.log(r.stdout.trimEnd())
  }
  const kept = await restore({ ...at, file: resolve(file), migrations, prepare, unpack })
  const now = name === NAMES.demo && !process.env.DATABASE_URL ? 'the demo' : 'the shop'
  console.log(`  ${file} is ${now} now${kept ? `; what was there before is the database ${kept}` : ''}`)
} catch (error) {
  console.error(error instanceof StartError ? `  ${error.message}` : error)
  process.exitCode = 1
} finally {
  await at?.stop()
}
