/**
 * npm run archive [FILE]: everything the shop has (or with -- --demo the demo, or DATABASE_URL) in one ZIP of open
 * formats, while it runs or not. `npm run restore FILE` reads it back, here or in another installation.
 */
import { statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { StartError } from './lib/postgres.mjs'
import { command, fileOf, runOn } from './lib/where.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
await command(root, async at => {
  const target = fileOf(at, 'archive', 'zip')
  const r = runOn(root, at.url, 'pack', target)
  if (r.status !== 0) throw new StartError(`The archive could not be written:\n${r.stderr}`)
  console.log(`  ${(statSync(target).size / 1e6).toFixed(1)} MB in ${target}`)
  console.log(`  Read it with: npm run restore ${target}`)
})
