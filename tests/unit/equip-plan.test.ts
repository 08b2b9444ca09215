/** From what was tried on the drawing to the entry that is stored, and the forms of parts and practices. */
import { describe, expect, test } from 'vitest'
import { after, compile, findChanges, partOf, START_RULES, type Swap } from '#core/limits'
import { changeSchema, detailsSchema } from '#shared/entries/printers'
import { practiceSetFields } from '#shared/entries/materials'
import { plain } from '~/lib/plain'
import { money } from '#core/words'
import { askingOf, changeOf, demandsOf, NO_SET, setsOf } from '~/lib/changes'
import { KIND_GROUPS, partFieldsOf } from '~/components/equip/part-fields'
import { emptySet, SET_FIELDS, setOfForm, setToForm } from '~/components/equip/set-fields'
import { asks, nozzle, printer } from './limits-support'

const lined = () =>
  printer('open frame', nozzle('brass', 0.4), {
    'no ventilation': 'particle and carbon filter',
    'filament dryer, 55': 'filament dryer, 70',
  })
const shelf = {
  shelf: [partOf('all-metal heat break', 700), partOf('hardened gears', 701)],
  nozzles: [nozzle('hardened steel', 0.6, { id: 5, tag: 'N-005', headId: null })],
  prices: {},
}
const found = (offers = shelf) =>
  findChanges(compile(lined(), 0, offers, START_RULES), [asks('PA6', 'carbon fibre')])!.swaps
const entryOf = (swaps: readonly Swap[], p = lined()) => {
  const { entry, toReceive } = changeOf(p, 0, swaps)
  return {
    entry,
    toReceive,
    valid: changeSchema.safeParse({ printerId: 1, text: 'a change', occurredAt: new Date().toISOString(), ...entry })
      .success,
  }
}

describe('tried swaps as an entry', () => {
  test('shelf parts are fitted by their record, old ones come off, the nozzle is fitted', () => {
    const { entry, toReceive, valid } = entryOf(found())
    const role = (id: number) => lined().parts.find(p => p.id === id)!.role
    expect(entry.remove!.map(role).sort()).toEqual(['gears', 'heat break', 'liner'])
    expect(entry.fit).toEqual(
      expect.arrayContaining([
        { partId: 700, headId: 0 },
        { partId: 701, headId: 0 },
      ]),
    )
    expect(entry.add).toEqual([])
    expect(entry.nozzles).toEqual([{ nozzleId: 5, headId: 0 }])
    expect(toReceive).toEqual([])
    expect(valid).toBe(false) // head 0 of the drawing is no record; with a real id it is taken
  })
  test('bought parts are described, a nozzle that is not there is to be received first', () => {
    const { entry, toReceive } = entryOf(found({ ...shelf, shelf: [], nozzles: [] }))
    expect(entry.add!.map(a => a.kind).sort()).toEqual(['all-metal heat break', 'hardened gears'])
    expect(entry.fit).toEqual([])
    expect(entry.nozzles).toEqual([])
    expect(toReceive).toEqual(['hardened steel 0.6'])
  })
  test('a freed tube is the same tube led otherwise, and the lid that it displaces comes off with it', () => {
    const p = printer(
      'bed-heated enclosure',
      undefined,
      { 'ventilated room': 'particle and carbon filter', 'printed parts, PETG': 'printed parts, PC', 'camera': null },
      { 'PTFE feed tube': { details: { bendMm: 30, freedBendMm: 120, freedNeedsLidOff: true } } },
    )
    const swaps = findChanges(compile(p, 0, { shelf: [], nozzles: [], prices: {} }, START_RULES), [
      asks('PA6', 'carbon fibre', 0),
    ])!.swaps
    const { entry } = entryOf(swaps, p)
    expect(entry.remove!.map(id => p.parts.find(x => x.id === id)!.role).sort()).toEqual(['feed tube', 'lid'])
    expect(entry.add).toMatchObject([{ kind: 'PTFE feed tube', details: { bendMm: 120 } }])
    // also when only the tube was ticked: the lid is in its way
    expect(
      entryOf(
        swaps.filter(s => s.role === 'feed tube'),
        p,
      ).entry.remove,
    ).toHaveLength(2)
    expect(after(p, 0, swaps).parts.some(x => x.role === 'lid')).toBe(false)
  })
  test('nothing tried is nothing changed', () => {
    expect(entryOf([]).entry).toEqual({ remove: [], fit: [], add: [], nozzles: [] })
  })
})

describe('materials as the limits take them', () => {
  const row = {
    id: 1,
    name: 'X',
    polymer: 'PA6',
    filler: 'carbon fibre',
    fillerFraction: 0.2,
    ventilation: null,
    values: [
      { key: 'nozzleMinC', value: 260 },
      { key: 'nonsense', value: 1 },
    ],
    sets: [],
  } as never
  test('unknown facts are left out, a material without practices asks for everything', () => {
    expect(askingOf(row)).toEqual({
      name: 'X',
      polymer: 'PA6',
      filler: 'carbon fibre',
      ventilation: null,
      facts: { nozzleMinC: 260 },
    })
    expect(setsOf(row)).toEqual([NO_SET])
    expect(demandsOf(row)[0]).toMatchObject({ nozzleMinC: 260, bedMinC: null, dryMinC: null, diameterMm: 1.75 })
  })
  test('withdrawn practices are not offered', () => {
    const set = { ...NO_SET, name: 'a', withdrawn: false }
    expect(
      setsOf({ ...(row as object), sets: [set, { ...set, name: 'b', withdrawn: true }] } as never).map(s => s.name),
    ).toEqual(['a'])
  })
  test("amounts in the shop's currency, with honest digits", () => {
    expect([money(1234.6, ''), money(12.34, 'u'), money(4.24, ''), money(0, 'u')]).toEqual([
      '1235',
      '12 u',
      '4.2',
      '0 u',
    ])
  })
})

describe('forms', () => {
  test('a practice set goes into its form and comes back the same', () => {
    const set = {
      ...NO_SET,
      name: 'enclosed',
      bedMinC: 100,
      bedMaxC: 120,
      dryMinC: 70,
      surfaces: ['PEI + glue stick', 'glass'],
      withdrawn: false,
    }
    expect(practiceSetFields.parse(setOfForm(setToForm(set)))).toEqual(practiceSetFields.parse(set))
    expect(
      practiceSetFields.safeParse(
        setOfForm({ ...emptySet(), name: 'x', dryMinC: 60, surfaces: ' pei ,, Glass+glue stick ' }),
      ),
    ).toMatchObject({ success: true, data: { surfaces: ['PEI', 'glass + glue stick'] } })
    const wrong = practiceSetFields.safeParse(setOfForm({ ...emptySet(), name: 'x', surfaces: 'PEI, grey mat' }))
    expect(wrong.error!.issues).toMatchObject([{ path: ['surfaces'] }])
    expect(wrong.error!.issues[0]!.message).toContain('"grey mat" is none of the surfaces')
    expect(SET_FIELDS.map(f => f.key).sort()).toEqual(Object.keys(practiceSetFields.shape).sort())
  })
  test('every detail of a part that a form asks for can be stored, and every role has its form', () => {
    for (const g of KIND_GROUPS) {
      const fields = partFieldsOf(g.role)
      expect(fields.map(f => f.key)).toEqual(expect.arrayContaining(['name', 'basis', 'note']))
      for (const f of fields)
        if (f.key.startsWith('details.')) expect(Object.keys(detailsSchema.shape)).toContain(f.key.slice(8))
      // what its kinds come with can be edited there, except what only the catalogue sets
      for (const k of g.kinds)
        for (const d of Object.keys(k.details ?? {}))
          if (!['mains', 'countMicrovolt'].includes(d))
            expect(
              fields.map(f => f.key),
              `${k.key} ${d}`,
            ).toContain(`details.${d}`)
    }
  })
})

test('text that is no number stays visible as such in what is sent', () => {
  const copy = plain({ a: [{ limitC: NaN }], b: null, c: 'x', d: undefined })
  expect(copy.a[0]!.limitC).toBeNaN()
  expect(copy).toMatchObject({ b: null, c: 'x' })
  expect(practiceSetFields.safeParse(setOfForm(plain({ ...emptySet(), name: 'x', dryMinC: NaN })))).toMatchObject({
    success: false,
  })
})
