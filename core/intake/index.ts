/**
 * Intake: tables that a shop brings along, pasted or from a file. Headings in any order are matched with columns, cells
 * are read with their units (kept: g, mm, wt%, g/cm³, N·m), decimals and days as the table writes them, and asked about
 * where they can be two things. What a name alone tells (PA6-CF20, hardened steel 0.4) is a start value.
 *
 * @example
 * const columns = columnsOf('spools')
 * matchHeadings(['Material', 'Net (kg)'], columns) // [{ key: 'material', unit: null }, { key: 'net', unit: 'kg' }]
 * readCell('0,75', columns[3]!, { decimal: ',', order: null }, 'kg') // { value: 750, problem: null }
 */
export { columnsOf, isLogTable, TABLE_NAMES, TABLES } from './columns'
export type { Column, TableKind, TableName } from './columns'
export { looksLikeHeadings, matchHeadings, separatorOf } from './headings'
export type { Heading } from './headings'
export { readCell, writtenBy } from './cells'
export type { Reading, Written } from './cells'
export { filamentOfName, nozzleTypeOfName, startMaterial, startNozzle } from './start'
export type { NamedFilament, StartMaterial } from './start'
export { FIRST_TAG, MOST_ALIKE, nextTags, tagsFrom } from './tags'
