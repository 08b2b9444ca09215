/** Lists for other programs: units in the headings, formulas escaped, narrowed, and taken in again as they are. */
import Papa from 'papaparse'
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { columnsOf, matchHeadings, readCell, writtenBy, type TableName, type Written } from '#core/intake'
import { intakeSchema } from '#shared/entries/intake'
import { spoolEventSchema } from '#shared/entries/spools'
import { LIST_NAMES, type ListName } from '#shared/lists'
import { materialEntry, freshDatabase, runEntry, smallShop } from './support'
import { oneOfEach } from './every-log'
import { takeIn, lookAt } from '../../server/records/intake/intake'
import { addMaterial } from '../../server/records/materials/materials'
import { writeList } from '../../server/records/out/list'
import type { ListType } from '../../server/records/out/text'
import { saveRun } from '../../server/records/runs/runs'
import { saveSpoolEvent } from '../../server/records/spools/spools'
import { saveStrike } from '../../server/records/entry/strikes'

const { db } = await freshDatabase()
const shop = await smallShop(db)
await oneOfEach(db, shop)
await db.transaction(c => addMaterial(c, materialEntry('=HYPERLINK("x")', { note: '+1 "twice", she said' }), 1))
const weighed = { spoolId: shop.spoolId, kind: 'weighed', grossG: 900, occurredAt: '2026-05-05T08:30:00Z' }
await db.transaction(c => saveSpoolEvent(c, spoolEventSchema.parse({ ...weighed, confirmed: ['too-heavy:S-1'] }), 1))

async function text(name: ListName, type: ListType, by: Record<string, string> = {}): Promise<string> {
  let out = ''
  await writeList(db, { name, type, by }, piece => {
    out += piece
    return Promise.resolve()
  })
  return out
}
const csv = async (name: ListName, by?: Record<string, string>) => {
  const read = Papa.parse<string[]>((await text(name, 'csv', by)).replace(/^\uFEFF/, ''), { skipEmptyLines: true })
  expect(read.errors).toEqual([])
  return read.data
}

test.each(LIST_NAMES)('%s as CSV and as JSON say the same', async name => {
  const [headings, ...rows] = await csv(name)
  const objects = JSON.parse(await text(name, 'json')) as Record<string, unknown>[]
  expect(objects).toHaveLength(rows.length)
  expect(rows.length).toBeGreaterThan(0)
  for (const o of objects) expect(Object.keys(o)).toEqual(headings)
  // every figure says what it counts in, but for what has no unit
  const bare = ['abrasivity', 'chance past its limit', 'value', 'reference read']
  for (const h of headings!)
    if (objects.some(o => typeof o[h] === 'number') && !bare.includes(h)) expect(h).toMatch(/, \S/)
})

test('what begins like a formula is text to a spreadsheet, in JSON it stands as it is', async () => {
  const rows = await csv('materials')
  const row = rows.find(r => r[0]!.includes('HYPERLINK'))!
  expect(row[0]).toBe(`'=HYPERLINK("x")`)
  expect(row.at(-1)).toBe(`'+1 "twice", she said`)
  const [...all] = JSON.parse(await text('materials', 'json')) as { name: string }[]
  expect(all.map(m => m.name)).toContain('=HYPERLINK("x")')
  // a byte order mark, so that µ and ° are read
  expect((await text('materials', 'csv')).startsWith('\uFEFFname,polymer')).toBe(true)
})

test('of one nozzle, spool or printer alone, whatever the case', async () => {
  const all = (await csv('runs')).length
  const mine = await csv('runs', { nozzle: 'n-1' })
  expect(mine.length).toBeGreaterThan(1)
  expect(mine.slice(1).every(r => r[mine[0]!.indexOf('nozzle')] === 'N-1')).toBe(true)
  expect(await csv('runs', { nozzle: `n' or true --` })).toHaveLength(1)
  expect(await csv('runs', { printer: 'ribble' })).toHaveLength(all)
  // a list without that column is not narrowed by it
  expect(await csv('people', { nozzle: 'N-1' })).toEqual(await csv('people'))
})

/** A list as the page of tables reads it. */
async function asTable(name: ListName, table: TableName) {
  const [headings, ...rows] = await csv(name)
  const columns = columnsOf(table)
  const heads = matchHeadings(headings!, columns)
  // as the page asks where a list does not tell: 1.228 could be a thousand
  const written: Written = { ...writtenBy(rows.flat()), decimal: '.' }
  return intakeSchema.parse({
    table,
    lines: rows.map((cells, i) => {
      const values: Record<string, unknown> = {}
      for (const [place, head] of heads.entries()) {
        const column = columns.find(c => c.key === head.key)
        if (!column) continue
        const cell = readCell(cells[place]!, column, written, head.unit)
        expect([name, headings![place], cells[place], cell.problem]).toEqual([
          name,
          headings![place],
          cells[place],
          null,
        ])
        if (cell.value !== null) values[column.key] = cell.value
      }
      return { line: i + 2, values }
    }),
  })
}

test('our own lists come in again: all of it is here already, and what was struck out stays out', async () => {
  await db.execute(sql`update settings set time_zone = 'UTC'`)
  // to the minute, as a list says it
  const endedAt = new Date(Math.floor(Date.now() / 60_000) * 60_000 - 9 * 3_600_000).toISOString()
  const run = runEntry(shop, { endedAt, hours: 1, name: 'to the minute' }, { kind: 'grams', grams: 12.5 })
  const { runId } = await db.transaction(c => saveRun(c, { ...run, confirmed: ['same-run:0', 'overlap:0'] }, 1))
  for (const name of ['nozzle-types', 'nozzles', 'materials', 'spools', 'people', 'weighings'] as const) {
    const table = name === 'nozzle-types' ? 'types' : name
    const { lines } = await lookAt(db, await asTable(name, table), 1)
    expect(lines.map(l => `${name} ${l.state} ${l.says}`).filter(l => !l.includes(' here '))).toEqual([])
  }
  const state = async () => {
    const whole = await asTable('runs', 'runs')
    const mine = whole.lines.filter(l => l.values.name === 'to the minute')
    return (await lookAt(db, { ...whole, lines: mine }, 1)).lines.map(l => [l.state, l.says])
  }
  expect(await state()).toEqual([['here', '12.5 g of PA6-CF20 through N-1']])
  await db.transaction(c => saveStrike(c, { target: 'run', targetId: runId, reason: 'not ours', confirmed: [] }, 1))
  expect(await state()).toEqual([['here', 'struck out where it comes from: left out']])
  const weighings = await asTable('weighings', 'weighings')
  if (weighings.lines.length > 0) expect((await db.transaction(c => takeIn(c, weighings, 1, db))).added).toBe(0)
})
