/** What comes in must be text that can be stored and read again: one rule for bodies, paths and names of fields. */
import type { FieldProblem } from '#shared/problem'

/** An entry is a few levels deep; nothing that a form or a program sends comes near this. */
const DEEPEST = 40

/** Why a text cannot be stored, or null. */
export function textFault(text: string): string | null {
  if (text.includes('\u0000')) return 'There is a NUL character in it, which cannot be stored'
  if (!text.isWellFormed()) return 'There is half of a character in it, which cannot be stored'
  return null
}

/**
 * The first place of a parsed body that cannot be stored. Walks without recursion, so that no nesting is too deep for
 * it.
 */
export function bodyFault(body: unknown): FieldProblem | null {
  const open: { value: unknown; path: string; depth: number }[] = [{ value: body, path: '', depth: 0 }]
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    const { value, path, depth } = at
    if (typeof value === 'string') {
      const message = textFault(value)
      if (message !== null) return { field: path, message }
    } else if (typeof value === 'object' && value !== null) {
      if (depth >= DEEPEST)
        return { field: path.split('.')[0]!, message: `It is nested more than ${DEEPEST} levels deep` }
      for (const [key, inner] of Object.entries(value)) {
        const message = textFault(key)
        if (message !== null)
          return { field: path, message: `The name of a field cannot be stored: ${message.toLowerCase()}` }
        open.push({ value: inner, path: path === '' ? key : `${path}.${key}`, depth: depth + 1 })
      }
    }
  }
  return null
}
