/**
 * The Floor's data with 60 printers, 5 000 nozzles and 1 000 000 runs: p95 of server time against the same query in
 * psql. Budgets: p95 under 50 ms and under twice psql's. The rows are made in bulk by SQL: this measures reading.
 */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { PgDialect } from 'drizzle-orm/pg-core'
import { dataFolder, startServer } from '../scripts/lib/postgres.mjs'
import { WEAR_MODEL } from '#core/wear'
import { connect } from '../server/db/client'
import { DERIVE } from '../server/db/derive'
import { migrationFiles } from '../server/db/files'
import { migrate } from '../server/db/migrate'
import { refreshCeilings } from '../server/records/printers/ceilings'
import { floor, FLOOR_QUERY } from '../server/records/bench/floor'
import { firstPeople } from '../server/records/shop/people'

const runs = process.argv.includes('--quick') ? 50_000 : 1_000_000
const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-bench-')), '/var/lib/iron-nozzle-bench')
const server = await startServer({ folder, fast: true })
server.dropDatabase('bench')
server.createDatabase('bench')
const { client, db } = connect(server.url('bench'), { max: 4 })
await migrate(client, migrationFiles())
await firstPeople(db)
const filling = readFileSync(new URL('./shop.sql', import.meta.url), 'utf8')
await client.unsafe(filling.replaceAll(':runs', String(runs)).replaceAll(':model', String(WEAR_MODEL)))
await client.unsafe(DERIVE)

await db.transaction(tx => refreshCeilings(tx))
const p95 = (v: number[]) => v.sort((a, b) => a - b)[Math.floor(v.length * 0.95)]!
for (let i = 0; i < 20; i++) await floor(db)
const ours: number[] = []
for (let i = 0; i < 200; i++) {
  const t = performance.now()
  const f = await floor(db)
  ours.push(performance.now() - t)
  if (f.printers.length !== 60 || !f.printers[0]!.heads[0]!.nozzle || f.printers[0]!.limits.length < 3)
    throw new Error('the floor is not complete')
}
const query = new PgDialect().sqlToQuery(FLOOR_QUERY).sql.replaceAll('\n', ' ')
const input = ['\\timing on', '\\o /dev/null', ...Array.from({ length: 220 }, () => `${query};`)].join('\n')
const psql = spawnSync(join(server.bin, 'psql'), ['-qX', server.url('bench')], {
  input,
  encoding: 'utf8',
  maxBuffer: 1e8,
})
const theirs = [...psql.stdout.matchAll(/Time: ([\d.]+) ms/g)].map(m => Number(m[1])).slice(20)
if (theirs.length < 200) throw new Error(`psql measured ${theirs.length} times: ${psql.stderr}`)
const a = p95(ours),
  b = p95(theirs)
console.log(
  `floor, 60 printers, 5 000 nozzles, ${runs} runs: p95 ${a.toFixed(1)} ms of server time (budget 50); psql p95 ` +
    `${b.toFixed(1)} ms; ratio ${(a / b).toFixed(2)} (budget 2)`,
)
await client.end()
await server.stop()
rmSync(folder, { recursive: true, force: true })
