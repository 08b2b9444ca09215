/**
 * npm test: everything there is to check, and a closing line. Installs what is missing; makes a PostgreSQL for itself.
 * Parts can be named: npm test -- types lint unit components reference integration e2e
 * npm test -- changed [commit]: what differs from the commit (the last one unless it is named), and what that touches.
 */
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { buildStamp } from './build-stamp.mjs'
import { missingBrowsers } from './lib/browser.mjs'
import { changedFiles, specsFor } from './lib/changed.mjs'
import { backup } from './lib/copies.mjs'
import { dataFolder, findServer, installPackages, startServer, StartError } from './lib/postgres.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
process.chdir(root)
const only = process.argv.slice(2)
/** Only what differs from this commit; null for everything. */
const since = only[0] === 'changed' ? (only[1] ?? 'HEAD') : null
const specs = since === null ? null : specsFor(changedFiles(since))
const wanted = part =>
  since === null ? only.length === 0 || only.includes(part) : part !== 'e2e' || specs?.length !== 0
/** They read the sources themselves, which no import tells of. */
const READERS = ['boundaries', 'contrast', 'examples'].map(name => `tests/unit/${name}.test.ts`)
const say = text => console.log(`\n== ${text}`)
const env = { ...process.env, NUXT_TELEMETRY_DISABLED: '1', FORCE_COLOR: '0' }
const run = (command, args, more = {}) => spawnSync(command, args, { stdio: 'inherit', env, ...more }).status === 0

/** The same without holding up what runs beside it. */
const runOn = (command, args) =>
  new Promise(done => {
    spawn(command, args, { stdio: 'inherit', env }).on('close', code => {
      done(code === 0)
    })
  })

let passed = 0
let failed = 0
/** Went well at the second try only: said, and never counted as passed. */
let flaky = 0
const count = ok => {
  if (ok) passed++
  else failed++
}

/** Adds a runner's own counts (passed, failed, flaky) from its JSON report; a runner that left none has failed once. */
function countReport(file, read) {
  try {
    const [p, f, second = 0] = read(JSON.parse(readFileSync(file, 'utf8')))
    passed += p
    failed += f
    flaky += second
    return f === 0 && p > 0
  } catch {
    failed++
    return false
  } finally {
    rmSync(file, { force: true })
  }
}

function prepare() {
  const lock = readFileSync('package-lock.json', 'utf8')
  const done = 'node_modules/.iron-nozzle-lock'
  if (!existsSync(done) || readFileSync(done, 'utf8') !== lock) {
    say('installing packages')
    if (!run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'])) throw new StartError('npm ci failed')
    writeFileSync(done, lock)
  }
  const missing = [...(findServer() ? [] : ['postgresql']), ...(wanted('e2e') ? missingBrowsers() : [])]
  if (missing.length > 0) installPackages(missing, text => say(text))
  if (!run('npx', ['nuxt', 'prepare', '--logLevel', 'silent'])) throw new StartError('nuxt prepare failed')
}

/** A command beside the others: resolves with whether it went well and what it said. */
const beside = (title, command, args, more = {}) =>
  new Promise(done => {
    const child = spawn(command, args, { env: { ...env, ...more }, stdio: ['ignore', 'pipe', 'pipe'] })
    let text = ''
    child.stdout.on('data', d => {
      text += d
    })
    child.stderr.on('data', d => {
      text += d
    })
    child.on('close', code => {
      done({ title, ok: code === 0, text })
    })
  })

/** Says what a command beside the others had to say. */
function report({ title, ok, text }) {
  say(title)
  if (!ok || text.trim() !== '') console.log(text.trim())
}

/** The tests of one project, as they go or, `apart`, said when they are done. */
async function vitest(project, more = [], apart = false) {
  const file = join(root, `.cache-${project}.json`)
  const args = ['vitest', 'run', '--project', project]
  args.push('--reporter=default', '--reporter=json', `--outputFile.json=${file}`, ...more)
  let ok
  if (apart) {
    const done = await beside(project, 'npx', args)
    report(done)
    ok = done.ok
  } else {
    say(project)
    ok = await runOn('npx', args)
  }
  if (since !== null && ok && !existsSync(file)) return // nothing of it is touched
  const counts = r => [r.numPassedTests, r.numFailedTests + r.numPendingTests]
  if (!countReport(file, counts) && ok && since === null) failed++
  else if (!ok && failed === 0) failed++
}

/** The application as it is served, unless it stands as the sources are. */
async function build() {
  const stamp = buildStamp(root)
  const stampFile = '.output/stamp'
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp) return
  const built = await beside('build', 'npx', ['nuxt', 'build', '--logLevel', 'silent'])
  if (built.ok) writeFileSync(stampFile, stamp)
  report(built)
  count(built.ok)
}

/** The demo shop loaded once, for all tests that have it (`tests/demo-copy.ts`). */
const COPY = join(root, '.cache-demo.dump')
async function copyDemo() {
  const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-')), '/var/lib/iron-nozzle-demo-copy')
  const server = await startServer({ folder, fast: true })
  try {
    server.dropDatabase('demo_copy')
    server.createDatabase('demo_copy')
    const url = server.url('demo_copy')
    const anchor = new Date().toISOString()
    const done = await beside('demo', 'npx', ['tsx', 'scripts/demo.ts', '--anchor', anchor], { DATABASE_URL: url })
    report(done)
    if (!done.ok) throw new StartError('the demo shop could not be loaded')
    await backup({ bin: server.bin, url, file: COPY })
    Object.assign(env, { DEMO_COPY: COPY, DEMO_ANCHOR: anchor })
  } finally {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** It loads the demo once more, on a database server of its own: it runs beside the browser, which mostly waits. */
const DEMO = '**/demo.test.ts'

/** What needs neither a database nor a browser, one after the other. */
async function plain(touched) {
  for (const [part, command, args] of [
    ['types', 'npx', ['vue-tsc', '-b', '--noEmit']],
    ['lint', 'npm', ['run', '--silent', 'lint']],
  ])
    if (wanted(part)) {
      const done = await beside(part, command, args)
      report(done)
      count(done.ok)
    }
  for (const project of ['unit', 'components', 'reference']) if (wanted(project)) await vitest(project, touched, true)
  if (since !== null) await vitest('unit', READERS, true)
}

async function endToEnd() {
  say('end to end')
  const file = join(root, '.cache-e2e.json')
  env.PLAYWRIGHT_JSON_OUTPUT_NAME = file
  const ok = await runOn('npx', ['playwright', 'test', ...(specs ?? [])])
  if (!countReport(file, r => [r.stats.expected, r.stats.unexpected + r.stats.skipped, r.stats.flaky]) && ok) failed++
  else if (!ok && failed === 0) failed++
}

try {
  prepare()
  const touched = since === null ? [] : ['--changed', since, '--passWithNoTests']
  // the build beside the demo shop; then all that needs no browser beside the database's and the browser's tests
  const built = wanted('e2e') ? build() : Promise.resolve()
  if (since === null && (wanted('e2e') || wanted('integration'))) await copyDemo()
  const apart = built.then(() => plain(touched))
  const later = since === null && wanted('e2e') ? ['--exclude', DEMO] : []
  if (wanted('integration')) await vitest('integration', [...touched, ...later])
  await built
  const rest = apart.then(() => later.length > 0 && wanted('integration') && vitest('integration', ['demo.test'], true))
  if (wanted('e2e')) await endToEnd()
  await rest
} catch (error) {
  console.error(error instanceof StartError ? error.message : error)
  failed++
} finally {
  rmSync(COPY, { force: true })
}
console.log(`\n${passed} passed, ${failed} failed${flaky > 0 ? `, ${flaky} flaky` : ''}`)
process.exit(failed === 0 ? 0 : 1)
