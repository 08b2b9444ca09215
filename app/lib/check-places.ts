/** Where the fact of a check's line is changed: the page, and what its button says. */
import type { CheckPlace } from '#core/precheck'

interface About {
  printerId: number | null
  printer: string | null
  materialId: number | null
  spool: string | null
  nozzle: string | null
  headId: number | null
}
/** Fields of the check itself: the button goes to the field. */
export const ON_THE_PAGE: Partial<Record<CheckPlace, string>> = { file: 'check-job', hours: 'check-hours' }
export const PLACE_SAYS: Record<CheckPlace, string> = {
  'file': 'To the file',
  'hours': 'Enter the hours',
  'material': 'To the filament',
  'stack': 'To the parts',
  'equip': 'Ask Equip',
  'changeover': 'Purge',
  'gauge': 'Gauge',
  'fit': 'Fit another',
  'spool': 'To the spool',
  'dry': 'Dry it',
  'soak': 'Soak',
  'survey': 'Measure it',
  'warm-up': 'Measure it',
  'sensor': 'Check the sensor',
  'change': 'To Change',
  'card': 'See the card',
  'level': 'Level and Z',
  'upkeep': 'To its test',
}

/** The page where it is done; null for what stands on the check itself. */
export function placeUrl(where: CheckPlace, a: About): string | null {
  const printer = encodeURIComponent(a.printer ?? '')
  const spool = encodeURIComponent(a.spool ?? '')
  switch (where) {
    case 'file':
    case 'hours':
      return null
    case 'material':
      return `/equip/materials?m=${a.materialId ?? ''}`
    case 'stack':
      return `/equip/stack/${a.printerId}`
    case 'equip':
      return `/equip?printer=${a.printerId}&filament=${a.materialId ?? ''}&head=${a.headId ?? ''}`
    case 'changeover':
      return `/prepare/changeover?printer=${printer}&to=${a.materialId ?? ''}`
    case 'gauge':
      return a.nozzle === null ? '/inspect' : `/inspect/${encodeURIComponent(a.nozzle)}?gauge=1`
    case 'fit':
      return `/stores?fit=${a.headId ?? ''}`
    case 'spool':
      return a.spool === null ? '/stores' : `/prepare/spool/${spool}`
    case 'dry':
      return `/prepare/spool/${spool}`
    case 'soak':
      return `/prepare/soak?printer=${printer}&filament=${a.materialId ?? ''}`
    case 'survey':
    case 'warm-up':
      return `/verify/chamber?printer=${printer}`
    case 'sensor':
      return `/verify?printer=${printer}`
    case 'card':
      return `/equip/materials?m=${a.materialId ?? ''}#worked`
    case 'level':
      return `/change/level?printer=${printer}`
    case 'upkeep':
      return `/change/upkeep?printer=${printer}`
    case 'change':
      return `/change?printer=${printer}`
    default:
      return where satisfies never
  }
}
