/**
 * Databases of main before hotends were things of their own. `before-hotends.sql.gz` is a dump of a small shop made by
 * that version, with parts replaced, a change struck out, sensors checked, replaced and not described; what it made of
 * them stands in `before-hotends.json`. The older dumps are brought up to date with and without the tags.
 */
import { readFileSync } from 'node:fs'
import { sql } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { ceilings, compile, HOTEND_ROLES, judge, NO_OFFERS, START_RULES } from '#core/limits'
import { demandsOf } from '#shared/asking'
import { strikeSchema } from '#shared/entries/log'
import type { Database } from '../../server/db/client'
import { migrationFiles } from '../../server/db/files'
import { saveStrike } from '../../server/records/entry/strikes'
import { listAskings } from '../../server/records/materials/materials'
import { listHotends } from '../../server/records/printers/hotends'
import { listShelf, listStacks } from '../../server/records/printers/stack-read'
import { fromDump, refusal } from './support'

async function verdicts(db: Database) {
  const askings = await listAskings(db)
  return (await listStacks(db)).map(p => ({
    name: p.name,
    limits: ceilings(p, START_RULES).map(c => [c.zone, c.headId, c.part.name, c.limitC, c.fineC, c.shortC]),
    verdicts: p.heads.flatMap(h =>
      askings.flatMap(m =>
        demandsOf(m, 1.75).map(d => {
          const v = judge(compile(p, h.id, NO_OFFERS, START_RULES), d)
          const open = v.lines.filter(l => l.status !== 'ok').map(l => `${l.key} ${l.status}`)
          return [h.name, d.name, d.set, v.class, open.join(', ')]
        }),
      ),
    ),
  }))
}

describe('a database of main before hotends', async () => {
  const db = await fromDump('before-hotends.sql.gz')
  test('verdicts and limits are what that version made of every printer', async () => {
    const before = readFileSync(new URL('../samples/databases/before-hotends.json', import.meta.url), 'utf8')
    const is = await verdicts(db)
    expect(is.map(p => p.name)).toEqual(['Frame', 'Box', 'Twin', 'Bare', 'Whole'])
    expect(is).toEqual(JSON.parse(before))
    // printers that differ in what speaks against a filament
    expect(new Set(is.flatMap(p => p.verdicts.map(v => v[4]))).size).toBeGreaterThan(10)
  })
  test('a sensor that was checked still is, one that was replaced since is not', async () => {
    const known = Object.fromEntries(
      (await listStacks(db)).map(p => [p.name, p.heads.map(h => (p.sensors?.heads[h.id] ?? null) !== null)]),
    )
    expect(known).toEqual({ Frame: [false], Box: [true], Twin: [false, true], Bare: [true], Whole: [true] })
  })
  test('one hotend for each head, with what stands on it and its nozzle, as events that moved nothing', async () => {
    const [stacks, hotends] = await Promise.all([listStacks(db), listHotends(db)])
    expect(hotends.map(h => [h.tag, h.place?.words, h.nozzle?.tag ?? null])).toEqual([
      ['H-01', 'Frame', 'N-1'],
      ['H-02', 'Box', 'N-2'],
      ['H-03', 'Twin · left', 'N-3'],
      ['H-04', 'Twin · right', 'N-4'],
      ['H-05', 'Bare', null],
      ['H-06', 'Whole', 'N-5'],
    ])
    for (const h of hotends) {
      const printer = stacks.find(p => p.id === h.place!.printerId)!
      const inside = printer.parts.filter(
        p => p.headId === h.place!.headId && (HOTEND_ROLES as readonly string[]).includes(p.role),
      )
      expect(h.parts.map(p => p.id)).toEqual(inside.map(p => p.id))
    }
    // the sock of a change that was struck out is back in its hotend, the liner that came out is not
    expect(hotends[1]!.parts.map(p => p.role)).toContain('sock')
    expect(hotends[0]!.parts.map(p => p.role)).not.toContain('liner')
    expect((await listShelf(db)).map(p => p.role)).toContain('liner')
    const [n] = await db.execute<{ n: number }>(
      sql`select count(*)::int n from part_events where hotend_id is not null`,
    )
    expect(n!.n).toBe(0)
  })
  test('what was changed before can still be struck out, the tags cannot', async () => {
    const strike = (targetId: number) =>
      db.transaction(tx =>
        saveStrike(tx, strikeSchema.parse({ target: 'stack change', targetId, reason: 'not done' }), 1),
      )
    const id = async (text: string) =>
      (await db.execute<{ id: number }>(sql`select id::int from stack_changes where text = ${text} order by id`))[0]!.id
    await strike(await id('All-metal break, liner out'))
    expect((await listHotends(db))[0]!.parts.map(p => p.role)).toContain('liner')
    const tags = await id('Its hotends got tags')
    expect((await refusal(strike(tags))).errors![0]!.message).toMatch(/nothing was moved/)
  })
})

/** The same steps, with hotends' tables but nobody to tell one from another. */
const UNTAGGED = migrationFiles().map(m =>
  m.name.startsWith('0022') ? { ...m, sql: m.sql.slice(0, m.sql.indexOf('do $$')) } : m,
)
describe.each(['before-models', 'before-places', 'before-water', 'before-hotends'])('%s', async file => {
  const tagged = await fromDump(`${file}.sql.gz`)
  const plain = await fromDump(`${file}.sql.gz`, '', UNTAGGED)
  test('verdicts are the same with and without the tags', async () => {
    const hotends = await listHotends(tagged)
    expect(await listHotends(plain)).toEqual([])
    const stacks = await listStacks(tagged)
    expect(hotends.map(h => h.place!.headId)).toEqual(stacks.flatMap(p => p.heads.map(h => h.id)))
    expect(stacks).toEqual(await listStacks(plain))
    expect(await verdicts(tagged)).toEqual(await verdicts(plain))
  })
})
