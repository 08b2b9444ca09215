/** Cautions come up at the step that can hurt, and not elsewhere. */
import { expect, test } from 'vitest'
import { CAUTIONS, cautionsFor, type Moment } from '#core/cautions'
import { ROLES } from '#core/limits'
import { FILLERS } from '#core/wear'

const keys = (m: Moment) => cautionsFor(m).map(c => c.key)

test('PPS-CF on a hot machine', () => {
  expect(
    keys({ action: 'print', polymers: ['PPS'], fillers: ['carbon fibre'], nozzleC: 325, bedC: 160, chamberC: 90 }),
  ).toEqual(['burns', 'hot bed', 'fumes', 'sulphur', 'fibre dust', 'conductive', 'fire', 'hot chamber'])
})
test('PLA on a cool frame needs few words', () => {
  expect(keys({ action: 'print', polymers: ['PLA'], fillers: ['none'], nozzleC: 210, bedC: 55 })).toEqual(['burns'])
})
test('an overheated liner, a glass plate, mains work', () => {
  expect(keys({ action: 'print', nozzleC: 235, roles: ['liner'] })).toContain('ptfe')
  expect(keys({ action: 'print', nozzleC: 235, roles: ['heat break'] })).not.toContain('ptfe')
  expect(keys({ action: 'print', nozzleC: 100, surfaces: ['glass'] })).toEqual(['glass'])
  expect(keys({ action: 'wire' })).toEqual(['mains'])
})
test('fitting a sensor, turning a nozzle, a torch', () => {
  expect(keys({ action: 'fit a part', roles: ['sensor'] })).toEqual(['sensor', 'live leads'])
  expect(keys({ action: 'swap a nozzle', nozzleC: 245 })).toEqual(['burns', 'turning', 'live leads'])
  expect(keys({ action: 'clear a clog', nozzleC: 20 })).toEqual(['torch'])
  expect(keys({ action: 'dry' })).toEqual(['dryer'])
})
test('a temperature that is not known triggers no caution of its own, a limit is exclusive', () => {
  expect(keys({ action: 'print', nozzleC: null })).toEqual([])
  expect(keys({ action: 'print', nozzleC: 230 })).not.toContain('fumes')
})
test('triggers are words of the product; every caution can come up and says what to do', () => {
  for (const c of CAUTIONS) {
    for (const r of c.roles ?? []) expect(ROLES).toContain(r)
    for (const f of c.fillers ?? []) expect(FILLERS).toContain(f)
    expect(c.what.length).toBeGreaterThan(20)
    expect(
      keys({
        action: c.actions[0]!,
        polymers: c.polymers,
        fillers: c.fillers,
        roles: c.roles,
        surfaces: c.surfaces,
        nozzleC: 500,
        bedC: 200,
        chamberC: 120,
      }),
    ).toContain(c.key)
  }
})
