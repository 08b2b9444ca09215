/** Past runs, gauges and weighings by the table: as if each line had been typed, and struck out together. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import type { TableName } from '#core/intake'
import { PIECE_LINES } from '#shared/choices'
import { intakeSchema } from '#shared/entries/intake'
import { gaugeSchema } from '#shared/entries/nozzles'
import { runSchema } from '#shared/entries/runs'
import { strikeSchema } from '#shared/entries/log'
import type { Connection, Database } from '../../server/db/client'
import { listImports } from '../../server/records/intake/imports'
import { lookAt, takeIn } from '../../server/records/intake/intake'
import { forgetStage, keepPiece, progressOf } from '../../server/records/intake/stage'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { nozzlePage } from '../../server/records/nozzles/nozzles'
import { refreshMissing, refreshStale } from '../../server/records/nozzles/forecasts'
import { saveRun } from '../../server/records/runs/runs'
import { saveStrike } from '../../server/records/entry/strikes'
import { spoolRemaining } from '../../server/records/spools/spools'
import { freshDatabase, refusal, smallShop } from './support'

type Values = Record<string, string | number | boolean | null>
const table = (name: TableName, rows: Values[], confirmed: string[] = []) =>
  intakeSchema.parse({ table: name, lines: rows.map((values, i) => ({ line: i + 2, values, confirmed })) })
const tx = <T>(db: Database, work: (c: Connection) => Promise<T>) => db.transaction(work)
const take = (db: Database, ...of: Parameters<typeof table>) => tx(db, c => takeIn(c, table(...of), 1, db))
const look = async (db: Database, ...of: Parameters<typeof table>) => (await lookAt(db, table(...of), 1)).lines
const [first, second] = [await freshDatabase(), await freshDatabase()]
const shop = await smallShop(first.db)
await smallShop(second.db)
const names = async (db: Database) => {
  const [row] = await db.execute<{ printer: string; nozzle: string; spool: string | null; material: string }>(sql`
    select (select name from printers order by id limit 1) printer,
      (select tag from nozzles order by id limit 1) nozzle,
      (select tag from spools order by id limit 1) spool, (select name from materials order by id limit 1) material`)
  return row!
}
const { printer, nozzle, material } = await names(first.db)
const days = (n: number) => new Date(Date.now() - n * 86_400_000).toISOString().slice(0, 10)
const bySum = async (db: Database, query: string) => (await db.execute<{ n: number }>(sql.raw(query)))[0]!.n
const count = (db: Database, of: string) => bySum(db, `select count(*)::int n from ${of}`)
/** On the shop's clock, which is UTC here, days before the nozzle was fitted: it is asked about. */
const RUNS: Values[] = Array.from({ length: 40 }, (_, i) => ({
  printer,
  ended: `${days(100 - i)}T${i % 2 === 0 ? '10:00' : '16:30'}`,
  name: `part ${i}`,
  material,
  nozzle,
  grams: 40 + i,
  hours: 2,
  outcome: i % 7 === 0 ? 'failed' : 'finished',
  surface: i % 2 === 0 ? 'Glass + glue stick' : null,
}))
const YES = ['not-fitted:0', 'unexpected-bore:as-read']

test('lines of past runs ask as a single run does, and are then those that would have been typed', async () => {
  await first.db.execute(sql`update settings set time_zone = 'UTC'`)
  await second.db.execute(sql`update settings set time_zone = 'UTC'`)
  const asked = await look(first.db, 'runs', RUNS)
  expect(asked.every(l => l.state === 'asks' && l.questions[0]!.code === 'not-fitted:0')).toBe(true)
  await refusal(take(first.db, 'runs', RUNS))
  expect(await count(first.db, 'runs')).toBe(0)
  const looked = await look(first.db, 'runs', RUNS, YES)
  expect(looked[3]).toMatchObject({ state: 'new', says: `43.0 g of ${material} through ${nozzle}` })
  expect(await take(first.db, 'runs', RUNS, YES)).toEqual({ added: 40, here: 0 })
  expect(await count(first.db, "runs where surface = 'glass + glue stick'")).toBe(20)
  for (const r of RUNS)
    await tx(second.db, c =>
      saveRun(
        c,
        runSchema.parse({
          printerId: shop.printerId,
          name: r.name,
          endedAt: `${String(r.ended)}:00.000Z`,
          hours: r.hours,
          outcome: r.outcome,
          tools: [
            {
              tool: 0,
              headId: shop.headId,
              nozzleId: shop.nozzleId,
              materialId: shop.materialId,
              amount: { kind: 'grams', grams: r.grams },
            },
          ],
          confirmed: ['not-fitted:0'],
        }),
        1,
      ),
    )
  const GAUGES: Values[] = [
    { nozzle, gauged: `${days(80)}T09:00`, go: 0.4, noGo: 0.41 },
    { nozzle, gauged: `${days(50)}T09:00`, bore: 0.405, boreU: 0.004 },
  ]
  expect(await take(first.db, 'gauges', GAUGES, YES)).toEqual({ added: 2, here: 0 })
  for (const g of GAUGES)
    await tx(second.db, c =>
      saveGauge(
        c,
        gaugeSchema.parse({
          nozzleId: shop.nozzleId,
          occurredAt: `${String(g.gauged)}:00.000Z`,
          goMm: g.go ?? null,
          noGoMm: g.noGo ?? null,
          valueMm: g.bore ?? null,
          uMm: g.boreU ?? null,
          confirmed: YES,
        }),
        1,
      ),
    )
  // both afresh: the order in which they came in is no part of it
  for (const { db } of [first, second]) {
    await db.execute(sql`delete from forecasts`)
    while ((await refreshMissing(db)) > 0 || (await refreshStale(db)) > 0);
  }
  const [brought, typed] = await Promise.all([first, second].map(({ db }) => nozzlePage(db, nozzle)))
  expect(brought!.fibreG).toBe(typed!.fibreG)
  expect(brought!.fibreG).toBeGreaterThan(100)
  expect(brought!.forecast).toEqual(typed!.forecast)
})

test('the same tables once more add nothing, also with two lines that are alike', async () => {
  expect(await take(first.db, 'runs', RUNS, YES)).toEqual({ added: 0, here: 40 })
  const alike = { printer, ended: days(120), name: 'clip', material, nozzle, grams: 12, hours: 1 }
  const two = [alike, alike]
  const asked = await look(first.db, 'runs', two, YES)
  expect(asked.map(l => l.state)).toEqual(['new', 'asks'])
  expect(asked[1]!.questions[0]).toMatchObject({ code: 'same-run:0' })
  expect(await take(first.db, 'runs', two, [...YES, 'same-run:0'])).toEqual({ added: 2, here: 0 })
  expect(await take(first.db, 'runs', two, [...YES, 'same-run:0'])).toEqual({ added: 0, here: 2 })
  expect(await look(first.db, 'runs', [alike, alike, alike], YES)).toMatchObject([
    { state: 'here' },
    { state: 'here' },
    { state: 'asks' },
  ])
})

test('what is wrong with a line stands at its column, and refuses all of them', async () => {
  const line = { printer, ended: days(40), material, nozzle, grams: 12 }
  const today = new Date().toISOString().slice(0, 10)
  const rows: [Values, string, RegExp][] = [
    [{ ...line, printer: 'Nowhere' }, 'printer', /No printer is called Nowhere/],
    [{ ...line, nozzle: 'N-none' }, 'nozzle', /No nozzle is N-none/],
    [{ ...line, nozzle: null }, 'nozzle', /No nozzle was on it then/],
    [{ ...line, spool: 'S-none' }, 'spool', /No spool is S-none/],
    [{ ...line, material: null }, 'material', /Enter the spool, or at least the material/],
    [{ ...line, material: 'cheese' }, 'material', /No material is called cheese/],
    [{ ...line, grams: null }, 'grams', /grams, metres, or the spool before and after/],
    [{ ...line, grams: null, before: 900 }, 'after', /Both weights/],
    [{ ...line, grams: -5 }, 'grams', /At least 0.01 g/],
    [{ ...line, hours: 5000 }, 'hours', /At most 2000 h/],
    [{ ...line, head: 'left' }, 'head', /has head/],
    [{ ...line, surface: 'x'.repeat(81) }, 'surface', /80 characters/],
    [{ ...line, ended: '2031-01-01' }, 'ended', /future/],
    [{ ...line, ended: null }, 'ended', /Enter the day/],
    [{ ...line, ended: today, nozzle }, 'ended', /write the time too/],
  ]
  const looked = await look(
    first.db,
    'runs',
    rows.map(([r]) => r),
    YES,
  )
  for (const [i, [, field, says]] of rows.entries()) {
    // by noon a day alone can be told
    if (i === rows.length - 1 && new Date().getUTCHours() >= 12) continue
    expect(looked[i], String(says)).toMatchObject({ state: 'wrong', errors: [{ field }] })
    expect(looked[i]!.says).toMatch(says)
  }
  const before = await count(first.db, 'runs')
  await refusal(take(first.db, 'runs', [line, rows[0]![0]], YES))
  expect(await count(first.db, 'runs')).toBe(before)
})

test('a material that is not known is asked for once, and then added', async () => {
  const petg = { printer, ended: `${days(9)}T10:00`, material: 'PETG', nozzle, grams: 5 }
  const rows = [petg, { ...petg, ended: `${days(8)}T10:00` }]
  expect((await look(first.db, 'runs', rows, YES)).map(l => l.questions[0]!.code)).toEqual(
    Array(2).fill('new-material:petg'),
  )
  expect(await take(first.db, 'runs', rows, [...YES, 'new-material:petg'])).toEqual({ added: 2, here: 0 })
  expect(await count(first.db, "materials where name = 'PETG'")).toBe(1)
})

test('weighings say what is on a spool, and a run before them is measured by what was on it then', async () => {
  await take(first.db, 'spools', [{ tag: 'S-t', material, net: 1000, tare: 200 }])
  const weighed = [{ spool: 's-T', weighed: `${days(5)}T08:00`, gross: 500 }]
  expect(await take(first.db, 'weighings', weighed)).toEqual({ added: 1, here: 0 })
  expect(await take(first.db, 'weighings', weighed)).toEqual({ added: 0, here: 1 })
  const spoolId = await bySum(first.db, `select id n from spools where tag = 'S-t'`)
  expect((await spoolRemaining(first.db, spoolId)).g).toBe(300)
  const used = { printer, ended: `${days(6)}T08:00`, spool: 'S-t', nozzle, grams: 600 }
  // 600 g is more than is left today and less than was on it then
  expect((await look(first.db, 'runs', [used], YES))[0]!.state).toBe('new')
  const more = { ...used, ended: `${days(6)}T20:00`, grams: 500 }
  expect((await look(first.db, 'runs', [used, more], YES))[1]!.says).toMatch(
    /500 g is more than the 400 g that was on S-t/,
  )
  expect((await look(first.db, 'weighings', [{ spool: 'S-t', weighed: days(4), gross: 100 }]))[0]).toMatchObject({
    state: 'wrong',
    errors: [{ field: 'gross' }],
  })
})

test('a table is struck out as a whole: what it brought counts no more, and can be brought again', async () => {
  const { db } = first
  const of = (await listImports(db)).imports.find(i => i.entries === 40)!
  expect(of).toMatchObject({ kind: 'runs', name: 'pasted', standing: 40, struck: null })
  const [one] = await db.execute<{ id: number }>(sql`select min(target_id)::int id from import_rows
    where import_id = ${of.id}`)
  const strike = (target: string, targetId: number, reason: string) =>
    tx(db, c => saveStrike(c, strikeSchema.parse({ target, targetId, reason }), 1))
  await strike('run', one!.id, 'this one twice')
  const before = (await nozzlePage(db, nozzle)).fibreG
  expect((await listImports(db)).imports.find(i => i.id === of.id)).toMatchObject({ standing: 39 })
  expect(await strike('import', of.id, 'the wrong nozzle')).toMatchObject({ nozzles: [nozzle] })
  const after = await nozzlePage(db, nozzle)
  expect(after.fibreG).toBeLessThan(before - 400)
  expect(after.stale).toBe(false)
  expect(await count(db, `standing_runs where name like 'part %'`)).toBe(0)
  // what was struck by itself keeps its reason
  expect(await count(db, `strikes where target = 'run' and reason = 'this one twice'`)).toBe(1)
  expect((await listImports(db)).imports.find(i => i.id === of.id)).toMatchObject({
    standing: 0,
    struck: { reason: 'the wrong nozzle' },
  })
  await refusal(strike('import', of.id, 'again'))
  expect(await take(db, 'runs', RUNS, YES)).toEqual({ added: 40, here: 0 })
})

test('a long table comes in pieces, says how far it is, and is given up with nothing stored', async () => {
  const { db } = first
  const lines = Array.from({ length: PIECE_LINES + 500 }, (_, i) => ({
    line: i + 2,
    values: {
      printer,
      ended: new Date(Date.UTC(2025, 0, 1, i)).toISOString().slice(0, 16),
      material,
      nozzle,
      grams: 3,
    },
    confirmed: [...YES],
  }))
  const send = (nr: number) =>
    keepPiece(db, { stage: 'long-table', nr, lines: lines.slice(nr * PIECE_LINES, (nr + 1) * PIECE_LINES) })
  const body = intakeSchema.parse({ table: 'runs', staged: { stage: 'long-table', pieces: 2 } })
  await send(0)
  expect((await refusal(lookAt(db, body, 1))).errors![0]).toMatchObject({ field: 'staged' })
  await send(1)
  await send(1)
  expect((await lookAt(db, body, 1)).lines.filter(l => l.state === 'new')).toHaveLength(lines.length)
  expect(await progressOf(db, 'long-table')).toEqual({ done: lines.length })
  const before = await count(db, 'runs')
  const given = tx(db, c => takeIn(c, body, 1, db))
  await forgetStage(db, 'long-table')
  await refusal(given)
  expect(await count(db, 'runs')).toBe(before)
  expect(await progressOf(db, 'long-table')).toEqual({ done: null })
  await send(0)
  await send(1)
  expect(await tx(db, c => takeIn(c, body, 1, db))).toEqual({ added: lines.length, here: 0 })
  expect(await count(db, 'intake_pieces')).toBe(0)
  expect(() => intakeSchema.parse({ table: 'people', staged: { stage: 'long-table', pieces: 2 } })).toThrow(/at once/)
})
