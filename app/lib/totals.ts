/** Totals as they are shown: measures, names of weeks and months, sums, and their table. */
import { isoWeek } from '#core/totals'
import type { Totals, TotalsSpent, TotalsSums } from '#shared/answers/totals'

type Cell = TotalsSums & { spent: TotalsSpent | null }

export const MEASURES = {
  extruded: { name: 'Filament', unit: 'kg', of: (s: TotalsSums) => s.extrudedG / 1000 },
  filled: { name: 'Filled filament', unit: 'kg', of: (s: TotalsSums) => s.filledG / 1000 },
  fibre: { name: 'Fibre', unit: 'kg', of: (s: TotalsSums) => s.fibreG / 1000 },
  hours: { name: 'Hours', unit: 'h', of: (s: TotalsSums) => s.hours },
  runs: { name: 'Runs', unit: 'runs', of: (s: TotalsSums) => s.runs },
  failed: { name: 'Failed', unit: 'runs', of: (s: TotalsSums) => s.failed },
  /** In the shop's own currency; of materials, which share their nozzles, it cannot be told. */
  money: { name: 'Money', unit: null, of: (s: Cell) => s.spent?.cost ?? 0 },
} as const
export type Measure = keyof typeof MEASURES

/** "W48, 23 Nov", "Nov 2026". */
export function periodName(from: string, per: Totals['per']): string {
  const at = new Date(`${from}T12:00:00Z`)
  const text = (o: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat('en-GB', { ...o, timeZone: 'UTC' }).format(at)
  return per === 'month'
    ? text({ month: 'short', year: 'numeric' })
    : `W${isoWeek(from).week}, ${text({ day: 'numeric', month: 'short' })}`
}

/** Groups drawn by themselves; the others stand together. */
const DRAWN = 5
/** A measure of each period, by the largest groups of it and by all others. */
export function seriesOf(t: Totals, measure: Measure): { name: string; values: number[] }[] {
  const { of } = MEASURES[measure]
  const valuesOf = (cells: readonly Cell[]) =>
    t.periods.map(p => {
      const cell = cells.find(c => c.from === p.from)
      return cell ? of(cell) : 0
    })
  const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0)
  const all = t.groups
    .map(g => ({ name: g.name, values: valuesOf(g.cells) }))
    .filter(s => sum(s.values) > 0)
    .sort((a, b) => sum(b.values) - sum(a.values))
  // one alone stands under its own name
  const rest = all.length > DRAWN + 1 ? all.slice(DRAWN) : []
  const others = t.periods.map((_, i) => sum(rest.map(s => s.values[i]!)))
  return [
    ...all.slice(0, all.length - rest.length),
    ...(rest.length > 0 ? [{ name: `${rest.length} others`, values: others }] : []),
  ]
}

/** What was spent together; null of materials, whose it cannot be told. */
function spentTogether(cells: readonly Cell[]): TotalsSpent | null {
  const each = cells.flatMap(c => (c.spent === null ? [] : [c.spent]))
  if (each.length < cells.length) return null
  const of = (k: keyof TotalsSpent) => each.reduce((s, c) => s + c[k], 0)
  return { retired: of('retired'), cost: of('cost'), unpriced: of('unpriced') }
}

/** Cells of one group, or periods of the shop, together. Nozzles are not added: the same one may print in several. */
export function together(cells: readonly Cell[]): Omit<Cell, 'from' | 'nozzles'> {
  const of = (k: Exclude<keyof TotalsSums, 'from'>) => cells.reduce((s, c) => s + c[k], 0)
  return {
    runs: of('runs'),
    failed: of('failed'),
    extrudedG: of('extrudedG'),
    filledG: of('filledG'),
    fibreG: of('fibreG'),
    hours: of('hours'),
    withoutHours: of('withoutHours'),
    spent: spentTogether(cells),
  }
}

/** Every cell as a line of a table, its units in the headings. */
export function totalsTable(t: Totals): { fields: string[]; data: (string | number)[][] } {
  const line = (name: string, s: Cell) => [
    s.from,
    name,
    s.runs,
    s.failed,
    Number(s.extrudedG.toFixed(1)),
    Number(s.filledG.toFixed(1)),
    Number(s.fibreG.toFixed(1)),
    Number(s.hours.toFixed(2)),
    s.withoutHours,
    s.nozzles,
    ...(s.spent === null ? ['', '', ''] : [s.spent.retired, Number(s.spent.cost.toFixed(2)), s.spent.unpriced]),
  ]
  return {
    fields: [
      `${t.per} from`,
      t.by,
      'runs',
      'failed',
      'filament, g',
      'filled filament, g',
      'fibre, g',
      'hours, h',
      'runs without hours',
      'nozzles that printed',
      'nozzles retired',
      `cost, ${t.currency || 'money'}`,
      'prices not entered',
    ],
    data: [...t.periods.map(p => line('all', p)), ...t.groups.flatMap(g => g.cells.map(c => line(g.name, c)))],
  }
}
