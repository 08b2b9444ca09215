/** Which database is meant, and the programs to work on it: for backup and restore. */
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { dataFolder, findServer, startServer, StartError } from './postgres.mjs'
import { ask } from './psql.mjs'

export const NAMES = { shop: 'iron_nozzle_shop', demo: 'iron_nozzle_demo' }

/** Where copies lie: beside the data, or where IRON_NOZZLE_BACKUPS says. */
export const backupsIn = folder => process.env.IRON_NOZZLE_BACKUPS ?? join(folder, 'backups')

/** The migrations that this version of the program knows. */
export function migrationsOf(root) {
  const folder = join(root, 'server/db/migrations')
  return readdirSync(folder)
    .filter(f => f.endsWith('.sql'))
    .sort()
    .map(name => ({ name, sql: readFileSync(join(folder, name), 'utf8') }))
}

/** Options of the command line: `--demo` for the demo, else the shop, and a file. */
function asked() {
  try {
    const { values, positionals } = parseArgs({
      options: { demo: { type: 'boolean' }, shop: { type: 'boolean' } },
      allowPositionals: true,
    })
    if (positionals.length > 1) throw new Error('One file at a time')
    return { name: values.demo ? NAMES.demo : NAMES.shop, file: positionals[0] ?? null }
  } catch (error) {
    throw new StartError(`${error.message}\n  Options: --shop, --demo, and a file`)
  }
}

/** The database that is meant: DATABASE_URL, the one that runs, or one that is started for this alone. */
async function reach(root, name) {
  const bin = findServer()
  const folder = dataFolder(join(root, '.data'))
  const given = process.env.DATABASE_URL
  if (given) {
    if (!bin) throw new StartError("PostgreSQL's programs are not installed here: apt-get install postgresql-client")
    return { bin, folder, url: given, stop: async () => {} }
  }
  const file = join(folder, 'running')
  if (bin && existsSync(file)) {
    const running = new URL(readFileSync(file, 'utf8').trim())
    running.pathname = `/${name}`
    const admin = new URL(running.href)
    admin.pathname = '/postgres'
    if (ask(bin, admin.href, 'select 1').ok) return { bin, folder, url: running.href, stop: async () => {} }
  }
  const server = await startServer({ folder, say: text => console.log(`  ${text}`) })
  return { bin: server.bin, folder, url: server.url(name), stop: () => server.stop() }
}

/**
 * A command on the database that is meant: it is reached, worked on and left again; what goes wrong is said, and the
 * command fails. `file` is the one that was named, or null, which `check` may refuse before anything is started.
 */
export async function command(root, work, check = () => {}) {
  let at = null
  try {
    const { name, file } = asked()
    check(file)
    at = await reach(root, name)
    await work({ ...at, name, file })
  } catch (error) {
    console.error(error instanceof StartError ? `  ${error.message}` : error)
    process.exitCode = 1
  } finally {
    await at?.stop()
  }
}

/** The file that was named, or one of this moment among the copies; its folder is there. */
export function fileOf({ folder, file }, kind, extension) {
  const stamp = new Date().toISOString().replaceAll(/\D/g, '').slice(0, 14)
  const target = file === null ? join(backupsIn(folder), `${kind}-${stamp}.${extension}`) : resolve(file)
  mkdirSync(dirname(target), { recursive: true })
  return target
}

/** Runs a script of the program on a database. */
export const runOn = (root, url, script, ...args) =>
  spawnSync(process.execPath, ['--import', 'tsx', `scripts/${script}.ts`, ...args], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: url },
    encoding: 'utf8',
  })
