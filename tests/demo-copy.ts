/**
 * The demo shop, loaded once for all tests of a run (`scripts/test.mjs`) and copied by PostgreSQL's own dump: loading
 * takes a minute, a copy seconds. Where nobody has loaded it the tests do.
 */
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { findServer } from '../scripts/lib/postgres.mjs'

/** The dump and the time it was loaded for; null where there is none. */
export function demoCopy(): { file: string; anchor: Date } | null {
  const { DEMO_COPY: file, DEMO_ANCHOR: anchor } = process.env
  return file && anchor ? { file, anchor: new Date(anchor) } : null
}

/** Puts the dump into a database with nothing in it. */
export function restoreDemo(file: string, url: string): void {
  const bin = findServer()
  if (bin === null) throw new Error('PostgreSQL was not found')
  const ask = (program: string, args: string[]) => {
    const done = spawnSync(join(bin, program), ['-d', url, ...args], { encoding: 'utf8' })
    if (done.status !== 0) throw new Error(`${program}: ${done.stderr}`)
  }
  ask('pg_restore', ['--no-owner', '--exit-on-error', file])
  ask('psql', ['-qc', 'analyze'])
}
