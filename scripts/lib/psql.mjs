/** Statements by PostgreSQL's own program: for scripts that run before anything is installed. */
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'

/** The address without its password, which goes by the environment: arguments can be seen by everybody. */
export function connection(url) {
  const bare = new URL(url)
  const password = decodeURIComponent(bare.password)
  bare.password = ''
  return { address: bare.href, env: { ...process.env, ...(password ? { PGPASSWORD: password } : {}) } }
}

/** Runs a statement and answers its rows as text, and what was said where it failed. */
export function ask(bin, url, statement) {
  const { address, env } = connection(url)
  const r = spawnSync(join(bin, 'psql'), ['-qAtX', '-v', 'ON_ERROR_STOP=1', '-d', address, '-c', statement], {
    encoding: 'utf8',
    env,
  })
  return { ok: r.status === 0, rows: r.stdout.trim().split('\n').filter(Boolean), said: r.stderr.trim() }
}
