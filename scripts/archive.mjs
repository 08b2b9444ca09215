/**
 * npm run archive [FILE]: everything the shop has (or with -- --demo the demo, or DATABASE_URL) in one ZIP of open
 * formats, while it runs or not. `npm run restore FILE` reads it back, here or in another installation.
 */
import { spawnSync } from 'node:child_process'
import { mkdirSync, statSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { StartError } from './lib/postgres.mjs'
import { asked, backupsIn, reach } from './lib/where.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
let at = null
try {
  const { name, file } = asked()
  at = await reach(root, name)
  const stamp = new Date().toISOString().replaceAll(/\D/g, '').slice(0, 14)
  const target = file === null ? join(backupsIn(at.folder), `archive-${stamp}.zip`) : resolve(file)
  mkdirSync(dirname(target), { recursive: true })
  const r = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/pack.ts', target], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: at.url },
    encoding: 'utf8',
  })
  if (r.status !== 0) throw new StartError(`The archive could not be written:\n${r.stderr}`)
  console.log(`  ${(statSync(target).size / 1e6).toFixed(1)} MB in ${target}`)
  console.log(`  Read it with: npm run restore ${target}`)
} catch (error) {
  console.error(error instanceof StartError ? `  ${error.message}` : error)
  process.exitCode = 1
} finally {
  await at?.stop()
}
