/**
 * npm test: everything there is to check, and a closing line. Installs what is missing; makes a PostgreSQL for itself.
 * Parts can be named: npm test -- types lint unit components reference integration e2e
 * npm test -- changed [commit]: what differs from the commit (the last one unless it is named), and what that touches.
 */
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { buildStamp } from './build-stamp.mjs'
import { changedFiles, specsFor } from './lib/changed.mjs'
import { findServer, installPackages, StartError } from './lib/postgres.mjs'

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
  const missing = [...(findServer() ? [] : ['postgresql']), ...(existsSync('/usr/bin/chromium') ? [] : ['chromium'])]
  if (missing.length > 0) installPackages(missing, text => say(text))
  if (!run('npx', ['nuxt', 'prepare', '--logLevel', 'silent'])) throw new StartError('nuxt prepare failed')
}

async function vitest(project, more = []) {
  say(project)
  const file = join(root, `.cache-${project}.json`)
  const ok = await runOn('npx', [
    'vitest',
    'run',
    '--project',
    project,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${file}`,
    ...more,
  ])
  if (since !== null && ok && !existsSync(file)) return // nothing of it is touched
  const counts = r => [r.numPassedTests, r.numFailedTests + r.numPendingTests]
  if (!countReport(file, counts) && ok && since === null) failed++
  else if (!ok && failed === 0) failed++
}

/** A command beside the others: resolves with whether it went well and what it said. */
const beside = (title, command, args) =>
  new Promise(done => {
    const child = spawn(command, args, { env, stdio: ['ignore', 'pipe', 'pipe'] })
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

/** Types, lint and build, one after the other, while the other core runs the tests that need none of them. */
async function aside() {
  const out = []
  if (wanted('types')) out.push(await beside('types', 'npx', ['vue-tsc', '-b', '--noEmit']))
  if (wanted('lint')) out.push(await beside('lint', 'npm', ['run', '--silent', 'lint']))
  const stamp = buildStamp(root)
  const stampFile = '.output/stamp'
  if (wanted('e2e') && (!existsSync(stampFile) || readFileSync(stampFile, 'utf8') !== stamp)) {
    const built = await beside('build', 'npx', ['nuxt', 'build', '--logLevel', 'silent'])
    if (built.ok) writeFileSync(stampFile, stamp)
    out.push(built)
  }
  return out
}

try {
  prepare()
  const apart = aside()
  const touched = since === null ? [] : ['--changed', since, '--passWithNoTests']
  for (const project of ['unit', 'components', 'reference', 'integration'])
    if (wanted(project)) await vitest(project, touched)
  if (since !== null) await vitest('unit', READERS)
  for (const { title, ok, text } of await apart) {
    say(title)
    if (!ok || text.trim() !== '') console.log(text.trim())
    count(ok)
  }
  if (wanted('e2e')) {
    say('end to end')
    const file = join(root, '.cache-e2e.json')
    const ok = run('npx', ['playwright', 'test', ...(specs ?? [])], {
      env: { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: file },
    })
    if (!countReport(file, r => [r.stats.expected, r.stats.unexpected + r.stats.skipped, r.stats.flaky]) && ok) failed++
    else if (!ok && failed === 0) failed++
  }
} catch (error) {
  console.error(error instanceof StartError ? error.message : error)
  failed++
}
console.log(`\n${passed} passed, ${failed} failed${flaky > 0 ? `, ${flaky} flaky` : ''}`)
process.exit(failed === 0 ? 0 : 1)
