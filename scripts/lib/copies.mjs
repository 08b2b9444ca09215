/**
 * Copies of a database, by PostgreSQL's own dump: made, kept, and put back. A copy goes into a new database first, and
 * takes the old one's name only when it is whole; the old one stays beside it.
 */
import { spawn, spawnSync } from 'node:child_process'
import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs'
import { basename, join } from 'node:path'
import { StartError } from './postgres.mjs'
import { ask, connection } from './psql.mjs'

const NIGHTLY = /^nightly-\d{4}-\d\d-\d\d\.dump$/
const BEFORE = /^before-.*\.dump$/
const NIGHTS_KEPT = 14
const BEFORE_KEPT = 3

const databaseOf = url => decodeURIComponent(new URL(url).pathname.slice(1))
function elsewhere(url, database) {
  const other = new URL(url)
  other.pathname = `/${encodeURIComponent(database)}`
  return other.href
}

function must(bin, url, statement) {
  const r = ask(bin, url, statement)
  if (!r.ok) throw new StartError(`The database refused: ${r.said}`)
  return r.rows
}

/** A dump by an older program than the server may leave out what it does not know: refused. */
export function notOlder(bin, url) {
  const own = Number(
    /(\d+)(?:\.\d+)?/.exec(spawnSync(join(bin, 'pg_dump'), ['--version'], { encoding: 'utf8' }).stdout)?.[1],
  )
  const server = Math.floor(Number(must(bin, url, 'show server_version_num')[0]) / 10_000)
  if (!(own >= server))
    throw new StartError(
      `pg_dump here is version ${own} and the database is ${server}: install the programs of PostgreSQL ${server} or ` +
        'newer (package postgresql-client), since an older one may leave something out.',
    )
}

function run(bin, program, url, args, out = 'ignore') {
  const { address, env } = connection(url)
  return new Promise((done, failed) => {
    const child = spawn(join(bin, program), [...args.slice(0, -1), '-d', address, ...args.slice(-1)], {
      stdio: ['ignore', out, 'pipe'],
      env,
    })
    let said = ''
    child.stderr?.on('data', d => {
      said = (said + d).slice(-2000)
    })
    child.once('error', failed)
    child.once('exit', code =>
      code === 0 ? done(undefined) : failed(new StartError(`${program} failed (code ${code}):\n${said}`)),
    )
  })
}

/** Writes a copy to `file`; half a copy never has that name. */
export async function backup({ bin, url, file }) {
  notOlder(bin, url)
  const half = `${file}.part`
  const out = openSync(half, 'w', 0o600)
  try {
    await run(bin, 'pg_dump', url, ['--format=custom', '--no-owner'], out)
  } catch (error) {
    rmSync(half, { force: true })
    throw error
  } finally {
    closeSync(out)
  }
  renameSync(half, file)
  return statSync(file).size
}

/** An archive of open formats is a ZIP, and begins as every ZIP does. */
export function isArchive(file) {
  if (!existsSync(file)) throw new StartError(`There is no file ${file}`)
  const start = Buffer.alloc(4)
  const at = openSync(file, 'r')
  readSync(at, start, 0, 4, 0)
  closeSync(at)
  return start.toString('latin1') === 'PK\x03\x04'
}

/**
 * Puts a copy back: into a new database, which is brought up to date by `prepare` and then takes the name of the one
 * that is there; that one is kept under another name, which is answered. An archive is read by `unpack` instead, which
 * leaves it up to date.
 *
 * @param {{ bin: string, url: string, file: string, migrations: string[], prepare: (url: string) => Promise<unknown>,
 *   unpack?: ((url: string) => Promise<unknown>) | null, now?: Date }} how
 */
export async function restore({ bin, url, file, migrations, prepare, unpack = null, now = new Date() }) {
  const asArchive = isArchive(file) && unpack !== null
  if (!asArchive && spawnSync(join(bin, 'pg_restore'), ['--list', file], { stdio: 'ignore' }).status !== 0)
    throw new StartError(`${file} is no copy that pg_restore can read; nothing was changed`)
  const name = databaseOf(url)
  const stamp = now.toISOString().replaceAll(/\D/g, '').slice(0, 14)
  const fresh = `${name}_new_${stamp}`
  const kept = `${name}_before_${stamp}`
  const admin = elsewhere(url, 'postgres')
  must(bin, admin, `create database "${fresh}"`)
  try {
    if (asArchive) await unpack(elsewhere(url, fresh))
    else await run(bin, 'pg_restore', elsewhere(url, fresh), ['--no-owner', '--exit-on-error', file])
    const made = ask(bin, elsewhere(url, fresh), 'select name from migrations').rows
    if (made.length === 0) throw new StartError(`${file} is a copy of something else: it has no shop in it`)
    const unknown = made.filter(m => !migrations.includes(m))
    if (unknown.length > 0)
      throw new StartError(`${file} was made by a newer version of Iron Nozzle (${unknown[0]}): upgrade this one first`)
    await prepare(elsewhere(url, fresh))
  } catch (error) {
    ask(bin, admin, `drop database if exists "${fresh}"`)
    throw error
  }
  const there = ask(bin, admin, `select 1 from pg_database where datname = '${name}'`).rows.length > 0
  // who is connected is cut off, and finds the other one when it asks again
  if (there) {
    must(bin, admin, `alter database "${name}" allow_connections false`)
    must(bin, admin, `select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}'`)
    must(bin, admin, `alter database "${name}" rename to "${kept}"`)
    must(bin, admin, `alter database "${kept}" allow_connections true`)
  }
  must(bin, admin, `alter database "${fresh}" rename to "${name}"`)
  return there ? kept : null
}

/** What drops or rewrites what was stored; what only adds needs no copy. */
export const rewrites = sql =>
  /\bdrop\s+(table|column|view|type|constraint|index)\b|\balter\s+column\b.*\btype\b|\bdisable\s+trigger\b|^\s*(update|delete)\b/im.test(
    sql.replaceAll(/--.*$/gm, ''),
  )

/** Names of migrations that wait and drop or rewrite something; none for a database that is new. */
export function risky({ bin, url, migrations }) {
  const known = ask(bin, url, 'select name from migrations')
  if (!known.ok || known.rows.length === 0) return []
  return migrations.filter(m => !known.rows.includes(m.name) && rewrites(m.sql)).map(m => m.name)
}

function keep(folder, which, most) {
  const files = readdirSync(folder)
    .filter(f => which.test(f))
    .sort((a, b) => statSync(join(folder, b)).mtimeMs - statSync(join(folder, a)).mtimeMs)
  for (const f of files.slice(most)) rmSync(join(folder, f))
}

/** A copy before a migration; the latest three are kept. */
export async function copyBefore({ bin, url, folder, names, now = new Date() }) {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const stamp = now.toISOString().replaceAll(/\D/g, '').slice(0, 14)
  const file = join(folder, `before-${basename(names[0], '.sql')}-${stamp}.dump`)
  await backup({ bin, url, file })
  keep(folder, BEFORE, BEFORE_KEPT)
  return file
}

/**
 * The night's copy, by whichever process asks first that day; two weeks are kept. Null when it is made already.
 */
export async function copyNightly({ bin, url, folder, now = new Date() }) {
  const day = now.toISOString().slice(0, 10)
  if (must(bin, url, `select claim_chore('backup', '${day}')`)[0] !== 't') return null
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const file = join(folder, `nightly-${day}.dump`)
  try {
    await backup({ bin, url, file })
  } catch (error) {
    ask(bin, url, `delete from chores where name = 'backup'`) // another may try
    throw error
  }
  keep(folder, NIGHTLY, NIGHTS_KEPT)
  return file
}
