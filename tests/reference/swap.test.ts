/** Torque and Z of a swap against ISO 898-1 and cases worked by hand. */
import { describe, expect, test } from 'vitest'
import { HOT_YIELD_MPA, START_TURN_C, torqueFor, turning, zNumbers, zWords } from '#core/changeover'

describe('torque', () => {
  // M6: 20.1 mm² (ISO 898-1). 2 mm channel: 20.1 − 3.14 = 16.96 mm². T = K·F·D, K 0.2 (common practice)
  test('brass in aluminium, 2 mm channel, by hand: neck 0.2 · 0.5 · 140 · 16.96 · 6 mm = 1.42 N·m, thread 1.31', () => {
    const neck = 0.2 * 0.5 * 140 * 16.96 * 0.006
    const thread = 0.2 * (0.5 * (90 / Math.sqrt(3)) * Math.PI * 5.350481 * (5 / 2)) * 0.006
    const t = torqueFor({ material: 'brass', insert: false, channelMm: 2, makerNm: null }, 'aluminium block')
    expect(neck).toBeCloseTo(1.42, 2)
    expect(t.by).toBe('block thread')
    expect(t.newtonMetre).toBeCloseTo(Math.min(neck, thread), 3)
    const copper = torqueFor({ material: 'brass', insert: false, channelMm: 2, makerNm: null }, 'plated copper block')
    expect(copper).toMatchObject({ by: 'nozzle neck' })
    expect(copper.newtonMetre).toBeCloseTo(neck, 2)
  })
  test('never above the maker, never above the metal; an unknown block counts as the weaker', () => {
    const n = { material: 'hardened steel' as const, insert: false, channelMm: 2 }
    const metal = torqueFor({ ...n, makerNm: null }, null).newtonMetre
    expect(torqueFor({ ...n, makerNm: 1 }, null)).toEqual({ newtonMetre: 1, by: 'maker' })
    expect(torqueFor({ ...n, makerNm: 3 }, null).newtonMetre).toBe(metal)
    expect(metal).toBe(torqueFor({ ...n, makerNm: null }, 'aluminium block').newtonMetre)
  })
  test('an insert sits in brass: its neck is no stronger (common practice, no source)', () => {
    const of = (insert: boolean) =>
      torqueFor({ material: 'ruby tip', insert, channelMm: 3, makerNm: null }, 'plated copper block').newtonMetre
    expect(of(true)).toBeLessThan(of(false))
    expect(HOT_YIELD_MPA.brass).toBeLessThan(HOT_YIELD_MPA.steel)
  })
})

describe('how hot it is turned (common practice, no source)', () => {
  const pla = { name: 'PLA', swapC: 220 }
  const pa = { name: 'PA6', swapC: 245 }
  test('220 if only PLA went through or nothing is known, 245 after nylon', () => {
    expect(turning(null, 290, [pla])).toEqual({ setC: 220, material: 'PLA', refusal: null })
    expect(turning(null, 290, [pla, pa])).toEqual({ setC: 245, material: 'PA6', refusal: null })
    expect(turning(null, 290, [])).toEqual({ setC: START_TURN_C, material: null, refusal: null })
  })
  test('above the weakest part it is not turned: the hotend is changed', () => {
    expect(turning(null, 240, [pa]).refusal).toMatch(/Do not turn it: PA6 asks 245 °C.*240 °C.*whole hotend/)
    expect(turning(null, null, [pa]).refusal).toMatch(/Cannot tell how hot the hotend may get/)
    expect(turning(null, 290, [{ name: 'new', swapC: null }])).toMatchObject({ setC: null, material: 'new' })
  })
  test('a sensor that reads 8 °C low: 245 °C of melt is set as 237, and the ceiling is hotter than it shows', () => {
    const low = { own: { points: [{ shownC: 240, cC: 8, uC: 1 }], from: 'checked' }, atLeast: null }
    expect(turning(low, 290, [pa]).setC).toBe(237)
    expect(turning(low, 236, [pa]).refusal).not.toBeNull()
    expect(turning(low, 240, [pa]).refusal).toBeNull()
  })
})

describe('Z (by hand)', () => {
  test('longer is higher, shorter is lower, in words that cannot be read the other way round', () => {
    expect(zWords(0.5)).toBe('The new one is 0.50 mm longer: the head must stop 0.50 mm higher.')
    expect(zWords(-0.12)).toBe('The new one is 0.12 mm shorter: the head must stop 0.12 mm lower.')
    expect(zWords(0.001)).toMatch(/stops where it did/)
  })
  test.each([
    // number, change, way: expected, first approach
    [-1.2, 0.5, 'larger is higher', -0.7, 0.3],
    [-1.2, -0.5, 'larger is higher', -1.7, -0.7],
    [1.2, 0.5, 'larger is lower', 0.7, -0.3],
    [0, 0, 'larger is lower', 0, -1],
  ] as const)('%f, %f longer, %s: ends near %f, begins at %f', (before, change, way, expectedMm, startMm) => {
    const z = zNumbers(before, change, way)
    expect(z).toEqual({ expectedMm, startMm })
    // from where it starts, the nozzle is 1 mm further from the bed than where it should end
    expect((z.startMm - z.expectedMm) * (way === 'larger is higher' ? 1 : -1)).toBeCloseTo(1, 9)
  })
})
