/** Cautions come up at the step that can hurt, and not elsewhere. */
import { expect, test } from 'vitest'
import { CAUTIONS, cautionsFor, printing, SOCK_OFF, type Moment } from '#core/cautions'
import { demandOfJob, ROLES, stackOf, START_RULES } from '#core/limits'
import { asks, nozzle, printer } from './limits-support'
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
  expect(keys({ action: 'fit a part', roles: ['sensor'] })).toEqual(['sensor', 'live leads', 'plugs'])
  expect(keys({ action: 'fit a part', roles: ['heater'] })).toContain('plugs')
  expect(keys({ action: 'fit a part', roles: ['sheet'] })).not.toContain('plugs')
  expect(keys({ action: 'swap a nozzle', nozzleC: 245 })).toEqual([
    'burns',
    'turning',
    'gloves',
    'cold reading',
    'falling axis',
    'live leads',
  ])
  expect(keys({ action: 'clear a clog', nozzleC: 20 })).toEqual(['gloves', 'cold reading', 'torch'])
  expect(keys({ action: 'dry' })).toEqual(['dryer'])
})
test('annealing burns, gives off fumes and can start a fire; in sand there are its own hazards', () => {
  const free = ['hot part', 'anneal fumes', 'oven fire']
  expect(keys({ action: 'anneal', polymers: ['PC'] })).toEqual(free)
  expect(keys({ action: 'anneal', inSand: true })).toEqual([...free, 'damp sand', 'hot sand', 'silica dust'])
})
test('a temperature that is not known triggers no caution of its own, its own value triggers it', () => {
  expect(keys({ action: 'print', nozzleC: null })).toEqual([])
  expect(keys({ action: 'print', nozzleC: 229 })).not.toContain('fumes')
  expect(keys({ action: 'print', nozzleC: 230 })).toContain('fumes')
})
test('triggers are words of the product; every caution can come up and says what to do', () => {
  for (const c of CAUTIONS) {
    for (const r of c.roles ?? []) expect([...ROLES, SOCK_OFF]).toContain(r)
    for (const f of c.fillers ?? []) expect(FILLERS).toContain(f)
    expect(c.what.length).toBeGreaterThan(20)
    expect(
      keys({
        action: c.actions[0]!,
        polymers: c.polymers,
        fillers: c.fillers,
        roles: c.roles,
        surfaces: c.surfaces,
        inSand: c.inSand,
        nozzleC: 500,
        bedC: 200,
        chamberC: 120,
      }),
    ).toContain(c.key)
  }
})

/** What comes up when this prints here: the moment as Equip, Soak and the check all make it. */
const when = (p: ReturnType<typeof printer>, d: Parameters<typeof printing>[1]) =>
  keys(printing(stackOf(p, 0), d, START_RULES))
const LINED = printer('open frame', nozzle('brass', 0.4))
const BOX = printer('bed-heated enclosure')
const at = (nozzleC: number | null, bedC: number, chamberC: number | null = null) =>
  demandOfJob('job', { nozzleC, bedC, chamberC }, null)

test('PETG exactly at what its liner stands', () => {
  expect(when(LINED, asks('PETG'))).toEqual(expect.arrayContaining(['ptfe', 'fumes']))
})
test('fire: hot nozzle, a bed at 100, or a chamber heater at work', () => {
  expect(when(BOX, at(210, 60))).not.toContain('fire')
  expect(when(BOX, at(210, 100))).toContain('fire')
  expect(when(printer('hot machine'), at(210, 60, 50))).toContain('fire')
  expect(when(LINED, at(300, 60))).toContain('fire')
})
test('the air as it will settle, not as it was asked for', () => {
  // nothing is asked of the chamber, and a bed of 100 makes 71 °C near the head
  expect(when(BOX, at(210, 100))).toContain('hot chamber')
  expect(when(BOX, at(210, 70))).not.toContain('hot chamber')
})
test('superglue where it is what holds on the glass that is on', () => {
  const glass = printer('hot machine', undefined, { 'PEI sheet': 'glass plate' })
  expect(when(glass, asks('PEEK'))).toEqual(expect.arrayContaining(['glass', 'superglue']))
  expect(when(glass, asks('PC'))).not.toContain('superglue')
  expect(when(printer('hot machine'), asks('PEEK'))).not.toContain('superglue')
})
test('a sock that does not stand the job comes off cold', () => {
  expect(when(BOX, at(305, 60))).toContain('sock')
  expect(when(BOX, at(250, 60))).not.toContain('sock')
})
test('a mains bed and what is burned by it say one thing about reaching in', () => {
  const words = CAUTIONS.filter(c => ['burns', 'glass', 'hot bed'].includes(c.key)).map(c => c.what)
  for (const w of words) expect(w).toMatch(/heat gloves/i)
  expect(words.join(' ')).not.toMatch(/let (it|the part) cool before/)
})
