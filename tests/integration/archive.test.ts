/**
 * The archive: the demo shop written out in open formats and read into another database; when both have worked out
 * everything afresh they are equal to the last digit. And what is refused: cut short, another ZIP, a newer version's.
 */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { TextReader, Uint8ArrayReader, Uint8ArrayWriter, ZipReader, ZipWriter } from '@zip.js/zip.js'
import { sql } from 'drizzle-orm'
import { afterAll, expect, test } from 'vitest'
import { strikeSchema } from '#shared/entries/log'
import { nozzleSchema } from '#shared/entries/nozzles'
import { isArchive, restore } from '../../scripts/lib/copies.mjs'
import { findServer } from '../../scripts/lib/postgres.mjs'
import { connect, type Database } from '../../server/db/client'
import { migrationFiles } from '../../server/db/files'
import { editRecord } from '../../server/records/entry/edits'
import { saveStrike } from '../../server/records/entry/strikes'
import { addNozzle } from '../../server/records/nozzles/nozzles'
import { writeArchive, type Manifest } from '../../server/records/out/archive'
import { archivedTables } from '../../server/records/out/tables'
import { unpack } from '../../server/records/out/unpack'
import { listStacks } from '../../server/records/printers/stack-read'
import { listSpools } from '../../server/records/spools/spools'
import { afresh } from './afresh'
import { ago, demoDatabase } from './support'

const folder = mkdtempSync(join(tmpdir(), 'iron-nozzle-archive-'))
const { db, url } = await demoDatabase()
const databases: string[] = []
const opened: { end: (how: { timeout: number }) => Promise<void> }[] = []
const admin = connect(url.replace(/\/[^/]+$/, '/postgres'), { max: 1 })
afterAll(async () => {
  for (const c of opened) await c.end({ timeout: 1 })
  for (const name of databases) await admin.client.unsafe(`drop database if exists "${name}" with (force)`)
  await admin.client.end({ timeout: 1 })
  rmSync(folder, { recursive: true, force: true })
})
/** A database with nothing in it. */
async function empty(name: string): Promise<string> {
  const own = `${name}_${Date.now()}`
  databases.push(own)
  await admin.client.unsafe(`create database "${own}"`)
  return url.replace(/\/[^/]+$/, `/${own}`)
}
function open(at: string) {
  const c = connect(at, { max: 3 })
  opened.push(c.client)
  return c
}
const file = (name: string) => join(folder, name)
/** All records, as text to the last digit. */
async function records(of: Database) {
  const out: Record<string, string[]> = {}
  for (const { name } of await archivedTables(of)) {
    const rows = await of.execute<{ line: string }>(sql`
      select to_jsonb(t)::text line from ${sql.identifier(name)} t order by 1`)
    out[name] = rows.map(r => r.line)
  }
  return out
}

test('the demo shop, strikes and edits included, is the same in a new installation', async () => {
  await db.transaction(c => editRecord(c, 'settings', 1, 1, { acceptedRisk: 0.07 }, 1))
  const [run] = await db.execute<{ id: number }>(sql`select max(id)::int id from standing_runs`)
  const strike = strikeSchema.parse({ target: 'run', targetId: run!.id, reason: '=1+1, logged twice' })
  await db.transaction(c => saveStrike(c, strike, 1))
  const pieces: Uint8Array[] = []
  await writeArchive(db, bytes => {
    pieces.push(bytes.slice())
    return Promise.resolve()
  })
  writeFileSync(file('demo.zip'), Buffer.concat(pieces))
  const other = open(await empty('archive'))
  const { rows } = await unpack(other.client, file('demo.zip'), migrationFiles())
  expect(rows).toBeGreaterThan(1000)
  const [mine, theirs] = [await records(db), await records(other.db)]
  expect(Object.keys(theirs)).toEqual(Object.keys(mine))
  for (const name of Object.keys(mine)) expect(theirs[name], name).toEqual(mine[name])
  expect(mine.blobs!.length).toBeGreaterThan(0)
  const [ours, read] = [await afresh(db), await afresh(other.db)]
  expect(read).toHaveLength(ours.length)
  for (const [i, row] of ours.entries()) expect(read[i]).toEqual(row)
  const spools = async (of: Database) => (await listSpools(of)).map(s => [s.tag, s.leftG, s.place, s.inUse])
  expect(await spools(other.db)).toEqual(await spools(db))
  const parts = async (of: Database) => (await listStacks(of)).map(p => p.parts)
  expect(await parts(other.db)).toEqual(await parts(db))
  // what comes next has a number of its own, is derived, and cannot be changed
  const typeId = (await other.db.execute<{ id: number }>(sql`select min(id) id from nozzle_types`))[0]!.id
  const fresh = nozzleSchema.parse({ tag: 'N-next', typeId, receivedAt: ago(1) })
  const { id } = await other.db.transaction(c => addNozzle(c, fresh, 1))
  const [last] = await db.execute<{ id: number }>(sql`select max(id) id from nozzles`)
  expect(id).toBe(last!.id + 1)
  await expect(other.client`delete from runs`).rejects.toThrow()
}, 240_000)

test('it is open: lists with units in their headings, JSON a line, pictures, what it all means', async () => {
  const zip = new ZipReader(new Uint8ArrayReader(readFileSync(file('demo.zip'))))
  const entries = new Map((await zip.getEntries()).map(e => [e.filename, e]))
  const text = async (name: string) => {
    const e = entries.get(name) as Exclude<ReturnType<typeof entries.get>, undefined | { directory: true }>
    return new TextDecoder().decode(await e.getData(new Uint8ArrayWriter()))
  }
  const manifest = JSON.parse(await text('manifest.json')) as Manifest
  expect(manifest.migrations).toEqual(
    migrationFiles()
      .map(m => m.name)
      .sort(),
  )
  expect((await text('tables/runs.jsonl')).trimEnd().split('\n')).toHaveLength(manifest.rows.runs!)
  const runs = (await text('lists/runs.csv')).split('\r\n')
  expect(runs[0]).toMatch(/^\uFEFF?printer,ended,what,material,spool,nozzle,"printed, g","length, m"/)
  // what a list for a spreadsheet escapes stands here as it is
  expect(runs.some(l => l.endsWith('"=1+1, logged twice"'))).toBe(true)
  const pictures = [...entries.keys()].filter(n => /^pictures\/[0-9a-f]{64}\.\w+$/.test(n))
  expect(pictures).toHaveLength(manifest.pictures)
  expect(await text('readme.txt')).toMatch(/npm run restore FILE/)
  expect(JSON.parse(await text('schema.json'))).toContainEqual(expect.objectContaining({ name: 'gauges' }))
  await zip.close()
})

test('cut short, another ZIP and a newer version’s are refused with the reason', async () => {
  const whole = readFileSync(file('demo.zip'))
  expect(isArchive(file('demo.zip'))).toBe(true)
  const refused = async (name: string, bytes: Uint8Array, why: RegExp) => {
    writeFileSync(file(name), bytes)
    const c = open(await empty(name.replace(/\W/g, '_')))
    await expect(unpack(c.client, file(name), migrationFiles()), name).rejects.toThrow(why)
  }
  await refused('half.zip', whole.subarray(0, whole.length / 2), /cut short/)
  /** The same archive with one of its files changed or left out. */
  async function changed(which: string, how: (text: string) => string | null): Promise<Uint8Array> {
    const from = new ZipReader(new Uint8ArrayReader(whole))
    const to = new ZipWriter(new Uint8ArrayWriter())
    for (const e of await from.getEntries()) {
      if (e.directory) continue
      const bytes = await e.getData(new Uint8ArrayWriter())
      const other = e.filename === which ? how(new TextDecoder().decode(bytes)) : undefined
      if (other === undefined) await to.add(e.filename, new Uint8ArrayReader(bytes))
      else if (other !== null) await to.add(e.filename, new TextReader(other))
    }
    return await to.close()
  }
  const newer = (text: string) => text.replace('"0037_large_shops.sql"', '"0037_large_shops.sql","9999_later.sql"')
  const few = (text: string) => text.split('\n').slice(0, 3).join('\n')
  await refused('newer.zip', await changed('manifest.json', newer), /newer version of Iron Nozzle \(9999_later\.sql\)/)
  await refused('other.zip', await changed('manifest.json', () => '{"name":"x"}'), /ZIP of something else/)
  await refused('bare.zip', await changed('manifest.json', () => null), /ZIP of something else/)
  await refused('lines.zip', await changed('tables/gauges.jsonl', few), /not whole: gauges has 3 rows/)
  await refused('table.zip', await changed('tables/runs.jsonl', () => null), /table runs is missing/)
  const damaged = Uint8Array.from(whole)
  damaged.fill(7, 4000, 60_000)
  await refused('damaged.zip', damaged, /damaged|not whole|cut short|something else/)
}, 120_000)

test('npm run restore reads it into a new database, and leaves what is there when it cannot', async () => {
  const bin = findServer()!
  const at = await empty('restored')
  const migrations = migrationFiles().map(m => m.name)
  const read = (name: string) =>
    restore({
      bin,
      url: at,
      file: file(name),
      migrations,
      prepare: () => Promise.resolve(),
      unpack: async (to: string) => {
        const c = connect(to, { max: 1 })
        try {
          await unpack(c.client, file(name), migrationFiles())
        } finally {
          await c.client.end()
        }
      },
    })
  const kept = await read('demo.zip')
  databases.push(kept!)
  const c = open(at)
  const count = async () => (await c.db.execute<{ n: number }>(sql`select count(*)::int n from runs`))[0]!.n
  const runs = await count()
  expect(runs).toBeGreaterThan(100)
  await expect(read('newer.zip')).rejects.toThrow(/newer version/)
  expect(await count()).toBe(runs)
}, 120_000)
