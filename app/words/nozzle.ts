/** Where a nozzle is, for a sentence about it. */
export function whereIs(n: { place: string | null; retired: boolean }): string {
  if (n.place) return `fitted to ${n.place}`
  return n.retired ? 'retired' : 'on the shelf'
}
