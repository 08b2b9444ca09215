/** What is asked about a run. Common practice, no source, where nothing else is said. */
import { describe, expect, test } from 'vitest'
import { during, HIGHEST_FLOW_MM3S, meanFlowMm3S, overlap, sameRun, spanOf } from '#core/runs'

const HOUR = 3_600_000
const at = (h: number) => h * HOUR
const run = (toH: number, hours: number | null, extrudedG = 312, material = 'PA6-CF20') => ({
  toMs: at(toH),
  hours,
  extrudedG,
  material,
})

describe('two runs on one head', () => {
  test('overlap when both were timed and ran at once for longer than logging late explains', () => {
    expect(overlap(run(10, 4), run(12, 4))).toBe(true)
    expect(overlap(run(12, 4), run(10, 4))).toBe(true)
    expect(overlap(run(20, 12), run(15, 1))).toBe(true) // one inside the other
    expect(overlap(run(10, 4), run(14, 4))).toBe(false)
    expect(overlap(run(10, 4), run(13.8, 4))).toBe(false) // 12 minutes: logged late
    expect(overlap(run(10, 4), run(13.7, 4))).toBe(true) // 18 minutes
    expect(overlap(run(10, 0.2), run(10.15, 0.2))).toBe(false) // short ones: half of the shorter
    expect(overlap(run(10, 0.2), run(10.05, 0.2))).toBe(true)
    expect(overlap(run(10, null), run(10, 4))).toBe(false)
  })
  test('the same one twice: as much of the same at once; untimed within a quarter of an hour', () => {
    expect(sameRun(run(10, 4), run(10.1, 4))).toBe(true)
    expect(sameRun(run(10, 4), run(10.1, 4, 313))).toBe(true) // within half a percent
    expect(sameRun(run(10, 4), run(10.1, 4, 320))).toBe(false)
    expect(sameRun(run(10, 4), run(10.1, 4, 312, 'PLA'))).toBe(false)
    expect(sameRun(run(10, 4), run(14.2, 4))).toBe(false) // the same job again, one after the other
    expect(sameRun(run(10, null), run(10.2, null))).toBe(true)
    expect(sameRun(run(10, null), run(10.3, 4))).toBe(false)
  })
  test('something that happened during a run, not at its start and not after it', () => {
    expect(during(at(8), run(10, 4))).toBe(true)
    expect(during(at(6.2), run(10, 4))).toBe(false)
    expect(during(at(5), run(10, 4))).toBe(false)
    expect(during(at(10.1), run(10, 4))).toBe(false)
    expect(during(at(8), run(10, null))).toBe(false)
  })
})

test('the mean flow: 312 g of a filament of 1.228 g/cm³ in 9.5 h is 7.4 mm³/s; in 1 h no bore passes it', () => {
  const mm3 = (312 / 1.228) * 1000
  expect(meanFlowMm3S(mm3, 9.5)).toBeCloseTo(7.43, 2)
  expect(meanFlowMm3S(mm3, 1)).toBeGreaterThan(HIGHEST_FLOW_MM3S)
  // 1 m of 1.75 mm filament takes 100 s at 24 mm³/s (the job's page)
  expect(meanFlowMm3S(2405.3, 100 / 3600)).toBeCloseTo(24.05, 1)
})
test('when it was under way', () => {
  expect(spanOf(run(10, 4))).toEqual({ fromMs: at(6), toMs: at(10) })
  expect(spanOf(run(10, null))).toBeNull()
})
