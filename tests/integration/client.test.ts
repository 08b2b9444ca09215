/** How questions reach the database. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { connect } from '../../server/db/client'
import { idIn } from '../../server/db/ids'
import { people } from '../../server/db/schema'
import { freshDatabase } from './support'

const { url } = await freshDatabase()

test('what the screens ask is planned once for each connection, however many ids are in it', async () => {
  const { client, db } = connect(url, { max: 1 })
  for (const ids of [[1], [1, 2, 3], [], [2, 4, 6, 8, 10, 12, 14]]) {
    await db.execute(sql`select id from people where ${idIn('id', ids)}`)
    await db.execute(sql`select count(*) from people`)
    await db.select().from(people)
  }
  const kept = await client<{ statement: string; times: number }[]>`
    select statement, (generic_plans + custom_plans)::int times from pg_prepared_statements
    where statement like '%people%' and statement not like '%pg_prepared%' order by statement`
  expect(kept.map(k => k.times)).toEqual([4, 4, 4])
  await client.end()
})

test('ids are those asked for: all without a list, none of an empty one', async () => {
  const { client, db } = connect(url, { max: 1 })
  const found = async (ids?: number[]) =>
    (await db.execute<{ i: number }>(sql`select i from generate_series(1, 5) i where ${idIn('i', ids)}`)).map(r => r.i)
  expect(await found()).toEqual([1, 2, 3, 4, 5])
  expect(await found([])).toEqual([])
  expect(await found([4, 2, 9_000_000_000])).toEqual([2, 4])
  await client.end()
})

test('a text of several statements is sent as it is, by itself or in a transaction', async () => {
  const { client, db } = connect(url, { max: 1 })
  await client.unsafe('create temporary table one_two (n integer); insert into one_two values (1)')
  await db.transaction(tx => tx.execute(sql.raw('insert into one_two values (1); insert into one_two values (1);')))
  expect(await client`select sum(n)::int n from one_two`).toEqual([{ n: 3 }])
  await client.end()
})

test('behind a pooler nothing is prepared: the next question may be on another connection', async () => {
  process.env.DATABASE_DIRECT_URL = url
  try {
    const { client, db } = connect(url, { max: 1 })
    await db.execute(sql`select count(*) from people`)
    const [kept] = await client<{ n: number }[]>`
      select count(*)::int n from pg_prepared_statements where statement like 'select count(*) from people'`
    expect(kept!.n).toBe(0)
    await client.end()
  } finally {
    delete process.env.DATABASE_DIRECT_URL
  }
})

test('lists of texts and numbers come and go as lists, with what stands for itself in them', async () => {
  const texts = ['plain', 'with "quotes"', 'back\\slash', 'a, b', '{}', '']
  const { client } = connect(url, { max: 1 })
  const [row] = await client`
    select ${texts}::text[] texts, (${texts}::text[])[3] one, ${[0.1, -2e-9]}::float8[] numbers,
      array(select generate_series(1, 3)) counts, array[2::bigint] ids, array[]::text[] none`
  expect(row).toEqual({ texts, one: texts[2], numbers: [0.1, -2e-9], counts: [1, 2, 3], ids: ['2'], none: [] })
  await client.end()
})
