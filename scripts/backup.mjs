/**
 * npm run backup [FILE]: a copy of the shop (or with -- --demo of the demo, or of DATABASE_URL), while it runs or not.
 */
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { backup } from './lib/copies.mjs'
import { command, fileOf } from './lib/where.mjs'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
await command(root, async at => {
  const target = fileOf(at, 'copy', 'dump')
  const bytes = await backup({ ...at, file: target })
  console.log(`  ${(bytes / 1e6).toFixed(1)} MB in ${target}\n  Put it back with: npm run restore ${target}`)
})
