/** By the first of their numbers that differs, the larger first; alike in all, by their tags. */
export function byKeys(a: { key: readonly number[]; tag: string }, b: { key: readonly number[]; tag: string }): number {
  const i = a.key.findIndex((k, at) => k !== b.key[at])
  return i < 0 ? a.tag.localeCompare(b.tag) : b.key[i]! - a.key[i]!
}
