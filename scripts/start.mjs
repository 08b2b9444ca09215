/**
 * npm start: installs what is missing, makes and starts the database, migrates, loads the demo once, builds when the
 * sources changed, serves, and prints the address. Starts its database and its application again when one ends. Ctrl-C
 * stops everything it started.
 *
 *   npm start                  the demo shop (its own database, on 127.0.0.1 only)
 *   npm start -- --shop        an empty shop in another database
 *   npm start -- --shop --lan  the shop, for the other machines of the shop's network
 *   DATABASE_URL=… npm start   an existing PostgreSQL; no demo data unless --demo is given
 *   --port N                   another port than 4750
 *   --no-copy                  migrates without a copy before
 */
import { spawn, spawnSync } from 'node:child_process'
import { chmodSync, cpSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createConnection } from 'node:net'
import { hostname, networkInterfaces } from 'node:os'
import { dirname, join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { buildStamp } from './build-stamp.mjs'
import { copyBefore, copyNightly, risky } from './lib/copies.mjs'
import { dataFolder, findServer, plainUser, startServer, StartError } from './lib/postgres.mjs'
import { supervise } from './lib/supervise.mjs'
import { backupsIn, migrationsOf, NAMES } from './lib/where.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const say = text => console.log(`  ${text}`)
const begun = performance.now()

function options() {
  try {
    const { values } = parseArgs({
      allowNegative: true,
      options: {
        shop: { type: 'boolean' },
        demo: { type: 'boolean' },
        lan: { type: 'boolean' },
        dev: { type: 'boolean' },
        copy: { type: 'boolean', default: true },
        port: { type: 'string', default: process.env.PORT ?? '4750' },
      },
    })
    const port = Number(values.port)
    if (!Number.isInteger(port) || port < 1 || port > 65535)
      throw new Error(`--port ${values.port} is not a port; 1 to 65535`)
    if (values.shop && values.demo) throw new Error('--shop is an empty shop and --demo the demo; choose one')
    return { ...values, port }
  } catch (error) {
    throw new StartError(`${error.message}\n  Options: --shop, --demo, --lan, --port N, --no-copy`)
  }
}

function installPackages() {
  const marker = join(root, 'node_modules/.package-lock.json')
  const done = join(root, 'node_modules/.iron-nozzle-lock')
  const lock = readFileSync(join(root, 'package-lock.json'), 'utf8')
  if (existsSync(marker) && existsSync(done) && readFileSync(done, 'utf8') === lock) return
  say('installing packages (some minutes the first time)')
  const r = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  if (r.status !== 0) throw new StartError('npm ci failed; see above.')
  writeFileSync(done, lock)
}

function build() {
  const stampFile = join(root, '.output/stamp')
  const stamp = buildStamp(root)
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp) return
  say('building the application (about a minute)')
  const r = spawnSync('npx', ['nuxt', 'build'], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1' },
  })
  if (r.status !== 0) throw new StartError(`The build failed:\n${(r.stdout + r.stderr).slice(-4000)}`)
  writeFileSync(stampFile, stamp)
}

/** What this machine is called: it answers to no other name, so that no stranger's page reaches it by one. */
const namesOfMachine = () => [hostname(), `${hostname()}.local`].map(n => n.toLowerCase())
const addressesOfMachine = () =>
  Object.values(networkInterfaces())
    .flat()
    .filter(a => a && a.family === 'IPv4' && !a.internal)
    .map(a => a.address)

/** Holds a lock for as long as this process lives, so that a second start says so instead of fighting over the data. */
async function lock(folder) {
  mkdirSync(folder, { recursive: true })
  const holder = spawn('flock', ['-n', '-E', '9', join(folder, 'lock'), 'cat'], {
    stdio: ['pipe', 'ignore', 'ignore'],
    detached: true,
  })
  const held = await Promise.race([
    new Promise(done => holder.once('exit', code => done(code !== 9))),
    new Promise(done => holder.once('error', () => done(true))),
    sleep(400).then(() => true),
  ])
  if (!held) {
    let where = ''
    try {
      where = ` at ${readFileSync(join(folder, 'address'), 'utf8')}`
    } catch {
      /* it is still starting */
    }
    throw new StartError(`Iron Nozzle is running already${where} (data in ${folder}). Stop it first, or open it.`)
  }
  return holder
}

const portTaken = port =>
  new Promise(done => {
    const c = createConnection({ host: '127.0.0.1', port, timeout: 500 }, () => {
      c.destroy()
      done(true)
    })
    c.on('error', () => done(false)).on('timeout', () => {
      c.destroy()
      done(false)
    })
  })

/** The demo's stand-in printers and balance; they end with this process, which holds their standard input. */
async function startStandIns(speed) {
  const child = spawn(process.execPath, ['--import', 'tsx', 'sim/main.ts', '--speed', speed], {
    cwd: root,
    stdio: ['pipe', 'pipe', 'inherit'],
    detached: true,
  })
  const line = await Promise.race([
    new Promise(done => child.stdout.once('data', data => done(String(data)))),
    new Promise((_, no) =>
      child.once('exit', code => no(new StartError(`The stand-in printers stopped at once (code ${code}).`))),
    ),
    sleep(20_000).then(() => {
      throw new StartError('The stand-in printers did not start within 20 s.')
    }),
  ])
  const { printers, balance, fineBalance, microscope, thermometer } = JSON.parse(line)
  return {
    PRINTER_LINKS: JSON.stringify(printers),
    BALANCE_LINK: balance,
    FINE_BALANCE_LINK: fineBalance,
    MICROSCOPE_LINK: microscope,
    THERMOMETER_LINK: thermometer,
    STAND_INS: '1',
  }
}

/** How the application is run: with no rights of its own where we are root, from a folder that it can read. */
function applicationCommand(folder) {
  const built = join(root, '.output/server/index.mjs')
  const run = (path, as = []) => ['setpriv', [...as, '--pdeathsig', 'TERM', process.execPath, path]]
  const user = plainUser()
  if (user === null) return run(built)
  const as = ['--reuid', String(user.uid), '--regid', String(user.gid), '--clear-groups', '--no-new-privs']
  const may = (...test) => spawnSync('setpriv', [...as, 'test', ...test]).status === 0
  // where the sources lie others may not always go: the built application is put beside the data then
  const place = may('-r', built)
    ? built
    : join(copyOfBuild(`${folder ?? '/var/lib/iron-nozzle'}-app`), 'server/index.mjs')
  if (may('-x', process.execPath) && may('-r', place)) return run(place, as)
  say(`the application runs as root: ${process.execPath} or ${place} is closed to other users`)
  return run(built)
}

/** The built application in another folder, copied when it is another one. */
function copyOfBuild(copy) {
  const stamp = readFileSync(join(root, '.output/stamp'), 'utf8')
  const mark = join(copy, 'stamp')
  if (existsSync(mark) && readFileSync(mark, 'utf8') === stamp) return copy
  rmSync(copy, { recursive: true, force: true })
  cpSync(join(root, '.output'), copy, { recursive: true, verbatimSymlinks: true })
  chmodSync(copy, 0o755)
  return copy
}

/** Before what drops or rewrites, a copy is made: what only adds can do no harm. */
async function copyFirst(url, folder) {
  const bin = findServer()
  if (!bin) return // it cannot be asked what waits
  const names = risky({ bin, url, migrations: migrationsOf(root) })
  if (names.length === 0) return
  say(`a copy before ${names.join(', ')}`)
  const file = await copyBefore({ bin, url, folder: backupsIn(folder), names })
  const demo = new URL(url).pathname === `/${NAMES.demo}`
  say(`it is in ${file}; put back by npm run restore --${demo ? ' --demo' : ''} ${file}`)
}

/** The night's copy of a shop: after two in the morning by this machine's clock, once a day whoever runs. */
const NIGHT_H = 2
const LOOK_MS = 20 * 60_000
function copyEachNight(url, folder) {
  const bin = findServer()
  if (!bin) {
    say('no copies are made at night: PostgreSQL’s programs are not installed here')
    return
  }
  const look = () => {
    if (new Date().getHours() < NIGHT_H) return
    copyNightly({ bin, url: url(), folder: backupsIn(folder) }).then(
      file => file && say(`the night’s copy is in ${file}`),
      error => say(`the night’s copy could not be made: ${error.message}`),
    )
  }
  setTimeout(look, 60_000)
  setInterval(look, LOOK_MS)
}

async function main() {
  console.log('Iron Nozzle')
  let database = null
  let keptDatabase = null
  let server = null
  let stopping = false
  const stop = async code => {
    if (stopping) return
    stopping = true
    await server?.stop('SIGTERM', 5000)
    await keptDatabase?.stop('SIGINT', 15_000)
    process.exit(code)
  }
  const gaveUp = reason => {
    console.error(`  ${reason}`)
    void stop(1)
  }
  process.on('SIGINT', () => {
    console.log('\n  stopping')
    void stop(0)
  })
  process.on('SIGTERM', () => void stop(0))
  process.on('SIGHUP', () => void stop(0))
  try {
    const o = options()
    let url = process.env.DATABASE_URL
    let folder = null
    if (!url) {
      folder = dataFolder(join(root, '.data'))
      await lock(folder)
    }
    if (await portTaken(o.port))
      throw new StartError(
        `Port ${o.port} is taken by something else. Choose another: npm start -- --port ${o.port + 1}`,
      )
    if (folder) {
      keptDatabase = await supervise({
        what: 'the database',
        // on the same port again: the application knows it by that
        start: async () => {
          database = await startServer({ folder, say, port: database?.port ?? 0 })
          return database.child
        },
        say,
        gaveUp,
      })
      const name = o.shop ? NAMES.shop : NAMES.demo
      database.createDatabase(name)
      url = database.url(name)
      writeFileSync(join(folder, 'running'), url, { mode: 0o600 })
    }
    if (o.copy) await copyFirst(url, folder ?? join(root, '.data'))
    installPackages()
    const env = { ...process.env, DATABASE_URL: url }
    if (o.demo || (!o.shop && !process.env.DATABASE_URL)) {
      const r = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/demo.ts'], {
        cwd: root,
        env,
        encoding: 'utf8',
        stdio: ['ignore', 'inherit', 'pipe'],
      })
      if (r.status !== 0) throw new StartError(`The demo data could not be loaded:\n${r.stderr}`)
    }
    if (!o.dev) build()
    if (stopping) return
    if (o.demo || (!o.shop && !process.env.DATABASE_URL))
      Object.assign(env, await startStandIns(process.env.STAND_IN_SPEED ?? '1'))
    const demo = !o.shop && (!process.env.DATABASE_URL || o.demo)
    const onNetwork = o.lan && !demo
    const host = onNetwork ? '0.0.0.0' : '127.0.0.1'
    if (o.lan && demo) say('--lan is for a shop; the demo listens on this machine only')
    const command = o.dev
      ? ['npx', ['nuxt', 'dev', '--port', String(o.port), '--host', host]]
      : applicationCommand(folder)
    const starts = async () =>
      spawn(command[0], command[1], {
        cwd: o.dev ? root : '/',
        env: {
          ...env,
          PORT: String(o.port),
          HOST: host,
          NITRO_HOST: host,
          IRON_NOZZLE_LAN: onNetwork ? '1' : '',
          IRON_NOZZLE_NAMES: [process.env.IRON_NOZZLE_NAMES, ...namesOfMachine()].filter(Boolean).join(','),
          NODE_ENV: o.dev ? 'development' : 'production',
        },
        stdio: ['ignore', o.dev ? 'inherit' : 'ignore', 'inherit'],
        detached: true,
      })
    server = await supervise({ what: 'the application', start: starts, say, gaveUp })
    if (!demo) copyEachNight(() => url, folder ?? join(root, '.data'))
    const address = `http://127.0.0.1:${o.port}/`
    for (let i = 0; i < 600; i++) {
      const ready = await fetch(`${address}api/health`)
        .then(r => r.ok)
        .catch(() => false)
      if (ready) break
      if (i === 599) throw new StartError('The application did not answer within a minute.')
      await sleep(100)
    }
    if (folder) writeFileSync(join(folder, 'address'), address)
    const others = onNetwork ? addressesOfMachine().map(a => `http://${a}:${o.port}/`) : []
    console.log(
      `\n  Ready in ${((performance.now() - begun) / 1000).toFixed(0)} s: ${address}\n  ` +
        `${demo ? 'The invented demo shop. Your own: npm start -- --shop' : 'Your shop.'} Ctrl-C stops everything.\n`,
    )
    if (onNetwork)
      console.log(
        `  For the other machines: ${others.length > 0 ? others.join(' ') : 'no network address was found'}\n` +
          '  Everybody on this network may enter and strike out: there are no accounts yet.\n',
      )
  } catch (error) {
    console.error(error instanceof StartError ? `  ${error.message}` : error)
    await stop(1)
  }
}

await main()
