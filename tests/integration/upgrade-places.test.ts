/**
 * A database of main before limits were judged at their place: `before-places.sql.gz`, a dump of a small shop with the
 * three starting stacks, maps that a person entered, warm-ups whose place was free text, a check that was ticked by
 * hand. Start values become the new ones, what a person entered stays.
 */
import { sql } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { checkStack, demandOfJob, LIMITS_MODEL, stackOf, START_RULES } from '#core/limits'
import { verdictOf } from '#core/precheck'
import { storedCheck } from '#shared/answers/prepare'
import { warmUpPlaceSchema } from '#shared/entries/prepare'
import { floor } from '../../server/records/bench/floor'
import { precheckPage } from '../../server/records/prepare/prechecks'
import { listWarmUps, saveWarmUpPlace } from '../../server/records/prepare/warm-ups'
import { listStacks } from '../../server/records/printers/stack-read'
import { fromDump } from './support'

const db = await fromDump('before-places.sql.gz')
const printers = await listStacks(db)
const of = (n: string) => printers.find(p => p.name === n)!
const part = (n: string, role: string) => of(n).parts.find(p => p.role === role)!
const airOf = (n: string) => stackOf(of(n), of(n).heads[0]!.id).air.map!

describe('shares of the air', () => {
  test('that nobody entered, or that came with a starting stack, are the new start values', () => {
    expect(part('Box', 'enclosure')).toMatchObject({ kind: 'enclosure', details: {} })
    expect(part('Hot', 'enclosure')).toMatchObject({ kind: 'heated enclosure', details: {} })
    expect(part('Frame', 'enclosure')).toMatchObject({ kind: 'enclosure kit', details: {}, limitC: 80 })
    expect(airOf('Frame').bed.low).toMatchObject({ value: 0.5, trust: 'start value' })
    expect(airOf('Hot').bed.low).toMatchObject({ value: 0.6, trust: 'start value' })
  })
  test('that a person entered stay, and one the wrong way round is asked about', () => {
    expect(part('Mapped', 'enclosure').details).toEqual({ thetaLow: 0.5, thetaHigh: 0.44 })
    expect(airOf('Mapped').bed.low).toMatchObject({ value: 0.5, trust: 'entered' })
    expect(airOf('Mapped').bed.bay.value).toBeCloseTo((0.2 * 0.5) / 0.62, 9)
    expect(part('Upside', 'enclosure').details).toEqual({ thetaLow: 0.4 })
    const job = demandOfJob('x', { nozzleC: 200, bedC: 60, chamberC: null }, null)
    const turned = { ...part('Mapped', 'enclosure'), details: { thetaLow: 0.4, thetaHigh: 0.5 } }
    const p = { ...of('Mapped'), parts: of('Mapped').parts.map(x => (x.role === 'enclosure' ? turned : x)) }
    const { lines } = checkStack(stackOf(p, p.heads[0]!.id), job, START_RULES)
    expect(lines.map(l => l.code)).toContain('bed the cooler')
  })
})

test('start values say that they are one; what was entered keeps its basis', () => {
  expect(part('Box', 'sensor')).toMatchObject({ basis: 'start value', limitC: 300 })
  expect(part('Mapped', 'magnets')).toMatchObject({ basis: 'data sheet', limitC: 118, kind: 'magnets, 120 grade' })
  expect(part('Mapped', 'bearings')).toMatchObject({ basis: 'data sheet', limitC: 95 })
})
test('ordinary magnets and plastic bearings where nobody entered a limit; metal ones where a heater works', () => {
  expect(part('Box', 'magnets')).toMatchObject({ kind: 'magnets, ordinary grade', limitC: 80, name: 'magnets' })
  expect(part('Box', 'bearings')).toMatchObject({ kind: 'linear bearings, plastic end caps', limitC: 80 })
  expect(part('Hot', 'bearings')).toMatchObject({ kind: 'bearings, metal shields', limitC: 110 })
  expect(part('Hot', 'magnets')).toMatchObject({ kind: 'magnets, 180 grade', limitC: 180, name: 'magnets' })
  expect(part('Frame', 'insulation').limitC).toBe(75)
})
test('what the head carries sits near bed and head, unless a person said where it is', () => {
  expect(part('Box', 'fans').place).toBe('low')
  expect(part('Box', 'printed parts').place).toBe('low')
  expect(part('Box', 'belts').place).toBe('high')
  expect(part('Mapped', 'fans').place).toBe('high')
})
test('places of warm-ups are read from what was typed; what does not tell is asked and counts nowhere', async () => {
  const printers = await db.execute<{ id: number }>(sql`select id from printers`)
  const records = (await Promise.all(printers.map(p => listWarmUps(db, p.id)))).flat()
  expect(records.map(w => [w.placeText, w.place]).sort()).toEqual([
    ['Beside the head', 'low'],
    ['left wall', null],
    ['near the top', 'high'],
    ['top', 'high'],
  ])
  expect(airOf('Box').bed.high).toMatchObject({ trust: 'warm-up record' })
  expect(airOf('Box').bed.low.value).toBeCloseTo(47 / 77, 2)
  expect(airOf('Hot').heater.high.value).toBeCloseTo(1, 0)
  const wall = records.find(w => w.place === null)!
  const told = { warmUpId: wall.id, place: 'bay', occurredAt: '2026-11-21T09:00:00Z' }
  await db.transaction(tx => saveWarmUpPlace(tx, warmUpPlaceSchema.parse(told), 1))
  const [box] = await listStacks(db, [of('Box').id])
  expect(stackOf(box!, box!.heads[0]!.id).air.map!.bed.bay).toMatchObject({ trust: 'warm-up record' })
})
test('limits are worked out anew, and the Floor reads them', async () => {
  const models = await db.execute<{ model: number }>('select distinct model from stack_ceilings' as never)
  expect(models).toEqual([{ model: LIMITS_MODEL }])
  const box = (await floor(db)).printers.find(p => p.name === 'Box')!
  expect(box.limits.find(l => l.zone === 'bed')!.part).toBe('magnets')
})
test('a check that was ticked by hand stays readable, and its tick counts for nothing', async () => {
  const check = storedCheck.parse(await precheckPage(db, 1))
  expect(check).toMatchObject({ may: true, answers: [{ how: 'fixed' }] })
  expect(verdictOf(check.lines, check.answers).may).toBe(false)
})
