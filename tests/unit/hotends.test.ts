/** Hotends as one thing: what a printer is with another, which is sooner, which to take, and what its steps say. °C. */
import { describe, expect, test } from 'vitest'
import {
  ceilings,
  compile,
  findChanges,
  HOTEND_MINUTES,
  hotendInstead,
  hotendMinutes,
  judge,
  kindOf,
  NO_OFFERS,
  partOf,
  ROLES,
  sameSensor,
  SENSOR_TYPE_MINUTES,
  START_RULES,
  withHotend,
  type Hotend,
  type Printer,
} from '#core/limits'
import {
  COOLED_C,
  HOTEND_GUARDS,
  hotendSteps,
  matchWords,
  missingBefore,
  notReadyToGo,
  portsOf,
  progress,
  rankHotends,
  ROOM_FAR_C,
  roomDoubt,
  valueFaults,
  type HotendFacts,
  type Step,
} from '#core/procedures'
import { GUARDED, GUARDS, guardState } from '#core/chamber'
import { InputError } from '#core/numeric'
import { asks, nozzle, printer } from './limits-support'

let next = 5000
const hotend = (tag: string, kinds: string[], n = nozzle('hardened steel') as Hotend['nozzle']): Hotend => ({
  id: next++,
  tag,
  parts: kinds.map(k => partOf(k, next++, null)),
  nozzle: n,
})
const HOT = ['high-temperature cartridge heater', 'type K thermocouple', 'all-metal heat break', 'plated copper block']
const COOL = ['cartridge heater', 'bead thermistor, 10-bit reading', 'all-metal heat break', 'aluminium block']
const lined = printer('open frame', nozzle('brass', 0.4))
const R = START_RULES
const hottest = (p: Printer) => ceilings(p, R).find(c => c.zone === 'hotend')!

describe('a printer with another hotend', () => {
  test('its parts and its nozzle are those of the new one, what belongs to the printer stays', () => {
    const h = hotend('H-8', HOT)
    const then = withHotend(lined, 0, h)
    const on = then.parts.filter(p => p.headId === 0).map(p => p.kind)
    expect(on).toEqual(expect.arrayContaining([...HOT, 'firmware ceiling', 'plain steel gears', 'PTFE feed tube']))
    expect(on).not.toContain('PTFE liner to the nozzle')
    expect(on).not.toContain('silicone sock')
    expect(then.heads[0]!.nozzle).toMatchObject({ material: 'hardened steel', headId: 0 })
    // the firmware stops it now, whatever the thermocouple stands (common practice, no source)
    expect(hottest(then)).toMatchObject({ part: { role: 'firmware' }, limitC: 290 })
    expect(hottest(lined)).toMatchObject({ part: { role: 'liner' }, limitC: 240 })
  })
  test('nobody has checked its sensor there, whoever checked the one before', () => {
    const known = { points: [{ shownC: 240, cC: 0, uC: 0.3 }], from: 'its check' }
    const checked = { ...lined, sensors: { heads: { 0: { own: known, atLeast: null } }, bed: null, chamber: null } }
    expect(hottest(checked).limitC).toBeGreaterThan(hottest(lined).limitC)
    const same = hotend(
      'H-8',
      lined.parts
        .filter(p => p.headId === 0)
        .map(p => p.kind)
        .filter(k => kindOf(k).role !== 'firmware'),
    )
    expect(withHotend(checked, 0, same).sensors!.heads[0]).toBeNull()
  })
  test('without a nozzle in it the head has none', () => {
    expect(withHotend(lined, 0, hotend('H-8', HOT, null)).heads[0]!.nozzle).toBeNull()
  })
  test('whether the firmware reads it as before: by element and curve; not told, not known', () => {
    const [ten, twelve] = ['10', '12'].map(b => partOf(`bead thermistor, ${b}-bit reading`))
    const [film, couple] = [partOf('platinum film sensor'), partOf('type K thermocouple')]
    expect(sameSensor(ten!, twelve!)).toBe(true)
    expect(sameSensor(ten!, film)).toBe(false)
    expect(sameSensor(film, couple)).toBe(false)
    expect(sameSensor(ten!, { ...ten!, details: { ...ten!.details, betaK: 4300 } })).toBe(false)
    // a divider's resistor sits on the board and stays
    expect(sameSensor(ten!, { ...ten!, details: { ...ten!.details, pullUpOhm: 1000 } })).toBe(true)
    expect(sameSensor(null, film)).toBeNull()
    expect(sameSensor(film, { ...film, details: {} })).toBeNull()
    expect(() => sameSensor(film, { ...film, limitC: NaN })).toThrow(InputError)
  })
})

describe('sooner than changing parts', () => {
  const nylon = asks('PA6', 'carbon fibre', 1)
  const p = printer('open frame', nozzle('brass', 0.4), { 'plain steel gears': 'hardened gears' })
  test('one with an all-metal break and a hard nozzle in place of break and nozzle', () => {
    // by hand, minutes: nozzle 20, break 60, dryer 5, ventilation 30; with the hotend 60, dryer 5, ventilation 30
    expect(findChanges(compile(p, 0, NO_OFFERS, R), [nylon])!.minutes).toBe(115)
    const found = hotendInstead(p, 0, nylon, NO_OFFERS, R, [hotend('H-9', HOT), hotend('H-8', COOL)])!
    expect(found).toMatchObject({ hotend: { tag: 'H-8' }, minutes: 95, partsMinutes: 115 })
    expect(found.swaps.map(s => s.role).sort()).toEqual(['dryer', 'ventilation'])
  })
  test('none where it takes longer, where nothing on the hotend is short, or where none is there', () => {
    expect(hotendInstead(p, 0, asks('PLA'), NO_OFFERS, R, [hotend('H-8', COOL)])).toBeNull()
    // a heat break alone is as quick; with a brass nozzle in it the nozzle has to be changed as well
    expect(hotendInstead(p, 0, nylon, NO_OFFERS, R, [hotend('H-8', COOL, nozzle('brass', 0.2))])).toBeNull()
    expect(hotendInstead(p, 0, asks('PC'), NO_OFFERS, R, [hotend('H-8', COOL)])).toBeNull()
    expect(hotendInstead(p, 0, nylon, NO_OFFERS, R, [])).toBeNull()
  })
  test('what is not known of it is no way out', () => {
    const unknown = { ...hotend('H-8', COOL), parts: hotend('', COOL).parts.map(p => ({ ...p, limitC: null })) }
    expect(hotendInstead(p, 0, nylon, NO_OFFERS, R, [unknown])).toBeNull()
  })
  test('another type of sensor takes its time; one that cannot be told counts as another', () => {
    expect(hotendMinutes(lined, 0, hotend('H-8', COOL))).toBe(HOTEND_MINUTES)
    expect(hotendMinutes(lined, 0, hotend('H-8', HOT))).toBe(HOTEND_MINUTES + SENSOR_TYPE_MINUTES)
    expect(hotendMinutes(lined, 0, hotend('H-8', []))).toBe(HOTEND_MINUTES + SENSOR_TYPE_MINUTES)
  })
})

test('a guard is proved until a year is over, or its heater or sensor is another', () => {
  const year = 365 * 86_400_000
  const of = (more: object, nowMs = 1e12) => guardState({ atMs: 1e12, tripped: true, changed: false, ...more }, nowMs)
  expect(guardState(null, 1e12)).toBe('never tested')
  expect(of({})).toBe('proved')
  expect(of({ changed: true })).toBe('changed since')
  expect(of({ tripped: false, changed: true })).toBe('failed')
  expect([of({}, 1e12 + year), of({}, 1e12 + year + 1)]).toEqual(['proved', 'due again'])
  // each guard watches a heater and a sensor that a stack can have
  for (const g of GUARDS) for (const role of GUARDED[g]) expect(ROLES).toContain(role)
})

describe('which to take', () => {
  const coming = [{ name: 'PA6-CF20', demands: [asks('PA6', 'carbon fibre', 1)], fibreG: null }]
  const rank = (...hotends: Hotend[]) => rankHotends(lined, 0, hotends, coming, R)
  test('one that is ready and good comes before one that is not; what the printer lacks is not held against it', () => {
    const ranked = rank(
      hotend('H-1', COOL, nozzle('brass', 0.6)),
      hotend('H-2', COOL, null),
      hotend('H-3', COOL, nozzle('hardened steel', 0.6)),
    )
    expect(ranked.map(c => [c.hotend.tag, c.good])).toEqual([
      ['H-3', true],
      ['H-1', false],
      ['H-2', false],
    ])
    expect(ranked[0]!.says).toEqual(['Good for PA6-CF20.'])
    expect(ranked[1]!.says[0]).toMatch(/^PA6-CF20: /)
    expect(ranked[2]!.says[0]).toBe('Not ready to go: no nozzle is in it.')
    // its gears are not hardened, whichever hotend is on
    expect(judge(compile(withHotend(lined, 0, ranked[0]!.hotend), 0, NO_OFFERS, R), coming[0]!.demands[0]!).class).toBe(
      'changes',
    )
  })
  test('of two that are alike the sooner', () => {
    expect(rank(hotend('H-1', HOT), hotend('H-2', COOL)).map(c => c.hotend.tag)).toEqual(['H-2', 'H-1'])
  })
  test('a sensor that is not described keeps it on the shelf', () => {
    expect(notReadyToGo(hotend('H-1', ['aluminium block']))).toBe('its sensor is not described')
    expect(notReadyToGo(hotend('H-1', COOL))).toBeNull()
  })
})

const thing = (tag: string, n: string, sensor: string) => ({
  id: 1,
  tag,
  nozzle: { id: 7, tag: n, words: 'hardened steel 0.6' },
  heater: 'cartridge heater',
  sensor,
})
const facts = (more: Partial<HotendFacts> = {}): HotendFacts => ({
  place: 'Aire',
  head: 0,
  headId: 4,
  old: thing('H-04', 'N-009', 'bead thermistor'),
  fresh: thing('H-08', 'N-024', 'type K thermocouple'),
  sameSensor: false,
  firmware: { wasC: 300, mostC: 470, weakest: 'heat break' },
  snug: { setC: 220, material: null },
  tuneC: 275,
  roomC: 23,
  resnug: { setC: 275, job: 'PA12-CF15' },
  torque: { newtonMetre: 1.36, by: 'block thread' },
  sock: true,
  liner: false,
  materials: [{ id: 3, name: 'PA12-CF15', purgeC: 250 }],
  holds: null,
  zWay: null,
  zMm: null,
  ...more,
})
const told = (s: Step) => [s.title, ...s.says, ...s.hazards.flatMap(h => [h.hazard, h.what])].join(' ')

describe('changed step by step (common practice, no source)', () => {
  const steps = hotendSteps(facts())
  const at = (key: string) => steps.findIndex(s => s.key === key)
  const of = (key: string) => steps[at(key)]!
  test('cold and off before a plug is pulled, told to the firmware before it heats, proved before it works', () => {
    const order = ['cool', 'prop', 'isolate', 'ports', 'out', 'in', 'plug', 'firmware', 'cold', 'heat', 'tune']
    const places = [
      ...order,
      ...HOTEND_GUARDS.map(g => `guard ${g}`),
      'snug',
      'leaks',
      'z',
      'level',
      'first layer',
    ].map(at)
    expect(places).toEqual([...places].sort((a, b) => a - b))
    expect(Math.min(...places)).toBeGreaterThan(0)
    // nothing waits for a heater before the plug is back in
    expect(steps.slice(0, at('plug')).every(s => s.wait === null)).toBe(true)
    for (const s of steps.slice(1)) expect(missingBefore(steps, [], s.key).length).toBeGreaterThan(0)
  })
  test('each hazard stands at its step, and nothing invites a hand', () => {
    expect(told(of('isolate'))).toMatch(/mains/i)
    expect(told(of('isolate'))).toMatch(/licensed electrician/)
    expect(told(of('prop'))).toMatch(/axis/)
    expect(told(of('cool'))).toMatch(/reads cold/)
    expect(told(of('plug'))).toMatch(/wrong port/)
    expect(told(of('heat'))).toMatch(/does not heat/)
    for (const s of steps) expect(told(s)).not.toMatch(/cool enough|safe to touch/i)
  })
  test('plug and port of every lead are asked, with a picture, and shown again where they are plugged in', () => {
    const asked = of('ports').fields
    expect(asked.map(f => [f.key, f.required])).toEqual([
      ['port heater', true],
      ['port sensor', true],
      ['port hotend fan', false],
      ['port part fan', false],
      ['photo', false],
    ])
    expect(of('plug').recalls).toEqual(asked.map(f => f.key))
    expect(valueFaults(of('ports'), {}).map(f => f.field)).toEqual(['port heater', 'port sensor'])
    const values = { 'port heater': 'B1', 'port sensor': 'T1', 'photo': 'no hash' }
    expect(valueFaults(of('ports'), values)).toEqual([{ field: 'photo', message: 'Take a picture' }])
    expect(valueFaults(of('ports'), { ...values, photo: 'a'.repeat(64) })).toEqual([])
    expect(portsOf({ ...values, 'port part fan': '', 'coldC': 30 })).toBe('heater B1 and sensor T1')
  })
  test('sensor type and ceiling: what differs is said, and a ceiling above what it stands is not taken', () => {
    expect(matchWords(facts())).toEqual([
      'Set the sensor type: type K thermocouple instead of bead thermistor.',
      'The ceiling of 300 °C may stay: H-08 stands 470 °C (heat break).',
    ])
    const weak = facts({ sameSensor: true, firmware: { wasC: 480, mostC: 300, weakest: 'thermistor' } })
    expect(matchWords(weak)[1]).toBe(
      'Lower the ceiling from 480 °C: H-08 stands 300 °C (thermistor), and must not be heated past it.',
    )
    expect(matchWords(facts({ sameSensor: null, firmware: { ...weak.firmware, wasC: null } }))).toEqual([
      'Whether type K thermocouple is of the type set now cannot be told: look at both before it heats.',
      "H-08 stands 300 °C (thermistor): the firmware's ceiling must not be higher.",
    ])
    const firmware = hotendSteps(weak).find(s => s.key === 'firmware')!
    const faults = (ceilingC: number) => valueFaults(firmware, { sensorType: 'x', ceilingC }).map(f => f.message)
    expect(faults(301)).toEqual(['Between 100 and 300 °C'])
    expect(faults(300)).toEqual([])
    expect(() => hotendSteps(facts({ firmware: { ...weak.firmware, mostC: NaN } }))).toThrow(InputError)
  })
  test('warmer than it may be it is still cooling; a sensor that shows no room is asked about', () => {
    expect(valueFaults(of('cool'), { coldC: COOLED_C[1] + 1 })).toHaveLength(1)
    expect(valueFaults(of('cool'), { coldC: COOLED_C[1] })).toEqual([])
    expect(roomDoubt(facts(), { showsC: 23 + ROOM_FAR_C })).toBeNull()
    // a thermocouple read as a thermistor, or an open lead
    expect(roomDoubt(facts(), { showsC: -15 })).toMatch(/about 23 °C; -15 °C is far from it/)
    expect(roomDoubt(facts(), {})).toBeNull()
  })
  test('proofs count from when it was fitted, not from when this began', () => {
    const proofs = steps.flatMap(s => s.proof ?? [])
    expect(proofs.map(p => [p.guard, p.since])).toEqual(HOTEND_GUARDS.map(g => [g, 'in']))
  })
  test('an empty head has nothing to take off; one that needs no hotter snug is snugged once', () => {
    const keys = hotendSteps(facts({ old: null, resnug: null })).map(s => s.key)
    expect(keys).not.toContain('out')
    expect(keys).not.toContain('resnug')
    expect(new Set(keys).size).toBe(keys.length)
    expect(progress(steps, []).of).toBe(keys.length + 2)
  })
})
