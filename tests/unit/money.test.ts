/** Cost of nozzles per kg, the chance that one is cheaper, and where they cross. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { InputError } from '#core/numeric'
import { lifeKgAt, medianLifeKg } from '#core/life'
import { breakEvenLifeRatio, chanceCheaper, costInYear, costPerKg, crossingKg, swapCost } from '#core/money'

const nozzle = (price: number, swap: number, lifeKg: number, sd = 0.5) => ({
  cost: { price, swap },
  life: { meanLn: Math.log(lifeKg), sd },
})

describe('money', () => {
  test('a swap is labour, downtime and scrap', () => {
    expect(swapCost(30, { labourPerHour: 40, downtimePerHour: 10, downtimeHours: 0.5, scrapPerSwap: 3 })).toBe(28)
    expect(
      swapCost(30, {
        labourPerHour: 40,
        downtimePerHour: 10,
        downtimeHours: 0.5,
        scrapPerSwap: 3,
        shopName: 'a shop',
      } as never),
    ).toBe(28)
    expect(() => swapCost(-1, { labourPerHour: 1, downtimePerHour: 1, downtimeHours: 1, scrapPerSwap: 1 })).toThrow(
      InputError,
    )
    expect(() => swapCost(1, { labourPerHour: NaN, downtimePerHour: 1, downtimeHours: 1, scrapPerSwap: 1 })).toThrow(
      'labourPerHour',
    )
  })
  test('per kg, and refuses a life of nothing', () => {
    expect(costPerKg({ price: 20, swap: 30 }, 10)).toBe(5)
    expect(() => costPerKg({ price: 20, swap: 30 }, 0)).toThrow('lifeKg')
    expect(() => breakEvenLifeRatio({ price: 1, swap: 1 }, { price: 0, swap: 0 })).toThrow(InputError)
  })
  test('quantiles of a life', () => {
    const { life } = nozzle(1, 1, 8, 0.7)
    expect(lifeKgAt(life, 0.5)).toBeCloseTo(medianLifeKg(life), 9)
    expect(lifeKgAt(life, 0.9) / 8).toBeCloseTo(Math.exp(0.7 * 1.2815515655446004), 9)
  })
  test('a year costs one nozzle at least', () => {
    expect(costInYear({ price: 20, swap: 10 }, 5, 0)).toBe(30)
    expect(costInYear({ price: 20, swap: 10 }, 5, 5)).toBe(30)
    expect(costInYear({ price: 20, swap: 10 }, 5, 20)).toBe(120)
  })
  test('the chance: half for alike, sure for far apart, the same each time, and complementary', () => {
    const a = nozzle(20, 25, 4),
      b = nozzle(80, 25, 40)
    expect(chanceCheaper(a, a, 100)).toBeCloseTo(0.5, 1)
    expect(chanceCheaper(a, b, 0.1)).toBe(1)
    expect(chanceCheaper(b, a, 400)).toBeGreaterThan(0.95)
    expect(chanceCheaper(a, b, 20)).toBe(chanceCheaper(a, b, 20))
    expect(chanceCheaper(a, b, 20) + chanceCheaper(b, a, 20)).toBeCloseTo(1, 1)
  })
  test('the chance of two plain lives agrees with the normal difference of their logarithms', () => {
    const a = nozzle(20, 20, 1, 0.3),
      b = nozzle(60, 20, 2.5, 0.4)
    // far beyond one nozzle a year: cheaper when ln(life a) − ln(life b) > ln(40/80)
    const z = (Math.log(1 / 2.5) - Math.log(0.5)) / Math.hypot(0.3, 0.4)
    expect(chanceCheaper(a, b, 1e5)).toBeCloseTo(0.3274, 2)
    expect(z).toBeCloseTo(-0.4463, 3)
  })
  test('the curves cross where the cheap one has cost as much as the dear one at first', () => {
    const cheap = nozzle(20, 30, 5),
      dear = nozzle(120, 30, 50)
    const x = crossingKg(cheap, dear)!
    expect(x).toBe(15)
    expect(costInYear(cheap.cost, 5, x)).toBeCloseTo(costInYear(dear.cost, 50, x), 9)
    expect(crossingKg(dear, cheap)).toBe(x)
    expect(crossingKg(cheap, nozzle(120, 30, 10))).toBeNull()
    const longer = nozzle(20, 30, 8)
    expect(crossingKg(cheap, longer)).toBe(crossingKg(longer, cheap))
  })
  test('property: which of two is named first does not matter to where they cross', () => {
    const one = fc.tuple(
      fc.constantFrom(10, 20, 80),
      fc.constantFrom(15, 30),
      fc.double({ min: 0.5, max: 60, noNaN: true }),
    )
    fc.assert(
      fc.property(one, one, (a, b) => {
        expect(crossingKg(nozzle(...a), nozzle(...b))).toBe(crossingKg(nozzle(...b), nozzle(...a)))
      }),
    )
  })
})
