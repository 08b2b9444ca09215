/** What a check is of stands in its address, and comes back from it. */
import { expect, test } from 'vitest'
import { addressOf, saidIn } from '../../app/lib/check-address'
import type { Check } from '../../app/state/check'
import type { ShopData } from '../../app/state/shop'

const shop = {
  printers: [
    { id: 1, name: 'Ribble', heads: [{ id: 11, name: 'head' }] },
    {
      id: 2,
      name: 'Wharfe',
      heads: [
        { id: 21, name: 'left' },
        { id: 22, name: 'right' },
      ],
    },
  ],
  spools: [{ id: 7, tag: 'S-07', materialId: 3 }],
  materials: [{ id: 4, name: 'PA6-CF20' }],
} as unknown as ShopData
const check = (more: Partial<Check>): Check => ({
  ...{ printerId: 2, headId: 22, spoolId: 7, materialId: 3, printsFrom: 'dry box', hours: 3.5, jobId: 12 },
  ...{ fileId: 4, tool: 1, nozzleC: null, bedC: 0, chamberC: null, note: 'x', answers: [] },
  answered: { place: '', work: '', lines: [] },
  ...more,
})

test('there and back: names, and only what is not as it would be anyway', () => {
  const address = addressOf(check({}), shop)
  expect(address).toEqual({
    ...{
      printer: 'Wharfe',
      head: 'right',
      spool: 'S-07',
      from: 'dry box',
      job: '12',
      tool: '1',
      hours: '3.5',
      bed: '0',
    },
  })
  const { fileId: _, nozzleC: _n, chamberC: _c, note: _t, answers: _a, answered: _d, ...said } = check({})
  expect(saidIn(address, shop)).toEqual(said)
  const plain = check({ printerId: 1, headId: 11, spoolId: null, materialId: 4, printsFrom: 'room', tool: 0 })
  expect(addressOf({ ...plain, hours: null, jobId: null, bedC: null }, shop)).toEqual({
    printer: 'Ribble',
    filament: 'PA6-CF20',
  })
  expect(saidIn({ filament: 'PA6-CF20' }, shop)).toEqual({ materialId: 4, spoolId: null })
})

test('nonsense in an address is left out', () => {
  const query = { printer: 'Nobody', spool: ['S-07', 'S-08'], from: 'the roof', job: '1e9.5', tool: '-1', hours: 'two' }
  expect(saidIn(query, shop)).toEqual({})
})
