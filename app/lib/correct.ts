/** Correcting a refused entry at the fields that were refused, whatever kind of entry it is. */
import type { FieldProblem } from '#shared/problem'
import { keptNumber, shareUnit, shownNumber } from '#shared/share'
import { typedNumber } from '~/words/numbers'
import { plain } from '~/lib/plain'

export interface Correctable {
  path: string
  label: string
  text: string
  message: string
}

type Body = Record<string, unknown>

/** Where a path like `parts.0.limitC` leads; undefined when it leads nowhere that can be typed. */
function place(body: Body, path: string): { in: Body; key: string } | undefined {
  const keys = path.split('.')
  const key = keys.pop()!
  let at: unknown = body
  for (const k of keys) at = typeof at === 'object' && at !== null ? (at as Body)[k] : undefined
  const value = typeof at === 'object' && at !== null ? (at as Body)[key] : undefined
  return value === null || typeof value === 'number' || typeof value === 'string' ? { in: at as Body, key } : undefined
}

/** Units at the end of a field's name. */
const UNITS: Record<string, string> = { C: '°C', G: 'g', Kg: 'kg', Mm: 'mm', Mm3: 'mm³', H: 'h', S: 's', Wt: 'wt%' }
const spaced = (name: string) => name.replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`)

/** `setC` as a person reads it: "set, °C"; places in lists count from 1. */
function labelOf(path: string): string {
  return path
    .split('.')
    .map(k => {
      if (/^\d+$/.test(k)) return String(Number(k) + 1)
      const per = shareUnit(k)
      if (per !== null) return `${spaced(k.replace(/Fraction$/, ''))}, ${per}`
      const [, name, unit] = /^(.*[a-z])(Mm3|Mm|Kg|Wt|C|G|H|S)$/.exec(k) ?? []
      return name && unit ? `${spaced(name)}, ${UNITS[unit]!}` : spaced(k)
    })
    .join(', ')
}

/** The refused fields whose value a person can type. */
export function correctable(body: Body, errors: FieldProblem[]): Correctable[] {
  return errors.flatMap(e => {
    const at = place(body, e.field)
    if (!at) return []
    const kept = at.in[at.key]
    const text = String((typeof kept === 'number' ? shownNumber(e.field, kept) : kept) ?? '')
    return [{ path: e.field, label: labelOf(e.field), text, message: e.message }]
  })
}

/**
 * The entry with what was typed in its fields: a number where there was one, or where there was nothing and a number is
 * typed.
 */
export function corrected(body: Body, typed: Record<string, string>): Body {
  const out = plain(body)
  for (const [path, text] of Object.entries(typed)) {
    const at = place(out, path)
    if (!at) continue
    const before = at.in[at.key]
    const number = typedNumber(text)
    const asNumber = typeof before !== 'string' && !Number.isNaN(number)
    at.in[at.key] = asNumber ? keptNumber(path, number) : text
  }
  return out
}
