/** The demo goes through the same records as real entries, once, and is the same every time. */
import { sql } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { Scan } from '#core/gcode'
import { meanLifeKg } from '#core/life'
import { bestClass, checkStack, compile, demandOfJob, judge, NO_OFFERS, type LineKey } from '#core/limits'
import { dueOfPrinter, NOTHING_STANDS } from '#core/schedule'
import { demandsOf } from '#shared/asking'
import { precheckSchema, soakSchema } from '#shared/entries/prepare'
import { loadDemo } from '../../demo/load'
import { MATERIALS } from '../../demo/shop'
import { listCards } from '../../server/records/cards/cards'
import { casePage, listCases } from '../../server/records/diagnosis/cases'
import { benchPage, listBenches } from '../../server/records/flow/benches'
import { floor } from '../../server/records/bench/floor'
import { Refusal } from '../../server/records/entry/refusal'
import { listAskings } from '../../server/records/materials/materials'
import { makePrecheck } from '../../server/records/prepare/prechecks'
import { saveSoak } from '../../server/records/prepare/soaks'
import { typeLives } from '../../server/records/nozzles/lives'
import { listStudies } from '../../server/records/studies/studies'
import { shopRules } from '../../server/records/printers/ceilings'
import { listStacks } from '../../server/records/printers/stack-read'
import { demoDatabase, freshDatabase } from './support'

const one = await demoDatabase()
const { anchor } = one
const other = await freshDatabase()

test('loaded once, with the shop that the design asks for', async () => {
  const [n] = await one.db.execute<Record<string, number>>(sql`
    select (select count(*)::int from printers) printers, (select count(*)::int
    from nozzles) nozzles, (select count(*)::int from spools) spools, (select count(*)::int from runs) runs,
      (select count(*)::int from gauges where kind = 'service') gauges, (select count(*)::int
      from strikes) strikes, (select count(*)::int from jobs) jobs,
      (select extract(day from max(ended_at) - min(ended_at))::int from runs) days, (select count(*)::int
      from forecasts where stale) stale`)
  expect(n).toMatchObject({ printers: 7, nozzles: 40, spools: 30, stale: 0 })
  expect(n!.runs).toBeGreaterThan(600)
  expect(n!.gauges).toBeGreaterThan(40)
  expect(n!.days).toBeGreaterThan(400)
  expect(n!.strikes).toBeGreaterThan(0)
  expect(await loadDemo(one.db, new Date())).toBe(false)
  const [again] = await one.db.execute<{ n: number }>(sql`select count(*)::int n from runs`)
  expect(again!.n).toBe(n!.runs)
}, 600_000)

test('totals are those of the log, added up another way', async () => {
  const rows = await one.db.execute<{ tag: string; stored: number; summed: number }>(sql`
    select n.tag, f.wear_kg stored, coalesce((
      select sum(case when t.filler_fraction > 0 then t.abrasivity * t.filler_fraction * t.extruded_g / 1000
      else t.abrasivity * t.extruded_g / 1000 end)
      from run_tools t left join strikes s on s.target = 'run' and s.target_id = t.run_id
      where t.nozzle_id = n.id and s.id is null), 0) summed
    from nozzles n join forecasts f on f.nozzle_id = n.id`)
  expect(rows).toHaveLength(40)
  for (const r of rows) expect(r.stored, r.tag).toBeCloseTo(r.summed, 9)
})

test('the same seed and anchor give the same shop', async () => {
  expect(await loadDemo(other.db, anchor)).toBe(true)
  const print = sql`select md5(string_agg(t::text, '' order by t.ended_at, t.nozzle_id, t.extruded_g)) m
    from (select ended_at, nozzle_id, extruded_g, fibre_g, wear_kg, material_name from run_tools) t`
  const [a] = await one.db.execute<{ m: string }>(print)
  const [b] = await other.db.execute<{ m: string }>(print)
  expect(a!.m).toBe(b!.m)
}, 600_000)

test('the Floor tells the stories: a stopped printer, a gauge that is due, a retired insert', async () => {
  const f = await floor(one.db)
  expect(f.printers.map(p => p.name)).toEqual(['Calder', 'Ribble', 'Wharfe', 'Aire', 'Swale', 'Nidd', 'Lune'])
  expect(f.printers.find(p => p.name === 'Aire')!.verdict).toBe('stop')
  expect(f.bench[0]).toMatchObject({
    printer: 'Aire',
    verdict: 'stop',
    reason: expect.stringMatching(/^Out of service: the hotend fan/) as unknown,
  })
  expect(f.bench.find(b => b.reason.includes('275 °C'))).toMatchObject({ printer: 'Aire', verdict: 'stop' })
  const left = f.bench.filter(b => b.reason.startsWith('Not ready')).map(b => [b.printer, b.verdict])
  expect(left.sort()).toEqual([
    ['Lune', 'stop'],
    ['Swale', 'stop'],
  ])
  expect(f.printers.find(p => p.name === 'Ribble')!.heads[0]!.nozzle!.tag).toBe('N-014')
  const [failures] = await one.db.execute<{ n: number }>(
    sql`select count(*)::int n from fittings where kind = 'retire'
      and reason in ('insert came out during a job', 'worn oval by carbon fibre')`,
  )
  expect(failures!.n).toBe(2)
})

test('six closed cases, one of them assumed and one that was not named, and two that are open', async () => {
  const { cases, review } = await listCases(one.db)
  expect(cases.map(c => [c.place, c.closing?.cause ?? null])).toEqual([
    ['Ribble', null],
    ['Aire', null],
    ['Nidd', 'plate or adhesive'],
    ['Wharfe', 'grip'],
    [expect.stringMatching(/^Swale/), 'cold or drafty chamber'],
    ['Aire', 'worn nozzle'],
    ['Calder', 'worn nozzle'],
    ['Ribble', 'moisture'],
  ])
  expect(review).toMatchObject({ closed: 6, proved: 5, named: 4, right: 4 })
  // the bench that was run while its case was open is read as the test
  const wharfe = await casePage(one.db, cases[3]!.id)
  expect(wharfe.told.find(t => t.kind === 'test')).toMatchObject({ key: 'bench', state: 'the fast blobs fall short' })
})

test('two flow benches, one that its grip holds back, and a card that a person wrote on', async () => {
  const benches = await listBenches(one.db)
  expect(benches.map(b => [b.place, b.ended, b.weighed === b.blobs])).toEqual([
    ['Ribble', 'done', true],
    ['Wharfe', 'done', true],
  ])
  const wharfe = await benchPage(one.db, benches[1]!.id)
  expect(wharfe.limit).toMatchObject({ limit: 'grip or this nozzle', move: { verdict: 'stayed' } })
  expect(wharfe.run!.grams).toBeGreaterThan(40)
  const [nylon] = await one.db.execute<{ id: number }>(sql`select id from materials where name = 'PA6-CF20'`)
  const [card] = await listCards(one.db, { materialId: nylon!.id })
  expect(card).toMatchObject({ printer: 'Ribble', type: 'hardened steel 0.4', hand: { adhesive: 'PEI + glue stick' } })
  expect(card!.good).toBeGreaterThan(20)
})
test('one study that gauges go by, and a type of which five were found past their limit', async () => {
  const [study] = await listStudies(one.db)
  expect(study).toMatchObject({ method: 'pins', counts: true, repeats: 3 })
  expect(study!.lines.every(l => l.reading !== null)).toBe(true)
  expect(study!.setsMm).toBeGreaterThan(0.001)
  expect(study!.setsMm).toBeLessThan(0.005)
  const brass = (await typeLives(one.db)).find(t => t.typeName === 'brass 0.4' && t.filler === null)!
  expect(brass.nozzles.filter(n => n.end === 'found past its limit')).toHaveLength(5)
  expect(brass.fit!.ranges.mean.low80).toBeLessThan(brass.fit!.mean)
  // what wore out and the wear model, which knows their gauges, are of one mind
  expect(Math.abs(Math.log(brass.fit!.mean / meanLifeKg(brass.model!)))).toBeLessThan(0.4)
})

/** A file that sets these, read as the browser reads it. */
function scanOf(set: { nozzleC: number; bedC: number; chamberC: number | null }) {
  const heat = set.chamberC === null ? '' : `M141 S${set.chamberC}\n`
  const text = `M83\nM104 S${set.nozzleC}\nM140 S${set.bedC}\n${heat}G1 Z0.3 F900\nG1 X50 E4\n`
  const scan = new Scan({})
  scan.push(new TextEncoder().encode(text))
  return scan.finish()
}
/** The worst word among these: what stops it, what is a look. */
function worstOf(words: readonly string[], stop: string, look: string) {
  if (words.includes(stop)) return 'stop'
  return words.includes(look) ? 'look' : 'fine'
}
const worst = (lines: readonly { status: string }[]) =>
  worstOf(
    lines.map(l => l.status),
    'short',
    'just',
  )

describe('Equip, Soak, May I start and the Floor give one answer', () => {
  const { db } = one
  const reading = async () => await Promise.all([listStacks(db), listAskings(db), shopRules(db), floor(db)])
  let read: ReturnType<typeof reading> | null = null
  test.each(MATERIALS.map(m => m.name))('%s on every printer', async name => {
    const [printers, materials, rules, seen] = await (read ??= reading())
    const m = materials.find(x => x.name === name)!
    for (const printer of printers)
      for (const head of printer.heads) {
        const c = compile(printer, head.id, NO_OFFERS, rules)
        const demands = demandsOf(m)
        const demand = demands[bestClass([c], demands).demand]!
        const v = judge(c, demand)
        if (demand.nozzleMinC === null || v.bedC === null) continue // a support: by its sheet
        const round = (x: number) => Math.round(x * 10) / 10
        const set = {
          nozzleC: demand.nozzleMinC,
          bedC: round(v.bedC),
          chamberC: v.heaterC === null ? null : round(v.heaterC),
        }
        const at = `${m.name} on ${printer.name}, ${head.name}: ${JSON.stringify(set)}`
        const { lines } = checkStack(c.stack, demandOfJob('x', set, demand), rules)
        const of = (...keys: LineKey[]) => lines.filter(l => keys.includes(l.key))
        const heat = [...of('bed', 'chamber part', 'tube heat'), ...of('chamber').filter(l => l.code === 'heated')]
        const equip = worst([...of('nozzle temperature'), ...heat])

        const asked = { printerId: printer.id, headId: head.id, materialId: m.id, printsFrom: 'room', hours: 1 }
        const job = { ...asked, name: 'x', scan: scanOf(set), occurredAt: anchor.toISOString() }
        const check = await makePrecheck(db, precheckSchema.parse(job))
        const limits = check.lines.filter(l => l.key === 'limits')
        const heard = limits.filter(l => hardly(l.says))
        const start = worstOf(
          heard.map(l => l.status),
          'stop',
          'look',
        )
        expect(start, `May I start: ${at}`).toBe(equip)

        const p = seen.printers.find(x => x.id === printer.id)!
        const known = { runId: 1, name: 'x', symptoms: [], stopped: null, nozzle: null, lookedAt: false, fibreG: 0 }
        const last = { ...known, outcome: 'finished' as const }
        const due = dueOfPrinter(
          {
            name: 'any',
            standing: NOTHING_STANDS,
            heads: [{ id: head.id, name: head.name, askedC: set.nozzleC, nozzle: null }],
            limits: p.limits,
            last: { ...last, bedC: set.bedC, chamberC: set.chamberC },
          },
          0.1,
        ).filter(d => d.reason.startsWith('The last job asked'))
        const onFloor = worstOf(
          due.map(d => d.mark),
          'stop',
          'look',
        )
        expect(onFloor, `Floor: ${at}`).toBe(equip)

        if (c.stack.air.enclosure === null) continue
        const soak = { printerId: printer.id, bedC: set.bedC, part: 'small', minutes: 30, basis: 'practice' }
        const body = { ...soak, chamberSetC: set.chamberC, confirmed: ['soaking'], occurredAt: anchor.toISOString() }
        const refused = await db
          .transaction(async tx => {
            await saveSoak(tx, soakSchema.parse(body), 1)
            tx.rollback()
          })
          .catch((e: unknown) => e instanceof Refusal)
        expect(refused, `Soak: ${at}`).toBe(worst(heat) === 'stop')
      }
  })
})
/** What is said of a part's limit; hardness, bend and the rest are said by Equip alone. */
const hardly = (says: string) => /the air there would be|The limit of the|holds/i.test(says)
