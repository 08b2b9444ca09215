/** What the doors would refuse, said in the browser; and a browser that could not fetch it. */
import { afterEach, expect, test, vi } from 'vitest'
import { gaugeSchema } from '#shared/entries/nozzles'
import { understand } from '~/strip/parse'
import type { StripShop } from '~/strip/grammar'

const at = '2026-11-20T12:00:00.000Z'
const gauge = { nozzleId: 14, goMm: 0.44, noGoMm: 0.43, occurredAt: at }
/** As a page has it that was just loaded. */
async function fresh() {
  vi.resetModules()
  return (await import('~/lib/checks')).checks
}
afterEach(() => {
  vi.doUnmock('#shared/api')
})

test('the same fields and words as the door says them', async () => {
  const checks = await fresh()
  const door = gaugeSchema.safeParse(gauge).error!.issues.map(i => ({ field: i.path.join('.'), message: i.message }))
  expect((await checks()).entry('/api/gauges', gauge)).toEqual(door)
  expect(door.length).toBeGreaterThan(0)
  expect((await checks()).entry('/api/gauges', { ...gauge, goMm: 0.42 })).toEqual([])
  expect((await checks()).edit('settings', { shopName: '', timeZone: 'Mars/Base', acceptedRisk: 0.1 })).toMatchObject([
    { field: 'shopName' },
    { field: 'timeZone' },
  ])
  expect((await checks()).ask('/api/stand-in', { what: 'nothing' })).not.toEqual([])
})

test('not fetched: nothing is refused here, and it is asked for again', async () => {
  const checks = await fresh()
  vi.doMock('#shared/api', () => {
    throw new Error('no connection')
  })
  expect((await checks()).entry('/api/gauges', gauge)).toEqual([])
  vi.doUnmock('#shared/api')
  vi.resetModules()
  expect((await checks()).entry('/api/gauges', gauge)).not.toEqual([])
})

test('the strip offers nothing that it could not check yet', () => {
  const shop = {
    printers: [],
    nozzles: [{ id: 14, tag: 'N-014', typeName: 'hardened steel 0.4', place: null, headId: null, retired: false }],
    hotends: [],
    spools: [],
    known: { nozzles: [], spools: [], pins: [] },
    materials: [],
    studyTurn: null,
  } as unknown as StripShop
  expect(understand('N-014 bore 0.43-0.44', shop, at, null)).toEqual({
    kind: 'more',
    says: 'Gauge N-014: 0.43 goes, 0.44 does not',
  })
  expect(understand('N-014', shop, at, null).kind).toBe('open')
})
