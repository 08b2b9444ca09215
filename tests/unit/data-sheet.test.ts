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
