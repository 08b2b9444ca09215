/**
 * A plain copy of what a form holds. Unlike JSON it keeps NaN, so that text which is no number is refused and not
 * dropped.
 */
export function plain<T>(v: T): T {
  if (Array.isArray(v)) return v.map(plain) as T
  if (v !== null && typeof v === 'object')
    return Object.fromEntries(Object.entries(v).map(([k, x]) => [k, plain(x)])) as T
  return v
}
