/**
 * npm run backup [FILE]: a copy of the shop (or with -- --demo of the demo, or of DATABASE_URL), while it runs or not.
 */
import { mkdirSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { backup } from './lib/copies.mjs'
import { StartError } from './lib/postgres.mjs'
import { asked, backupsIn, reach } from './lib/where.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
let at = null
try {
  const { name, file } = asked()
  at = await reach(root, name)
  const stamp = new Date().toISOString().replaceAll(/\D/g, '').slice(0, 14)
  const target = file === null ? join(backupsIn(at.folder), `copy-${stamp}.dump`) : resolve(file)
  mkdirSync(dirname(target), { recursive: true })
  const bytes = await backup({ ...at, file: target })
  console.log(`  ${(bytes / 1e6).toFixed(1)} MB in ${target}\n  Put it back with: npm run restore ${target}`)
} catch (error) {
  console.error(error instanceof StartError ? `  ${error.message}` : error)
  process.exitCode = 1
} finally {
  await at?.stop()
}
