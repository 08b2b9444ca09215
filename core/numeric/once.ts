/**
 * A table that is worked out when it is first asked for, and kept: what is only loaded, as a page of which another part
 * is shown, costs nothing.
 */
export function once<T>(make: () => T): () => T {
  let made: { value: T } | null = null
  return () => (made ??= { value: make() }).value
}
