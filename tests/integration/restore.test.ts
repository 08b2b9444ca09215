/**
 * The restore drill: a shop with runs, gauges, strikes and edits is copied, lost, and put back; when both have worked
 * out every forecast afresh they are equal to the last digit. And what is refused: half a copy, another one's, a newer
 * one's; each leaves what is there as it was.
 */
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { afterAll, expect, test } from 'vitest'
import { strikeSchema } from '#shared/entries/log'
import { nozzleSchema } from '#shared/entries/nozzles'
import { backup, copyBefore, copyNightly, restore, rewrites, risky } from '../../scripts/lib/copies.mjs'
import { findServer } from '../../scripts/lib/postgres.mjs'
import { connect, type Database } from '../../server/db/client'
import { migrationFiles } from '../../server/db/files'
import { migrate } from '../../server/db/migrate'
import { editRecord } from '../../server/records/entry/edits'
import { saveStrike } from '../../server/records/entry/strikes'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { addNozzle } from '../../server/records/nozzles/nozzles'
import { saveRun } from '../../server/records/runs/runs'
import { afresh } from './afresh'
import { ago, freshDatabase, gaugeEntry, runEntry, smallShop } from './support'

const bin = findServer()!
const folder = mkdtempSync(join(tmpdir(), 'iron-nozzle-copies-'))
const { db, url } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Parameters<Parameters<typeof db.transaction>[0]>[0]) => Promise<T>) => db.transaction(work)
const migrations = migrationFiles().map(m => m.name)
const prepare = async (to: string) => {
  const c = connect(to, { max: 1 })
  await migrate(c.client, migrationFiles())
  await c.client.end()
}
const opened: { end: (how: { timeout: number }) => Promise<void> }[] = []
const databases = [url]
afterAll(async () => {
  for (const c of opened) await c.end({ timeout: 1 })
  rmSync(folder, { recursive: true, force: true })
  const admin = connect(url.replace(/\/[^/]+$/, '/postgres'), { max: 1 })
  for (const name of databases.slice(1)) await admin.client.unsafe(`drop database if exists "${name}" with (force)`)
  await admin.client.end({ timeout: 1 })
})

for (const [i, goMm] of [0.4, 0.41, 0.41, 0.42, 0.43].entries()) {
  const { id: nozzleId } = await tx(c =>
    addNozzle(c, nozzleSchema.parse({ tag: `N-1${i}`, typeId: shop.typeId, receivedAt: ago(30) }), 1),
  )
  const confirmed = ['same-run:0', 'not-fitted:0', `over-spool:${shop.spoolId}`, 'unexpected-bore:as-read']
  const { runId } = await tx(c =>
    saveRun(
      c,
      runEntry(
        { ...shop, nozzleId },
        { name: `job ${i}`, endedAt: ago(9 - i), confirmed },
        { kind: 'grams', grams: 300 + 40 * i },
      ),
      1,
    ),
  )
  if (i === 2)
    await tx(c => saveStrike(c, strikeSchema.parse({ target: 'run', targetId: runId, reason: 'logged twice' }), 1))
  await tx(c =>
    saveGauge(c, gaugeEntry({ ...shop, nozzleId }, { goMm, noGoMm: goMm + 0.01, occurredAt: ago(1), confirmed }), 1),
  )
}
await tx(c => editRecord(c, 'settings', 1, 1, { acceptedRisk: 0.07, shopName: 'Drill' }, 1))

const counts = (of: Database) =>
  of.execute(sql`select (select count(*)::int from strikes) strikes, (select count(*)::int from edits) edits,
    (select shop_name from settings) name, (select count(*)::int from runs) runs`)

test('copied, put back as another, and the same to the last digit', async () => {
  const file = join(folder, 'copy.dump')
  expect(await backup({ bin, url, file })).toBeGreaterThan(10_000)
  const name = `drill_${Date.now()}`
  const target = url.replace(/\/[^/]+$/, `/${name}`)
  databases.push(name)
  expect(await restore({ bin, url: target, file, migrations, prepare })).toBe(null)
  const back = connect(target, { max: 2 })
  opened.push(back.client)
  expect([...(await counts(back.db))]).toEqual([{ strikes: 1, edits: 1, name: 'Drill', runs: 5 }])
  expect(await afresh(back.db)).toEqual(await afresh(db))
  // what is derived goes on by itself there
  await back.db.transaction(c => saveGauge(c, gaugeEntry(shop, { goMm: 0.4, noGoMm: 0.41 }), 1))
  const [stand] = await back.db.execute<{ at: string | null }>(
    sql`select last_gauged_at at from nozzle_stands where nozzle_id = ${shop.nozzleId}`,
  )
  expect(stand!.at).not.toBe(null)

  // over one that is there: it is kept under another name, and who is connected finds the new one
  await back.db.execute(sql`update settings set shop_name = 'Spoilt'`)
  const kept = await restore({ bin, url: target, file, migrations, prepare })
  databases.push(kept!)
  expect(kept).toMatch(new RegExp(`^${name}_before_\\d{14}$`))
  await back.db.execute(sql`select 1`).catch(() => {}) // its connection was cut
  expect((await counts(back.db))[0]).toMatchObject({ name: 'Drill' })
  const old = connect(target.replace(name, kept!), { max: 1 })
  opened.push(old.client)
  expect((await counts(old.db))[0]).toMatchObject({ name: 'Spoilt' })
})

test('half a copy, another database’s and a newer version’s are refused, and nothing is changed', async () => {
  const file = join(folder, 'copy.dump')
  const half = join(folder, 'half.dump')
  writeFileSync(half, readFileSync(file).subarray(0, 5000))
  const target = url
  const before = await counts(db)
  await expect(restore({ bin, url: target, file: half, migrations, prepare })).rejects.toThrow()
  writeFileSync(half, 'no copy at all')
  await expect(restore({ bin, url: target, file: half, migrations, prepare })).rejects.toThrow(
    'no copy that pg_restore',
  )
  await expect(restore({ bin, url: target, file: join(folder, 'none'), migrations, prepare })).rejects.toThrow(
    'no file',
  )
  await expect(restore({ bin, url: target, file, migrations: migrations.slice(0, -1), prepare })).rejects.toThrow(
    'newer version',
  )
  expect([...(await counts(db))]).toEqual([...before])
  const left = await db.execute(sql`select datname from pg_database where datname like '%_new_%'`)
  expect([...left]).toEqual([])
})

test('a copy before what rewrites, three of them kept; a copy each night by one, fourteen kept', async () => {
  expect(rewrites('create table x (a int); insert into x select 1;')).toBe(false)
  expect(rewrites('-- drop table x\ncreate index i on x (a)')).toBe(false)
  expect(rewrites('alter table x drop column a')).toBe(true)
  expect(rewrites('alter table x alter column a type text')).toBe(true)
  expect(rewrites('update x set a = 1')).toBe(true)
  const waiting = [...migrationFiles(), { name: '9999_drops.sql', sql: 'drop table x' }]
  expect(risky({ bin, url, migrations: waiting })).toEqual(['9999_drops.sql'])
  expect(risky({ bin, url, migrations: migrationFiles() })).toEqual([])
  const where = join(folder, 'backups')
  for (let i = 0; i < 5; i++) {
    const made = await copyBefore({
      bin,
      url,
      folder: where,
      names: ['9999_drops.sql'],
      now: new Date(Date.UTC(2026, 0, 1 + i)),
    })
    utimesSync(made, 1e9 + i, 1e9 + i)
  }
  expect(readdirSync(where).sort()).toEqual([3, 4, 5].map(d => `before-9999_drops-2026010${d}000000.dump`))
  const night = (day: number) => new Date(Date.UTC(2026, 4, day, 3))
  const both = await Promise.all([1, 1].map(d => copyNightly({ bin, url, folder: where, now: night(d) })))
  expect(both.filter(f => f !== null)).toHaveLength(1)
  for (let d = 2; d <= 16; d++) {
    const made = await copyNightly({ bin, url, folder: where, now: night(d) })
    utimesSync(made!, 1.1e9 + d, 1.1e9 + d)
  }
  const nights = readdirSync(where).filter(f => f.startsWith('nightly'))
  expect(nights).toHaveLength(14)
  expect(existsSync(join(where, 'nightly-2026-05-16.dump'))).toBe(true)
})
