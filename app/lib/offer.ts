/** What is said of a head on which nothing can begin: something is under way, or it must not be; null where it can. */
export function heldUp(o: { under: { title: string } | null; refusal: { says: string } | null }) {
  if (o.under) return { mark: 'look' as const, text: `${o.under.title} is under way.` }
  return o.refusal && { mark: 'stop' as const, text: o.refusal.says }
}
