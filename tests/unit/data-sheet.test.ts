/** Pasted data sheets: names and numbers as makers write them; what cannot be read comes back. */
import { expect, test } from 'vitest'
import { readDataSheet } from '#core/limits'

test('a sheet as it is pasted', () => {
  const r = readDataSheet(`Printing temperature: 290 - 320 °C
Bed temperature\t90–110 °C
Chamber temperature: 60 to 90 °C
Drying: 100-140 °C for 8 - 12 h
Density (ISO 1183)  1,27 g/cm3
Elongation at break: 2.5 %
Glass transition temperature, Tg: 125 °C
Melting point 260 °C
Minimum nozzle diameter 0.4 mm
Recommended nozzle size: 0.6 mm
Max. drying temperature 140 °C
`)
  expect(r).toEqual({
    facts: {
      nozzleMinC: 290,
      nozzleMaxC: 320,
      strainAtBreak: 2.5,
      glassC: 125,
      meltC: 260,
      boreMinMm: 0.4,
      boreGoodMm: 0.6,
      dryHighestC: 140,
    },
    densityGCm3: 1.27,
    filler: null,
    waterAt50: null,
    bed: [90, 110],
    chamber: [60, 90],
    dry: [100, 140],
    dryHours: [8, 12],
    unread: [],
  })
})
test('one number, kg/m³, one length of drying', () => {
  const r = readDataSheet('Nozzle 240\nDensity 1040 kg/m³\nDrying 80 °C, 4 h')
  expect(r).toMatchObject({
    facts: { nozzleMinC: 240, nozzleMaxC: 240 },
    densityGCm3: 1.04,
    dry: [80, 80],
    dryHours: [4, 4],
  })
})
test('nothing is lost: unknown lines, missing numbers and impossible ones come back with their line', () => {
  expect(
    readDataSheet('Colour: black\n\nBed: warm\nNozzle temperature 2900 °C\nDensity 99\nDrying: a while\nTg: 900')
      .unread,
  ).toEqual([
    { line: 1, text: 'Colour: black', why: 'no known name' },
    { line: 3, text: 'Bed: warm', why: 'no number' },
    { line: 4, text: 'Nozzle temperature 2900 °C', why: 'not between 100 and 550 °C' },
    { line: 5, text: 'Density 99', why: 'not between 0.5 and 10 g/cm³' },
    { line: 6, text: 'Drying: a while', why: 'no drying temperature between 30 and 200 °C' },
    { line: 7, text: 'Tg: 900', why: 'not between -100 and 400 °C' },
  ])
  expect(readDataSheet('')).toMatchObject({ facts: {}, unread: [] })
})
test('filler, moisture, annealing and a needed bore, as sheets write them', () => {
  const r = readDataSheet(`Carbon fibre content: 15 wt%
Moisture content for printing: < 0.02 %
Water absorption (23 °C / 50 % RH, ISO 62): 1,8 %
Annealing: 80-100 °C for 4-6 h, heating rate 10 °C/h
Nozzle: ≥ 0.6 mm
Nozzle temperature: 280 °C – 300 °C
Drying temperature 80 °C (8 hours)
Density of the polymer: 1.14
`)
  expect(r).toMatchObject({
    filler: { kind: 'carbon fibre', fraction: 0.15 },
    facts: {
      cleanWater: 0.02,
      annealMinC: 80,
      annealMaxC: 100,
      annealMinH: 4,
      annealMaxH: 6,
      annealRamp: 10,
      boreMinMm: 0.6,
      nozzleMinC: 280,
      nozzleMaxC: 300,
      matrixGCm3: 1.14,
    },
    waterAt50: 1.8,
    dry: [80, 80],
    dryHours: [8, 8],
    densityGCm3: null,
    unread: [],
  })
})
test.each([
  ['Glass fiber: 30 %', { kind: 'glass fibre', fraction: 0.3 }],
  ['CF 12 %', { kind: 'carbon fibre', fraction: 0.12 }],
  ['Filler content 20 % (w/w)', { kind: null, fraction: 0.2 }],
  ['Metal content: 80 wt%', { kind: 'metal powder', fraction: 0.8 }],
])('%s is a filler', (line, filler) => {
  expect(readDataSheet(line)).toMatchObject({ filler, unread: [] })
})
test.each([
  ['Residual moisture below 200 ppm', { cleanWater: 0.02 }],
  ['Recommended nozzle: 0.6 mm, hardened', { boreGoodMm: 0.6 }],
  ['Recommended nozzle: 0.6 mm or larger', { boreMinMm: 0.6 }],
  ['Minimum nozzle 0.5 mm', { boreMinMm: 0.5 }],
  ['Nozzle 0,4-0,8 mm', { boreMinMm: 0.4 }],
  ['Printing temp., carbon fibre grade: 290 °C', { nozzleMinC: 290, nozzleMaxC: 290 }],
  ['Annealing 120 °C', { annealMinC: 120, annealMaxC: 120 }],
])('%s', (line, facts) => {
  expect(readDataSheet(line)).toMatchObject({ facts, unread: [] })
})
test.each([
  ['Fibre content 12 % by volume', 'a share by volume: enter it by weight'],
  ['Carbon fibre 10-15 %', 'a range: enter the share of the spool at hand'],
  ['Glass fibre content 95 %', 'not between 0 and 80 wt%'],
  ['Water absorption in water 24 h: 5 %', 'only the water at 50 % humidity is used'],
  ['Water uptake at 50 % RH: 40 %', 'not between 0.001 and 15 wt%'],
  ['Annealing recommended', 'no number'],
  ['Annealing 700 °C, 4 h', 'not between 40 and 350 °C'],
  ['Density of the fibre 1.8', 'of the filler, not of the filament'],
])('%s is said not to be read', (line, why) => {
  expect(readDataSheet(line)).toEqual({ ...readDataSheet(''), unread: [{ line: 1, text: line, why }] })
})
test('two lines that disagree: the first stands, the second comes back; the same again is no matter', () => {
  const r = readDataSheet('Nozzle 0.6 mm\nNozzle 260 °C\nMinimum nozzle 0.4 mm\nNozzle 260 °C\nBed 90 °C\nBed 100 °C')
  expect(r).toMatchObject({ facts: { boreMinMm: 0.6, nozzleMinC: 260 }, bed: [90, 90] })
  expect(r.unread).toEqual([
    { line: 3, text: 'Minimum nozzle 0.4 mm', why: 'a line before says otherwise' },
    { line: 6, text: 'Bed 100 °C', why: 'a line before says otherwise' },
  ])
})
