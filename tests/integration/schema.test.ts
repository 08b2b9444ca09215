import { getTableColumns, getTableName, is, sql } from 'drizzle-orm'
import { PgTable } from 'drizzle-orm/pg-core'
import { toSnakeCase } from 'drizzle-orm/casing'
import { expect, test } from 'vitest'
import { LOG_TABLES } from '#shared/logs'
import * as schema from '../../server/db/schema'
import { options } from '../../server/db/client'
import { migrationFiles } from '../../server/db/files'
import { migrate } from '../../server/db/migrate'
import { oneOfEach } from './every-log'
import { freshDatabase, smallShop } from './support'

const { db, client } = await freshDatabase()
const shop = await smallShop(db)
await oneOfEach(db, shop)

test('the Drizzle schema and the migrated tables have the same columns, with the same nullability', async () => {
  const rows = await client<
    { table_name: string; column_name: string; is_nullable: string }[]
  >`select table_name, column_name, is_nullable from information_schema.columns where table_schema = 'public'`
  const tables = Object.values(schema).filter(t => is(t, PgTable)) as PgTable[]
  expect(tables.length).toBeGreaterThan(15)
  for (const t of tables) {
    const name = getTableName(t)
    const ours = Object.values(getTableColumns(t))
      .map(c => `${c.keyAsName ? toSnakeCase(c.name) : c.name} ${c.notNull ? 'NO' : 'YES'}`)
      .sort()
    expect(ours, name).toEqual(
      rows
        .filter(r => r.table_name === name)
        .map(r => `${r.column_name} ${r.is_nullable}`)
        .sort(),
    )
  }
})

test.each(LOG_TABLES)('%s: no truncate, and no update or delete of entries', async table => {
  await expect(client.unsafe(`truncate ${table} cascade`)).rejects.toThrow(/never changed or deleted/)
  const [some] = await client.unsafe(`select count(*)::int n from ${table}`)
  expect(some, 'an entry to try it on').not.toEqual({ n: 0 })
  await expect(client.unsafe(`delete from ${table}`)).rejects.toThrow(/never changed or deleted/)
  await expect(client.unsafe(`update ${table} set id = id`)).rejects.toThrow(
    /never changed or deleted|can only be updated to DEFAULT/,
  )
})

test('the database itself refuses values outside physical ranges', async () => {
  for (const bad of [
    `insert into gauges (nozzle_id, kind, go_mm, no_go_mm, u_mm, occurred_at, person_id) values (1, 'service', ` +
      `0.44, 0.43, 0.003, now(), 1)`,
    `insert into gauges (nozzle_id, kind, occurred_at, person_id) values (1, 'service', now(), 1)`,
    `insert into gauges (nozzle_id, kind, value_mm, u_mm, occurred_at, person_id) values (1, 'service', 0.43, ` +
      `0.003, now() + interval '1 day', 1)`,
    `insert into materials (name, polymer, filler, filler_fraction, density_g_cm3, abrasivity, basis, ` +
      `created_by) values ('x', 'x', 'none', 0.2, 1.2, 1, 'practice', 1)`,
    `insert into parts (kind, role, name, place, limit_c, basis, entered_by) values ('belts', 'belts', 'belts', ` +
      `'high', 5, 'practice', 1)`,
    `insert into practice_sets (material_id, name, chamber, dry, bed_min_c, bed_max_c, basis, created_by) ` +
      `values (1, 'x', 'helps', false, 100, 80, 'practice', 1)`,
    `insert into material_values (material_id, key, value, basis, entered_by) values (1, 'colour', 5, 'practice', 1)`,
    `insert into fittings (kind, nozzle_id, occurred_at, person_id) values ('retire', 1, now(), 1)`,
    `insert into dryers (name, kind, ceiling_c, basis, created_by) values ('bed', 'bed under a cover', 100, ` +
      `'practice', 1)`,
    `insert into spool_events (spool_id, kind, rh, occurred_at, person_id) values (1, 'out', 120, now(), 1)`,
    `insert into spool_events (spool_id, kind, hours, occurred_at, person_id) values (1, 'out', 5, now(), 1)`,
    `insert into strikes (target, target_id, reason, person_id) values ('run', 1, '  ', 1)`,
  ])
    await expect(client.unsafe(bad), bad).rejects.toThrow(/violates check constraint/)
  await expect(client.unsafe(`insert into nozzles (tag, type_id, created_by) values ('N-9', 99, 1)`)).rejects.toThrow(
    /foreign key/,
  )
  await expect(client.unsafe(`insert into nozzles (tag, type_id, created_by) values ('n-1', 1, 1)`)).rejects.toThrow(
    /unique/,
  )
})

test('migrating again, from several processes at once, changes nothing', async () => {
  const applied = await Promise.all([1, 2, 3].map(() => migrate(client, migrationFiles())))
  expect(applied.flat()).toEqual([])
})

test('a migration that fails leaves nothing behind and says which', async () => {
  await expect(
    migrate(client, [{ name: '9999_bad.sql', sql: 'create table half (id int); select nonsense' }]),
  ).rejects.toThrow(/9999_bad.sql/)
  const [row] = await db.execute<{ half: string | null; n: number }>(
    sql`select to_regclass('half') half, (select count(*)::int from migrations where name like '9999%') n`,
  )
  expect(row).toEqual({ half: null, n: 0 })
})

test('every list of a table or view is of a type that a connection reads as a list', async () => {
  const found = await db.execute<{ oid: number }>(sql`
    select distinct a.atttypid::int oid from pg_attribute a
      join pg_class c on c.oid = a.attrelid and c.relnamespace = 'public'::regnamespace
      join pg_type t on t.oid = a.atttypid and t.typcategory = 'A'
    order by 1`)
  expect(found.length).toBeGreaterThan(1)
  const read = Object.values(options.types).map(t => t.to)
  expect(found.map(f => f.oid).filter(oid => !read.includes(oid))).toEqual([])
})
