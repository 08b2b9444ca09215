/** Which column is which: by its heading, whatever the order, the case and the unit that stands beside it. */
import type { Column } from './columns'

export interface Heading {
  /** The column it names; null where none is known by it. */
  key: string | null
  /** A unit that the heading gives for the whole column: "net (kg)". */
  unit: string | null
}

const bare = (t: string) =>
  t
    .toLowerCase()
    .replace(/[._\-/#:*]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()

/** The name and the unit of a heading: "Net weight (kg)", "net [kg]", "net, kg" and "net in kg" are the same. */
function parts(heading: string, columns: readonly Column[]): { name: string; unit: string | null } {
  const units = new Set(columns.flatMap(c => Object.keys(c.units ?? {})))
  const m = /^(.*?)[\s,]*(?:\(([^()]*)\)|\[([^[\]]*)\]|(?:,|\bin\b|\s)\s*(\S+))\s*$/.exec(heading.trim())
  const unit = (m?.[2] ?? m?.[3] ?? m?.[4] ?? '').trim().toLowerCase()
  return m && units.has(unit) ? { name: bare(m[1]!), unit } : { name: bare(heading), unit: null }
}

/**
 * Headings matched with the columns of a table, each column at most once. A heading is the key, the label or one of the
 * other names of its column; what no column is known by stays null.
 */
export function matchHeadings(headings: readonly string[], columns: readonly Column[]): Heading[] {
  const taken = new Set<string>()
  const named = headings.map(h => parts(h, columns))
  const out: Heading[] = named.map(n => ({ key: null, unit: n.unit }))
  // a column's own name before its other ones: "type" is the type of a nozzle, whatever else is also called so
  const own = (c: Column) => [bare(c.key), bare(c.label)]
  for (const names of [own, (c: Column) => c.also.map(bare)])
    for (const [i, n] of named.entries()) {
      if (out[i]!.key !== null || n.name === '') continue
      const c = columns.find(x => !taken.has(x.key) && names(x).includes(n.name))
      if (!c) continue
      taken.add(c.key)
      out[i]!.key = c.key
    }
  return out
}

/** Whether a first line is one of headings: at least half of what it says is known, or none of it could be data. */
export function looksLikeHeadings(line: readonly string[], columns: readonly Column[]): boolean {
  const said = line.filter(c => c.trim() !== '')
  const known = matchHeadings(line, columns).filter(h => h.key !== null).length
  return known > 0 && known >= said.length / 2
}

/** What separates the cells of a text, by its first line: a tab, else a semicolon, else a comma. */
export function separatorOf(text: string): '\t' | ';' | ',' {
  const first = text.split(/\r\n|\r|\n/).find(l => l.trim() !== '') ?? ''
  if (first.includes('\t')) return '\t'
  return first.includes(';') ? ';' : ','
}
