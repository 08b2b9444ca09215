/**
 * News of what was saved: of which table, and whom it concerns. A screen reads again only what may show it. What is not
 * named here concerns everybody, so a table that is added is never missed; tests/e2e/api.spec.ts holds the lists to
 * what every entry really changes.
 */
import type { NewsItem, ShopNews } from './answers/news'
import type { Shop } from './answers/shop'
import type { ReadAnswer, ReadPath } from './api'

const ofSpools = ['spools', 'spool_events', 'dryings'] as const
const ofWork = ['prechecks', 'jobs', 'cases', 'case_findings', 'case_closings', 'anneals', 'check_lines'] as const
const ofBenches = ['flow_benches', 'flow_blobs', 'filament_measures', 'flow_bench_runs'] as const
const ofStudies = ['studies', 'study_readings', 'scales', 'setups'] as const
const ofSteps = ['procedures', 'procedure_ticks', 'service_tags', 'shift_notes', 'z_records'] as const
const ofAir = [
  'soaks',
  'warm_ups',
  'warm_up_places',
  'cool_downs',
  'surveys',
  'enclosure_plans',
  'cut_out_tests',
] as const
const ofBeds = ['beds', 'levels'] as const
const ofUpkeep = ['upkeep_tasks', 'upkeep_entries', 'snoozes', 'calendar_feeds'] as const
const ofShelf = ['pins', 'pin_certificates', 'stock_items', 'stock_moves'] as const
/** Shown on their own pages, and in what is due. */
const ofKeep = [...ofBeds, ...ofUpkeep, ...ofShelf] as const
/** Entries of one nozzle. */
const ofNozzles = ['nozzles', 'gauges', 'fittings', 'run_tools', 'forecasts'] as const

const none = (...lists: (readonly string[])[]) => {
  const known = new Set(lists.flat())
  return (n: NewsItem) => !known.has(n.of)
}
const among = (list: readonly string[], n: NewsItem) => list.includes(n.of)
/** The one that an item is of: the record itself, or what it names. */
const nozzleOf = (n: NewsItem) => (n.of === 'nozzles' ? n.id : n.nozzle)
const spoolOf = (n: NewsItem) => (n.of === 'spools' ? n.id : n.spool)

type Rule<P extends ReadPath> = (n: NewsItem, shown: ReadAnswer<P>) => boolean

// a case of the last job says that somebody looks for what went wrong; what is put off leaves the bench
const floorElse = none(
  ofKeep.filter(k => k !== 'snoozes'),
  ofSpools,
  ofWork.filter(w => w !== 'cases'),
  ofBenches,
  ofStudies,
  ['cards', 'practice_sets', 'dryers', 'changeovers'],
)
const pageElse = none(ofKeep, ofSpools, ofWork, ofSteps, ofAir, [
  'runs',
  'changeovers',
  'sensor_checks',
  'cards',
  'dryers',
])
const equipElse = none(ofKeep, ofSpools, ofWork, ofBenches, ofStudies, ['gauges', 'cards', 'runs'])
const prepareElse = none(ofKeep, ofBenches, ofStudies, ofSteps, [
  'gauges',
  'forecasts',
  'cases',
  'case_findings',
  'case_closings',
  'sensor_checks',
  'surveys',
  'enclosure_plans',
  'cut_out_tests',
  'cards',
  'jobs',
])
const nozzlesElse = none(ofKeep, ofSpools, ofWork, ofBenches, ofStudies, ofSteps, ofAir, [
  'cards',
  'sensor_checks',
  'dryers',
])
const spoolElse = none(ofKeep, ofWork, ofBenches, ofStudies, ofSteps, ofAir, ofNozzles, [
  'runs',
  'cards',
  'sensor_checks',
])
const placesElse = none(ofKeep, ofSpools, ofWork, ofBenches, ofStudies, [
  'gauges',
  'forecasts',
  'run_tools',
  'runs',
  'cards',
])

const stockElse = none(ofSpools, ofWork, ofBenches, ofStudies, ofAir, ofBeds, [
  'snoozes',
  'calendar_feeds',
  'cards',
  'practice_sets',
  'material_values',
  'sensor_checks',
  'pins',
  'pin_certificates',
])
const totalsElse = none(ofSpools, ofWork, ofStudies, ofAir, ofBeds, ofSteps, [
  'snoozes',
  'calendar_feeds',
  'gauges',
  'forecasts',
  'practice_sets',
  'material_values',
  'sensor_checks',
  'pins',
  'pin_certificates',
])

/** What a reading is concerned by, where that is not everything. */
const RULES: { [P in ReadPath]?: Rule<P> } = {
  '/api/floor': (n, shown) =>
    among(['gauges', 'forecasts'], n)
      ? shown.printers.some(p => p.last?.nozzle?.id === n.nozzle || p.heads.some(h => h.nozzle?.id === n.nozzle))
      : floorElse(n),
  '/api/nozzles': n => nozzlesElse(n),
  '/api/nozzles/{tag}': (n, shown) => (among(ofNozzles, n) ? nozzleOf(n) === shown.nozzle.id : pageElse(n)),
  '/api/spools/{tag}': (n, shown) =>
    among(['spools', 'spool_events', 'run_tools'], n) ? spoolOf(n) === shown.state.id : spoolElse(n),
  '/api/prepare': n => prepareElse(n),
  // of what is forecast it shows which spare nozzles are to be had, and nothing else
  '/api/equip': (n, shown) =>
    n.of === 'forecasts'
      ? shown.nozzles.some(x => x.id === n.nozzle) === n.past &&
        !shown.printers.some(p => p.heads.some(h => h.nozzle?.id === n.nozzle))
      : equipElse(n),
  '/api/cards/{id}': n =>
    none(ofKeep, ofSpools, ofWork, ofStudies, ofSteps, ofAir, ['gauges', 'forecasts', 'fittings'])(n),
  '/api/known-tags': n => ['nozzles', 'spools', 'pins'].includes(n.of),
  '/api/jobs': n => n.of === 'jobs',
  '/api/pins': n => ['pins', 'pin_certificates', 'gauges', 'people'].includes(n.of),
  '/api/stock': n => stockElse(n),
  '/api/totals': n => totalsElse(n),
  '/api/verify': n => placesElse(n),
  // how often a guard is tested stands with what is planned
  '/api/chambers': n => n.of === 'upkeep_tasks' || placesElse(n),
  '/api/warm-ups/{id}': n => placesElse(n),
  '/api/setups': n => none(ofKeep, ofSpools, ofWork, ofBenches, ofSteps, ofAir, ofNozzles, ['runs', 'cards'])(n),
  '/api/studies': n => none(ofKeep, ofSpools, ofWork, ofBenches, ofSteps, ofAir, ['runs', 'run_tools', 'cards'])(n),
  '/api/runs': n =>
    none(ofKeep, ofSpools, ofBenches, ofStudies, ofSteps, ofAir, ['gauges', 'forecasts', 'fittings'])(n),
}

/** Readings that are not read again after every save, and the shop, of which lines are told. */
export const TOLD_APART = [...Object.keys(RULES), '/api/shop'] as readonly ReadPath[]

/** Whether a reading may look otherwise after it; `shown` is what it answered last, null while nothing is known. */
export function concerns<P extends ReadPath>(
  path: P,
  shown: ReadAnswer<P> | null,
  items: readonly NewsItem[],
): boolean {
  const rule = RULES[path] as Rule<P> | undefined
  return items.length === 0 || shown === null || rule === undefined || items.some(n => rule(n, shown))
}

/** The list of runs. */
export const runsConcern = (items: readonly NewsItem[]): boolean => items.some(n => RULES['/api/runs']!(n, RUNS))
const RUNS: ReadAnswer<'/api/runs'> = { runs: [], next: null }

const checkElse = none(ofStudies, ofUpkeep, ofShelf, [
  'prechecks',
  'jobs',
  'cases',
  'case_findings',
  'case_closings',
  'anneals',
])
/** A check before a run: what is entered of another printer, nozzle or spool leaves it as it is. */
export function checkConcern(
  items: readonly NewsItem[],
  of: { printer: number | null; nozzle: number | null; spool: number | null },
): boolean {
  const another = (named: number | undefined, mine: number | null) => named !== undefined && named !== mine
  return items.some(
    n =>
      checkElse(n) &&
      !another(n.printer, of.printer) &&
      !(among(ofNozzles, n) && another(nozzleOf(n), of.nozzle)) &&
      !(among(ofSpools, n) && another(spoolOf(n), of.spool)),
  )
}

const NAMED: readonly string[] = ['gauges', 'fittings', 'run_tools', 'forecasts', 'spool_events', 'dryings']
const COUNTED: readonly string[] = ['study_readings']
/** What changes what a printer has on it, or did last. */
const MOVED: readonly string[] = [
  'runs',
  'run_tools',
  'fittings',
  'spool_events',
  'warm_ups',
  'warm_up_places',
  'surveys',
  'sensor_checks',
]
const NOT_OF_SHOP: readonly string[] = [
  ...ofKeep,
  ...ofSteps,
  'sensor_checks',
  ...ofWork,
  ...ofAir,
  ...ofBenches,
  'runs',
  'changeovers',
  'cards',
  'dryers',
]

/** What of the shop's names and numbers news may have changed: nozzles and spools by id, its counts, or anything. */
export function ofShop(items: readonly NewsItem[]): {
  whole: boolean
  counts: boolean
  nozzles: number[]
  spools: number[]
  /** Those whose last job may be another, and whether anything of printers may be. */
  jobsOf: number[]
  printers: boolean
} {
  const ids = (list: (number | undefined)[]) => [...new Set(list.filter(x => x !== undefined))]
  return {
    whole: items.some(n => ![...NAMED, ...COUNTED, ...NOT_OF_SHOP].includes(n.of)),
    counts: items.some(n => COUNTED.includes(n.of)),
    nozzles: ids(items.map(n => (NAMED.includes(n.of) ? n.nozzle : undefined))),
    spools: ids(items.map(n => (NAMED.includes(n.of) ? n.spool : undefined))),
    // the last job of a printer is told with each of its nozzles
    jobsOf: ids(items.map(n => (n.of === 'runs' ? n.printer : undefined))),
    printers: items.some(n => MOVED.includes(n.of)),
  }
}

/** A list by tags with some of its lines told anew. */
function withLines<T extends { id: number; tag: string }>(list: T[], lines: T[]): T[] {
  if (lines.length === 0) return list
  const fresh = new Map(lines.map(l => [l.id, l]))
  return [...list.filter(l => !fresh.has(l.id)), ...lines].sort((a, b) => (a.tag < b.tag ? -1 : 1))
}

/** The shop with the lines that news brought. */
export function shopWith(shop: Shop, { nozzles, spools, printers, counts }: ShopNews): Shop {
  return {
    ...shop,
    ...counts,
    nozzles: withLines(shop.nozzles, nozzles),
    spools: withLines(shop.spools, spools),
    printers: printers ?? shop.printers,
  }
}
