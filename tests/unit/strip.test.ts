import { describe, expect, test } from 'vitest'
import { checks } from '~/lib/checks'
import { completions } from '~/strip/complete'
import { understand } from '~/strip/parse'
import type { StripShop } from '~/strip/grammar'
import { fittingSchema } from '#shared/entries/printers'
import { gaugeSchema } from '#shared/entries/nozzles'
import { runSchema } from '#shared/entries/runs'
import { spoolEventSchema } from '#shared/entries/spools'

const at = '2026-11-20T12:00:00.000Z'
const shop = {
  printers: [
    { id: 1, name: 'Ribble', heads: [{ id: 11, name: 'head', nozzleId: 14, nozzle: 'N-014', hotend: 'H-01' }] },
    {
      id: 2,
      name: 'Swale',
      heads: [
        { id: 21, name: 'high flow', nozzleId: 30, nozzle: 'N-030' },
        { id: 22, name: 'hot', nozzleId: null, nozzle: null, hotend: null },
      ],
    },
  ],
  nozzles: [
    { id: 14, tag: 'N-014', typeName: 'hardened steel 0.4', place: 'Ribble', headId: 11, retired: false },
    { id: 30, tag: 'N-030', typeName: 'tungsten carbide 0.6', place: 'Swale', headId: 21, retired: false },
    { id: 33, tag: 'N-033', typeName: 'hardened steel 0.4', place: null, headId: null, retired: false },
  ],
  hotends: [
    { id: 1, tag: 'H-01', headId: 11 },
    { id: 8, tag: 'H-08', headId: null },
  ],
  spools: [{ id: 7, tag: 'S-07', material: 'PA6-CF20' }],
  known: { nozzles: ['X-001', 'N-014'], spools: ['S-01'], pins: ['P-42'] },
  materials: [
    { id: 3, name: 'PA6-CF20' },
    { id: 4, name: 'PLA glow' },
  ],
} as unknown as StripShop
test('of what was retired or used up long ago the page is opened, and nothing else is said', () => {
  expect(read('x-001')).toEqual({ kind: 'open', says: 'Open X-001: retired', path: '/inspect/X-001' })
  expect(read('S-01')).toMatchObject({ kind: 'open', path: '/prepare/spool/S-01' })
  expect(read('X-001 bore 0.43-0.44')).toMatchObject({ kind: 'more' })
  expect(completions('X-0', shop)).toContain('X-001')
})

const known = await checks()
const read = (line: string) => understand(line, shop, at, known)
const body = (line: string) => {
  const u = read(line)
  if (u.kind !== 'entry') throw new Error(`${line}: ${JSON.stringify(u)}`)
  return u
}

describe('what it understands', () => {
  test('pins, with point or comma, and the sentence before Enter', () => {
    const u = body('n-014 bore 0,43-0,44')
    expect(u.says).toBe('Gauge N-014: 0.43 goes, 0.44 does not')
    expect(gaugeSchema.parse(u.body)).toMatchObject({ nozzleId: 14, goMm: 0.43, noGoMm: 0.44, occurredAt: at })
  })
  test.each([
    ['N-014 bore 0.434±0.005', { valueMm: 0.434, uMm: 0.005 }],
    ['N-014 bore 0.434+-0.005', { valueMm: 0.434, uMm: 0.005 }],
    ['N-014 bore >0.43', { goMm: 0.43, noGoMm: null }],
    ['N-014 bore <0.44 tip 12.47', { noGoMm: 0.44, tipMm: 12.47 }],
    ['N-014 tip 12,47±0.02', { tipMm: 12.47, tipUMm: 0.02 }],
    ['N-014 oval loose-insert', { shape: ['oval', 'loose insert'] }],
  ])('%s', (line, want) => expect(gaugeSchema.parse(body(line).body)).toMatchObject(want))
  test.each([
    [
      'Ribble +312g PA6-CF20 9.5h',
      {
        printerId: 1,
        hours: 9.5,
        tools: [{ headId: 11, nozzleId: 14, materialId: 3, spoolId: null, amount: { kind: 'grams', grams: 312 } }],
      },
    ],
    [
      'ribble 1,2kg s-07 280C failed',
      { outcome: 'failed', tools: [{ spoolId: 7, setC: 280, amount: { kind: 'grams', grams: 1200 } }] },
    ],
    ['Ribble +104m pla-glow', { tools: [{ materialId: 4, amount: { kind: 'metres', metres: 104 } }] }],
    ['Swale high-flow +50g PA6-CF20', { tools: [{ headId: 21, nozzleId: 30 }] }],
  ])('%s', (line, want) => expect(runSchema.parse(body(line).body)).toMatchObject(want))
  test('fit, remove, retire', () => {
    expect(body('fit N-033 Ribble').says).toBe('Fit N-033 to Ribble; N-014 comes off')
    expect(fittingSchema.parse(body('fit N-033 Swale hot').body)).toMatchObject({
      kind: 'fit',
      nozzleId: 33,
      headId: 22,
    })
    expect(fittingSchema.parse(body('remove N-014').body)).toMatchObject({ kind: 'remove', nozzleId: 14 })
    expect(fittingSchema.parse(body('retire N-014 worn oval').body)).toMatchObject({
      kind: 'retire',
      reason: 'worn oval',
    })
  })
  test('swap opens the steps, with the nozzle that is named', () => {
    expect(read('swap Ribble N-033')).toEqual({
      kind: 'open',
      says: 'Swap on Ribble, step by step: N-014 out, N-033 in',
      path: '/change/swap?head=11&nozzle=33',
    })
    expect(read('swap Swale hot')).toMatchObject({ kind: 'open', path: '/change/swap?head=22' })
  })
  test('and of a hotend that is named', () => {
    expect(read('swap ribble h-08')).toEqual({
      kind: 'open',
      says: 'Change the hotend on Ribble, step by step: H-01 off, H-08 on',
      path: '/change/hotend?head=11&hotend=8',
    })
    expect(read('swap Swale hot H-08')).toMatchObject({ says: expect.stringContaining('none is on, H-08 on') })
  })
  test('wrong opens a case on a printer, also one without a nozzle', () => {
    expect(read('wrong Ribble')).toMatchObject({
      path: '/inspect/wrong?head=11',
      says: 'Say what is wrong on Ribble, N-014',
    })
    expect(read('wrong n-014')).toMatchObject({ path: '/inspect/wrong?head=11' })
    expect(read('wrong')).toMatchObject({ kind: 'more' })
    expect(read('wrong Ribble now')).toMatchObject({ kind: 'unread' })
  })
  test('bench opens its plan on a printer, on a head of it, or where a nozzle sits', () => {
    const onRibble = { kind: 'open', path: '/inspect/bench?head=11' }
    expect(read('bench Ribble')).toMatchObject({ ...onRibble, says: 'Plan a flow bench on Ribble, N-014' })
    expect(read('bench n-014')).toMatchObject(onRibble)
    expect(read('bench Swale high-flow')).toMatchObject({ path: '/inspect/bench?head=21' })
  })
  test('spools, with or without the word', () => {
    expect(spoolEventSchema.parse(body('spool S-07 out').body)).toMatchObject({ spoolId: 7, kind: 'out' })
    expect(spoolEventSchema.parse(body('S-07 in').body)).toMatchObject({ spoolId: 7, kind: 'in' })
    expect(spoolEventSchema.parse(body('spool S-07 dried 12h 70C').body)).toMatchObject({
      kind: 'dried',
      hours: 12,
      atC: 70,
    })
    const gone = body('spool S-07 thrown-away')
    expect(spoolEventSchema.parse(gone.body)).toMatchObject({ spoolId: 7, kind: 'thrown away' })
    expect(body('spool S-07 dried').says).toContain('as usual')
    // what the door would refuse is said before it is sent
    expect(read('spool S-07 dried 4h 218C')).toMatchObject({
      kind: 'more',
      says: expect.stringMatching(/At most .* °C/),
    })
    expect(read('spool S-07 weighed 90kg')).toMatchObject({ kind: 'more', says: expect.stringContaining('At most') })
    expect(read('Ribble +0g PA6-CF20')).toMatchObject({ kind: 'more', says: expect.stringContaining('At least') })
    expect(spoolEventSchema.parse(body('s-07 weighed 812g').body)).toMatchObject({ kind: 'weighed', grossG: 812 })
  })
  test.each([
    ['S-07 812 g', { spoolId: 7, kind: 'weighed', grossG: 812 }],
    ['S-07 812g', { kind: 'weighed', grossG: 812 }],
    ['spool S-07 weighed 0,812 kg', { kind: 'weighed', grossG: 812 }],
    ['S-07 dried 12 h 70 C', { kind: 'dried', hours: 12, atC: 70 }],
  ])('numbers and their units may stand apart: %s', (line, want) =>
    expect(spoolEventSchema.parse(body(line).body)).toMatchObject(want),
  )
  test('with spaces: a run, pins, a value', () => {
    const grams = (line: string) => runSchema.parse(body(line).body)
    const run = { hours: 9.5, tools: [{ spoolId: 7, setC: 280, amount: { kind: 'grams', grams: 40 } }] }
    for (const line of [
      'Ribble +40 g S-07 9.5 h 280 °C',
      'Ribble + 40 g S-07 9,5h 280 C',
      'Ribble 40 g S-07 9.5 h 280C',
    ])
      expect(grams(line), line).toMatchObject(run)
    expect(body('N-014 bore 0.43 - 0.44').body).toMatchObject({ goMm: 0.43, noGoMm: 0.44 })
    expect(body('N-014 bore 0.434 ± 0.005 tip 12.47 mm').body).toMatchObject({
      valueMm: 0.434,
      uMm: 0.005,
      tipMm: 12.47,
    })
    expect(body('N-014 bore > 0.43').body).toMatchObject({ goMm: 0.43 })
    expect(read('S-07 +40 g')).toMatchObject({ kind: 'more', says: expect.stringContaining('Ribble +40 g S-07') })
    // what cannot be read is marked whole
    expect(read('S-07 weighed 12 m')).toMatchObject({ kind: 'unread', word: '12 m', from: 13 })
  })
  test('a nozzle that sits elsewhere says what it leaves', () =>
    expect(body('fit N-014 Swale hot').says).toBe('Fit N-014 to Swale (hot); N-014 leaves Ribble'))
  test('one pin: the hint names the next one up, never one below', () => {
    for (const [line, pins] of [
      ['N-014 bore 0.66', '0.66-0.67'],
      ['N-014 bore 0,4 mm', '0.4-0.41'],
    ] as const) {
      const u = read(line)
      expect(u).toMatchObject({ kind: 'unread', why: expect.stringContaining(`two pins (${pins})`) })
      expect(read(`N-014 bore ${pins}`).kind).toBe('entry') // the hint itself can be typed
    }
  })
  test('the code of a label is its tag, whatever address it stands under; a pin opens its line', () => {
    expect(read('http://shop.example:3000/t/N-014')).toMatchObject({ kind: 'open', path: '/inspect/N-014' })
    expect(read('http://shop.example:3000/t/N-014 bore 0.43-0.44')).toMatchObject({
      kind: 'entry',
      route: '/api/gauges',
    })
    expect(read('p-42')).toMatchObject({ kind: 'open', path: '/stores/pins?show=P-42' })
    expect(read('http://shop.example/else')).toMatchObject({ kind: 'unread' })
  })
  test('a tag alone opens its page', () =>
    expect(read('N-014')).toMatchObject({ kind: 'open', path: '/inspect/N-014' }))
})

describe('what it cannot read', () => {
  test.each([
    ['N-014 bore 0.43-0.44 tpi', 'tpi', 21],
    ['Ribbel +3g', 'Ribbel', 0],
    ['N-014 bore 0.44-0.43', '0.44-0.43', 11],
    ['N-014 bore 0.43', '0.43', 11],
    ['N-014 tip long', 'long', 10],
    ['Ribble +312g PA66 9h', 'PA66', 13],
    ['fit N-033 Rible', 'Rible', 10],
    ['fit N-33', 'N-33', 4],
    ['fit N-033 Ribble cold', 'cold', 17],
    ['swap Ribble N-99', 'N-99', 12],
    ['swap Swale cold', 'cold', 11],
    ['bench N-033', 'N-033', 6],
    ['bench Ribble now', 'now', 13],
    ['bench Swale cold', 'cold', 12],
    ['fit N-033 Swale cold', 'cold', 16],
    ['spool S-07 lost', 'lost', 11],
    ['S-07 weighed heavy', 'heavy', 13],
    ['S-07 dried long', 'long', 11],
    ['S-07 out now', 'now', 9],
  ])('%s', (line, word, from) => expect(read(line)).toMatchObject({ kind: 'unread', word, from }))
  test.each([
    'Ribble',
    'Ribble +312g',
    'Ribble PA6-CF20',
    'Swale +3g PA6-CF20',
    'Swale hot +3g PA6-CF20',
    'fit',
    'fit N-033',
    'fit N-033 Swale',
    'swap',
    'swap Swale',
    'bench',
    'bench Swale',
    'retire N-014',
    'spool',
    'spool S-07',
    'S-07 weighed',
    'N-014 bore',
  ])('%s: says what is still needed', line => {
    expect(read(line).kind).toBe('more')
  })
  test('nothing', () => expect(read('   ')).toEqual({ kind: 'empty' }))
})

test('completions: tags first, then what may follow', () => {
  expect(completions('N-0', shop)).toEqual(['N-014', 'N-030', 'N-033'])
  expect(completions('ri', shop)).toEqual(['Ribble'])
  expect(completions('N-014 b', shop)).toEqual(['bore'])
  expect(completions('Ribble +3g pa', shop)).toEqual(['PA6-CF20'])
  expect(completions('spool s', shop)).toContain('S-07')
  expect(completions('fit 33', shop)).toEqual(['N-033'])
  expect(completions('swap Ribble h', shop)).toContain('H-08')
  expect(completions('swap Ribble h', shop)).not.toContain('H-01')
  expect(completions('fit h', shop)).not.toContain('H-08')
  expect(completions('Swale +3 g PA6-CF20 2 h', shop)).toEqual([])
  expect(completions('Swale h', shop)).toContain('hot')
  expect(completions('N-014 ', shop)).toEqual([])
})
