/** npm run bench: every benchmark, one after the other; each prints ratios against a baseline of its own run. */
import { spawnSync } from 'node:child_process'

for (const name of ['scan', 'wear', 'limits', 'drying', 'picture', 'floor']) {
  const r = spawnSync(
    process.execPath,
    ['--expose-gc', '--import', 'tsx', `bench/${name}.ts`, ...process.argv.slice(2)],
    { stdio: 'inherit' },
  )
  if (r.status !== 0) process.exit(r.status ?? 1)
}
