/** Records of lives from the log, plotting positions, and the list of a study. */
import { describe, expect, test } from 'vitest'
import { foundPast, lifeKgAt, lifeRecordOf, meanLifeKg, medianLifeKg, plotPoints, type LifeRecord } from '#core/life'
import { MOST_LINES, studyList } from '#core/study'
import { pictureReading } from '#core/wear'

const nozzle = { wasUsed: false, isRetired: false, isOnForecast: false }
const gauge = (wearKg: number, isPast: boolean | null) => ({ wearKg, isPast })

describe('the record of a life', () => {
  test('found past: between the last gauge within and the one that found it', () => {
    const gauges = [gauge(0, false), gauge(0.5, false), gauge(0.8, null), gauge(1.1, true), gauge(1.2, true)]
    expect(lifeRecordOf({ ...nozzle, gauges })).toEqual({
      end: 'found past its limit',
      record: { kind: 'between', from: 0.5, to: 1.1 },
    })
    expect(lifeRecordOf({ ...nozzle, gauges: [gauge(0.7, true)] }).record).toEqual({
      kind: 'between',
      from: 0,
      to: 0.7,
    })
  })

  test('never found past: it lived to its last gauge, not to today', () => {
    const gauges = [gauge(0, false), gauge(0.5, false), gauge(0.9, null)]
    const lived = { kind: 'survived', until: 0.5 }
    expect(lifeRecordOf({ ...nozzle, gauges })).toEqual({ end: 'in service', record: lived })
    expect(lifeRecordOf({ ...nozzle, isRetired: true, gauges })).toEqual({
      end: 'retired within its limit',
      record: lived,
    })
    expect(lifeRecordOf({ ...nozzle, isRetired: true, isOnForecast: true, gauges }).end).toBe('retired on forecast')
  })

  test('what tells nothing is left out, and said', () => {
    expect(lifeRecordOf({ ...nozzle, wasUsed: true, gauges: [gauge(1, true)] })).toEqual({
      end: 'came used',
      record: null,
    })
    for (const gauges of [[], [gauge(0, false)], [gauge(0.4, null)], [gauge(0, true)]])
      expect(lifeRecordOf({ ...nozzle, gauges })).toEqual({ end: 'not gauged since it was new', record: null })
  })

  test('two gauges without use between them, one within and one past: the interval does not vanish', () => {
    const gauges = [gauge(0.3, false), gauge(0.9, false), gauge(0.9, true)]
    expect(lifeRecordOf({ ...nozzle, gauges }).record).toEqual({ kind: 'between', from: 0.3, to: 0.9 })
  })
})

describe('found past its limit', () => {
  const rules = { boreLimitMm: 0.44, tipLossLimitMm: 0.15, massLimitKg: null }
  const pins = (goMm: number | null, noGoMm: number | null) => ({
    kind: 'pins' as const,
    wearKg: 1,
    goMm,
    noGoMm,
    uMm: 0.003,
  })
  const past = (bore: Parameters<typeof foundPast>[2], tip: number | null = null, r = rules) =>
    foundPast(r, 0.4, bore, tip)

  test('pins that have the limit between them do not tell', () => {
    expect([past(pins(0.44, 0.45)), past(pins(0.43, 0.44)), past(pins(0.43, 0.45))]).toEqual([true, false, null])
    expect([past(pins(0.45, null)), past(pins(0.43, null)), past(pins(null, 0.43))]).toEqual([true, null, false])
  })

  test('a picture reads the mouth: wider than the bore by the usual flare', () => {
    const value = { kind: 'value' as const, wearKg: 1, valueMm: 0.442, uMm: 0.003 }
    expect(past(value)).toBe(true)
    expect(past(pictureReading(1, 0.442, 0.003, 0.001, 'a'))).toBe(false)
    expect(past(pictureReading(1, 0.446, 0.003, 0.001, 'a'))).toBe(true)
  })

  test('the tip counts too; the tip alone does not say that the bore is within', () => {
    expect(past(pins(0.42, 0.43), 0.16)).toBe(true)
    expect(past(null, 0.05)).toBeNull()
    expect(past(null, 0.05, { ...rules, boreLimitMm: null as never })).toBe(false)
    expect(past(null)).toBeNull()
  })
})

describe('plotting positions', () => {
  test('of whole data: median ranks', () => {
    const records: LifeRecord[] = [3, 1, 2].map(at => ({ kind: 'failed', at }))
    const points = plotPoints(records)
    expect(points.map(p => p.index)).toEqual([1, 2, 0])
    points.forEach((p, i) => expect(p.share).toBeCloseTo((i + 1 - 0.3) / 3.4, 12))
  })

  test('a survivor before the others lifts those after it', () => {
    const points = plotPoints([
      { kind: 'survived', until: 1 },
      { kind: 'between', from: 1, to: 3 },
      { kind: 'failed', at: 4 },
    ])
    expect(points.map(p => [p.at, p.from])).toEqual([
      [2, 1],
      [4, null],
    ])
    expect(points[0]!.share).toBeGreaterThan(0.7 / 3.4)
    expect(points[1]!.share).toBeLessThan(1)
  })
})

test('a Weibull life: its quantiles, its median and its mean', () => {
  const life = { shape: 2, scale: 3 }
  expect(1 - Math.exp(-((lifeKgAt(life, 0.1) / 3) ** 2))).toBeCloseTo(0.1, 12)
  expect(medianLifeKg(life)).toBeCloseTo(3 * Math.sqrt(Math.LN2), 12)
  // Γ(3/2) = √π/2
  expect(meanLifeKg(life)).toBeCloseTo((3 * Math.sqrt(Math.PI)) / 2, 10)
})

describe('the list of a study', () => {
  test('everyone gauges every nozzle once in a round; the order differs between rounds, and comes again', () => {
    const list = studyList(3, 5, 4, 42)
    expect(list).toHaveLength(60)
    for (let round = 0; round < 4; round++) {
      const lines = list.filter(l => l.round === round)
      expect(new Set(lines.map(l => `${l.person}/${l.nozzle}`)).size).toBe(15)
      expect(list.slice(round * 15, round * 15 + 15)).toEqual(lines)
    }
    const order = (round: number) => list.filter(l => l.round === round).map(l => `${l.person}/${l.nozzle}`)
    expect(order(0)).not.toEqual(order(1))
    expect(studyList(3, 5, 4, 42)).toEqual(list)
    expect(studyList(3, 5, 4, 43)).not.toEqual(list)
  })

  test('the tool changes hands only between people', () => {
    const list = studyList(3, 4, 2, 1)
    const changes = list.filter((l, i) => i > 0 && l.person !== list[i - 1]!.person).length
    expect(changes).toBeLessThanOrEqual(5)
  })

  test('refuses what is no study', () => {
    expect(() => studyList(2, 1, 2, 1)).toThrow('nozzles')
    expect(() => studyList(2, 2, 1, 1)).toThrow('repeats')
    expect(() => studyList(2, 2.5, 2, 1)).toThrow('a whole number')
    expect(() => studyList(6, 12, 10, 1)).toThrow(`at most ${MOST_LINES} lines`)
  })
})
