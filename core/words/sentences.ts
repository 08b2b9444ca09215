/** Pieces of sentences. */

/** "a", "a or b", "a, b, or c". */
export function listed(words: readonly string[], last: 'or' | 'and' = 'or'): string {
  if (words.length <= 1) return words[0] ?? ''
  return `${words.slice(0, -1).join(', ')}${words.length > 2 ? ',' : ''} ${last} ${words[words.length - 1]}`
}
/** With a capital at its start. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
/** "1 run", "3 runs". */
export const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`
/** A zone of a printer as a technician says it: the hotend's lane is the nozzle's. */
export const zoneWord = (zone: 'hotend' | 'bed' | 'chamber'): string => (zone === 'hotend' ? 'nozzle' : zone)
