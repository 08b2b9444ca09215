/**
 * Has anything that goes into the build changed since the last one? A hash over names, sizes and times of the sources.
 */
import { createHash } from 'node:crypto'
import { readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'

export function buildStamp(root) {
  const hash = createHash('sha256')
  const add = path => {
    const s = statSync(path)
    if (s.isDirectory()) for (const f of readdirSync(path).sort()) add(join(path, f))
    else hash.update(`${path.slice(root.length)} ${s.size} ${Math.round(s.mtimeMs)}\n`)
  }
  for (const f of ['app', 'core', 'server', 'shared', 'public', 'nuxt.config.ts', 'package-lock.json'])
    add(join(root, f))
  return hash.digest('hex')
}
