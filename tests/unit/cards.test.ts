/** Cards of what worked: whose value counts, what a job is held against, words. */
import { expect, test } from 'vitest'
import { cardValues, compareJob, countWords, differsWords, ofJob, recordOf, spreadWords, valueWords } from '#core/cards'
import { InputError } from '#core/numeric'

const found = { low: 275, middle: 280, high: 285 }
const job = { nozzleC: 280, bedC: 100, chamberC: null, fanMax: null, firstLayer: null }

test('a hand wins over runs, and both are kept', () => {
  const [nozzle, bed] = cardValues({ nozzleC: found, bedC: { low: 100, middle: 100, high: 100 } }, { bedC: 95 })
  expect(nozzle).toEqual({ key: 'nozzleC', value: 280, by: 'runs', found })
  expect(bed).toMatchObject({ value: 95, by: 'hand', found: { middle: 100 } })
  expect([spreadWords(nozzle!), spreadWords(bed!)]).toEqual(['275 to 285 °C', 'runs used 100 °C'])
  expect(cardValues({}, {})).toEqual([])
  expect(() => cardValues({}, { bedC: 900 })).toThrow(InputError)
})

test('a job is held against all that runs used, and against a hand alone', () => {
  const runs = cardValues({ nozzleC: found }, {})
  expect(compareJob(runs, ofJob({ ...job, nozzleC: 270 })).differs).toEqual([])
  expect(compareJob(runs, ofJob({ ...job, nozzleC: 269 })).differs).toMatchObject([{ key: 'nozzleC', low: 275 }])
  const hand = cardValues({ nozzleC: found }, { nozzleC: 290 })
  expect(compareJob(hand, ofJob({ ...job, nozzleC: 280 })).differs).toMatchObject([{ low: 290, high: 290 }])
  // what the file does not say is not compared
  const all = cardValues({}, { bedC: 100, fanPercent: 0, firstLayerMmS: 15, firstLayerMm: 0.3, holdMin: 30 })
  expect(compareJob(all, ofJob(job))).toEqual({ same: ['bedC'], differs: [] })
  const thin = ofJob({ ...job, fanMax: 1, firstLayer: { heightMm: 0.2, meanMmS: 15 } })
  expect(differsWords(compareJob(all, thin))).toBe(
    'first layer height 0.2 mm, where 0.3 mm worked and part fan 100 %, where 0 % worked',
  )
})

test('counts and words', () => {
  expect([recordOf(0, 0), recordOf(1, 0), recordOf(1, 1), recordOf(1, 2), recordOf(0, 1)]).toEqual([
    'nothing tried',
    'works',
    'works',
    'mostly fails',
    'mostly fails',
  ])
  expect([countWords(1, 0), countWords(12, 3)]).toEqual(['1 good run, none failed', '12 good runs, 3 failed'])
  expect([valueWords('peakMm3S', 7.44), valueWords('firstLayerMm', 0.3)]).toEqual(['7.4 mm³/s', '0.3 mm'])
})
