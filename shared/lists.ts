/** The lists that can be taken out as tables, and what each is. */
export const LIST_WORDS = {
  'printers': 'Printers',
  'parts': 'Parts and their limits',
  'nozzle-types': 'Nozzle types',
  'nozzles': 'Nozzles',
  'hotends': 'Hotends',
  'materials': 'Materials',
  'material-values': 'Values of materials',
  'spools': 'Spools',
  'people': 'People',
  'runs': 'Runs',
  'gauges': 'Gauges',
  'fittings': 'Nozzles fitted and taken off',
  'spool-events': 'What happened to spools',
  'weighings': 'Weighings',
  'dryings': 'Dryings',
  'sensor-checks': 'Sensor checks',
  'procedures': 'Procedures',
  'cases': 'Cases of a wrong print',
} as const
export type ListName = keyof typeof LIST_WORDS
export const LIST_NAMES = Object.keys(LIST_WORDS) as [ListName, ...ListName[]]
/** By what lists can be narrowed: of one nozzle, spool, printer. */
export const LIST_FILTERS = ['nozzle', 'spool', 'printer'] as const
export type ListFilter = (typeof LIST_FILTERS)[number]
