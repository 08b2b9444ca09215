import { describe, expect, test } from 'vitest'
import PrinterColumn from '~/components/floor/PrinterColumn.vue'
import { columnWidth, lanesIn, NARROW, rowsOf, spreadOf, WIDE } from '~/components/floor/axis'
import NozzleSection from '~/components/inspect/NozzleSection.vue'
import RunTool from '~/components/run/RunTool.vue'
import { newTool } from '~/components/run/tool-form'
import LifeBar from '~/components/ui/LifeBar.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import AirParts from '~/components/verify/AirParts.vue'
import { shown, words } from './support'

const limit = (zone: string, limitC: number, part: string, headId: number | null = null) => ({
  id: 1,
  zone,
  headId,
  limitC,
  fineC: limitC,
  shortC: limitC,
  of: 'setpoint',
  inAir: false,
  heaterOff: false,
  part,
  basis: 'data sheet',
  note: '',
  enteredBy: null,
  enteredAt: null,
})
const printer = {
  id: 1,
  name: 'Ribble',
  kind: 'enclosed',
  heads: [{ id: 11, name: 'head', askedC: 275, nozzle: null }],
  limits: [limit('hotend', 230, 'PTFE liner', 11), limit('bed', 110, 'bed heater')],
  last: {
    runId: 7,
    name: 'bracket',
    endedAt: '2026-11-24T09:40:00.000Z',
    outcome: 'finished',
    symptoms: [],
    material: 'PA6-CF20',
    fibreG: 62,
    bedC: 100,
    chamberC: null,
    stopped: null,
    nozzle: null,
    lookedAt: false,
  },
  verdict: 'stop',
}

describe('a column of the wall', () => {
  const column = (more: object = {}) =>
    shown(PrinterColumn, {
      props: {
        printer: { ...printer, ...more },
        zone: 'UTC',
        live: null,
        lost: null,
        lanes: WIDE,
        spread: 1,
        notes: [],
      } as never,
    })
  const said = (w: ReturnType<typeof column>) =>
    w
      .findAll('svg[role=img]')
      .map(x => x.attributes('aria-label'))
      .join(' | ')
  test('says each lane with its limit, its part and what was asked', () => {
    expect(said(column())).toContain('nozzle: limit 230 °C, PTFE liner; last job asked 275 °C, too much')
    expect(said(column())).toContain('bed: limit 110 °C, bed heater; last job asked 100 °C')
  })
  test('an open frame has no chamber to fill', () => {
    expect(said(column())).not.toContain('chamber')
    expect(said(column({ limits: [...printer.limits, limit('chamber', 65, 'belts')] }))).toContain('chamber: limit 65')
  })
  test('a limit that nobody entered is said, and nothing is green for it', () => {
    expect(said(column({ limits: [] }))).toContain('nozzle: no limit entered')
  })
  test.each([
    ['stop', 'Stopped'],
    ['look', 'Look'],
    ['fine', 'Fine'],
  ])('its mark %s has its word beside it', (verdict, word) => expect(words(column({ verdict }))).toContain(word))
  test('what it reports now fills its lane', () => {
    const live = { printer: 'Ribble', heads: [{ nowC: 212.4, setC: 250 }], bed: null, chamber: null }
    const w = shown(PrinterColumn, {
      props: { printer, zone: 'UTC', live, lost: null, lanes: WIDE, spread: 1, notes: [] } as never,
    })
    expect(said(w)).toContain('; now 212 °C')
  })
})

describe('the width of the wall', () => {
  const three = [printer, printer, printer] as never as Parameters<typeof spreadOf>[0]
  const own = columnWidth(three[0]!, WIDE, 1)
  test('few printers take all of it, many none of it, and one not more than it can use', () => {
    const spread = spreadOf(three, WIDE, 900)
    expect(3 * columnWidth(three[0]!, WIDE, spread)).toBeGreaterThan(895)
    expect(3 * columnWidth(three[0]!, WIDE, spread)).toBeLessThanOrEqual(900)
    expect(spreadOf(three, WIDE, 200)).toBe(1)
    expect(columnWidth(three[0]!, WIDE, spreadOf(three.slice(0, 1), WIDE, 5000))).toBe(3 * own)
    expect(spreadOf([], WIDE, 900)).toBe(1)
  })
  test('on paper they stand in rows as wide as a page, each printer in one', () => {
    const rows = rowsOf([...three, ...three], WIDE, 4.5 * own)
    expect(rows.map(r => r.length)).toEqual([4, 2])
    expect(rowsOf(three, WIDE, 10).map(r => r.length)).toEqual([1, 1, 1])
    expect(rowsOf([], WIDE, 700)).toEqual([[]])
  })
  test('its lanes fill it; as narrow as it must be they are as they were', () => {
    expect(lanesIn(three[0]!, WIDE, own)).toEqual(WIDE)
    expect(lanesIn(three[0]!, NARROW, columnWidth(three[0]!, NARROW, 1))).toEqual(NARROW)
    const wide = lanesIn(three[0]!, WIDE, 300)
    expect(wide.step * 2).toBeLessThanOrEqual(300 - 16)
    expect(wide.bar).toBeGreaterThan(WIDE.bar)
    expect(wide.bar).toBeLessThan(wide.step)
  })
})

describe('the section of a nozzle', () => {
  const section = (more: object = {}) =>
    shown(NozzleSection, {
      props: {
        coneDeg: 60,
        tipFlatMm: 1,
        landMm: 0.8,
        inletMm: 2,
        lengthMm: 12.5,
        insertMm: null,
        material: 'hardened steel',
        nominalMm: 0.4,
        fittedMm: 0.4,
        bore: { median: 0.43, low80: 0.425, high80: 0.436, low95: 0.42, high95: 0.44 },
        tipLossMm: 0.08,
        limitMm: 0.44,
        ...more,
      } as never,
    })
  test('says bore, bore as fitted and tip loss with their units', () =>
    expect(section().get('svg').attributes('aria-label')).toBe(
      'Half-section: bore 0.430 mm now, 0.400 as fitted, tip loss 0.08 mm',
    ))
  test('a tip loss that is not known is not drawn', () => {
    const w = section({ tipLossMm: null })
    expect(w.get('svg').attributes('aria-label')).not.toContain('tip loss')
    expect(w.html()).not.toMatch(/NaN|undefined/)
  })
  test('every path is of numbers', () => {
    for (const p of section({ insertMm: 1.2, material: 'ruby tip' }).findAll('path'))
      expect(p.attributes('d') ?? '').not.toMatch(/NaN|undefined|Infinity/)
  })
})

test('a bar of life says its range, and nothing where nothing is known', () => {
  const left = { median: 0.43, low80: 0.2, high80: 0.9 }
  const label = (props: object) =>
    shown(LifeBar, { props: { label: 'N-014', width: 200, ...props } as never }).attributes('aria-label')
  expect(label({ left })).toBe('N-014: 0.43 kg, 80 % between 0.20 and 0.90 kg')
  expect(label({ left: null })).toBe('N-014: not known yet')
})
test('a bar of life gets smaller where there is less room: all that is drawn lies within what is shown', () => {
  const left = { median: 99, low80: 55, high80: 140 }
  const bar = shown(LifeBar, { props: { label: 'N-030', width: 150, left, after: 100 } as never })
  const [, , width, height] = bar.attributes('viewBox')!.split(' ').map(Number)
  expect([width, height]).toEqual([150, 16])
  const reach = (at: string | undefined, wide: string | undefined) => Number(at) + Number(wide)
  for (const r of bar.findAll('rect')) expect(reach(r.attributes('x'), r.attributes('width'))).toBeLessThanOrEqual(150)
  for (const p of bar.findAll('path')) expect(Number(/^M([\d.]+)/.exec(p.attributes('d')!)![1])).toBeLessThan(150)
})
test.each(['fine', 'look', 'stop'])('the mark %s is named', verdict =>
  expect(shown(VerdictMark, { props: { verdict } }).attributes('aria-label')).toBe(verdict),
)

describe('one tool of a run', () => {
  const props = {
    modelValue: newTool(0),
    index: 2,
    byFile: false,
    heads: [{ value: 1, text: 'head' }],
    nozzles: [{ value: 1, text: 'N-014' }],
    spools: [{ value: null, text: 'no spool' }],
    materials: [{ value: 1, text: 'PA6-CF20' }],
    errors: { 'tools.2.amount.grams': 'At least 0.01 g' },
    effect: '312 g PA6-CF20, 62.4 g fibre through N-014',
    life: null,
  }
  test('an error of its amount stands at its amount, and the effect before the save', () => {
    const w = shown(RunTool, { props })
    expect(words(w)).toContain('At least 0.01 g')
    expect(w.get('[role=status]').text()).toContain('62.4 g fibre')
  })
  test('amounts of a job file are not typed; a single head is not asked for', () => {
    const w = shown(RunTool, { props: { ...props, byFile: true, fileSets: true } })
    expect(words(w)).not.toContain('Extruded')
    expect(words(w)).not.toContain('Head')
    expect(words(w)).toContain('Tool 0')
  })
  test('another spool is the form’s to take', async () => {
    const w = shown(RunTool, { props: { ...props, spools: [...props.spools, { value: 7, text: 'S-07' }] } })
    const select = w.get<HTMLSelectElement>('#run-spool-2')
    select.element.selectedIndex = 1
    await select.trigger('change')
    expect(w.emitted('spool')).toEqual([[7]])
  })
})

test('by a survey that does not hold no part is fine; what falls short still does', () => {
  const part = (status: string, id: number) => ({
    line: { part: { id, name: 'idler' }, asked: 60, u90: 2, allowed: 80, status },
    place: 'high',
  })
  const marks = (holds: boolean) =>
    shown(AirParts, { props: { parts: [part('short', 1), part('just', 2), part('ok', 3)], roomC: 23, holds } })
      .findAllComponents(VerdictMark)
      .map(m => m.props('verdict'))
  expect(marks(true)).toEqual(['stop', 'look', 'fine'])
  expect(marks(false)).toEqual(['stop', 'look', 'look'])
})
