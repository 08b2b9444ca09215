/** The shop of the benchmarks, ten years old, in a database of its own, and the built application on it. */
import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { dataFolder, freePort, startServer } from '../scripts/lib/postgres.mjs'
import { WEAR_MODEL } from '#core/wear'
import { connect } from '../server/db/client'
import { DERIVE } from '../server/db/derive'
import { migrationFiles } from '../server/db/files'
import { migrate } from '../server/db/migrate'
import { refreshForecast } from '../server/records/nozzles/forecasts'
import { refreshCeilings } from '../server/records/printers/ceilings'
import { firstPeople } from '../server/records/shop/people'
import { planUsual } from '../server/records/upkeep/tasks'

const BUDGET_S = 180
/** The kernel counts time in hundredths of a second. */
const TICK_MS = 10
/** Nozzles that are fitted or spare: what is told of them is worked out, of the retired it is laid. */
const IN_SERVICE = [4821, 5000] as const

export async function tenYears(runs: number) {
  const built = new URL('../.output/server/index.mjs', import.meta.url)
  if (!existsSync(built)) throw new Error('The application is not built: npx nuxt build')
  const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-bench-')), '/var/lib/iron-nozzle-bench')
  const more = ['shared_preload_libraries=pg_stat_statements', 'pg_stat_statements.track_planning=on']
  const database = await startServer({ folder, fast: true, more })
  database.dropDatabase('readings')
  database.createDatabase('readings')
  const { client, db } = connect(database.url('readings'), { max: 2 })
  await client.unsafe('create extension if not exists pg_stat_statements')
  await migrate(client, migrationFiles())
  await firstPeople(db)
  const filling = performance.now()
  for (const file of ['shop.sql', 'readings.sql']) {
    const sql = readFileSync(new URL(`./${file}`, import.meta.url), 'utf8')
    await client.unsafe(sql.replaceAll(':runs', String(runs)).replaceAll(':model', String(WEAR_MODEL)))
  }
  await client.unsafe(DERIVE)
  await db.transaction(tx => refreshCeilings(tx))
  // upkeep as is usual, each month for ten years, but not in the last 200 days: the most that its reading adds up
  for (const { id: printerId } of await client<{ id: number }[]>`select id from printers`)
    await db.transaction(tx => planUsual(tx, { printerId, note: '', confirmed: [] }, 1))
  await client`update upkeep_tasks set created_at = now() - interval '3650 days'`
  await client`insert into upkeep_entries (task_id, printer_id, found, occurred_at, person_id)
    select id, printer_id, 'in order', now() - k * interval '30 days', 1 from upkeep_tasks, generate_series(7, 120) k`
  for (let id: number = IN_SERVICE[0]; id <= IN_SERVICE[1]; id++) await db.transaction(tx => refreshForecast(tx, id))
  const seconds = (performance.now() - filling) / 1000
  console.log(`filled with ${runs} runs in ${seconds.toFixed(0)} s (budget ${BUDGET_S})`)

  const port = await freePort()
  const server = spawn(process.execPath, [built.pathname], {
    env: { ...process.env, DATABASE_URL: database.url('readings'), PORT: String(port), HOST: '127.0.0.1' },
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  const base = `http://127.0.0.1:${port}`
  const ready = () =>
    fetch(`${base}/api/health`).then(
      r => r.ok,
      () => false,
    )
  for (let i = 0; i < 200 && !(await ready()); i++) await sleep(100)
  // what an upgrade of such a shop works out in the background is there before anything is measured
  const waiting = () => client<{ n: number }[]>`
    select count(*)::int n from spools s where not exists (select from spool_stands t where t.spool_id = s.id)`
  while ((await waiting())[0]!.n > 0) await sleep(500)
  return {
    base,
    client,
    memoryMb: () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))![1]) / 1000,
    /** What the application has worked until now, all threads, ms. */
    workedMs() {
      const fields = readFileSync(`/proc/${server.pid}/stat`, 'utf8').split(') ')[1]!.split(' ')
      return (Number(fields[11]) + Number(fields[12])) * TICK_MS
    },
    async stop() {
      server.kill('SIGTERM')
      await client.end({ timeout: 2 })
      await database.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
