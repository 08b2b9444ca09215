/** Labels beside marks of a drawing, so that none lies over another or over a mark. */

export interface Labelled {
  x: number
  y: number
  /** Its widest line, and how many, as drawn. */
  width: number
  lines: number
}
export interface LabelPlace {
  x: number
  y: number
  anchor: 'start' | 'end'
}
const LINE = 15
const BESIDE = 13
const MARK = 9

type Box = [left: number, top: number, right: number, bottom: number]
const overlap = (a: Box, b: Box) =>
  Math.max(0, Math.min(a[2], b[2]) - Math.max(a[0], b[0])) * Math.max(0, Math.min(a[3], b[3]) - Math.max(a[1], b[1]))

/** Where each label stands, of its baseline: beside its mark, on the side and height that hides the least. */
export function labelPlaces(of: readonly Labelled[], left: number, right: number): LabelPlace[] {
  const taken: Box[] = of.map(m => [m.x - MARK, m.y - MARK, m.x + MARK, m.y + MARK])
  return of.map(m => {
    const candidates = [-5, 14, -24, 26, -40].flatMap(dy =>
      (['start', 'end'] as const).map(anchor => {
        const x = anchor === 'start' ? m.x + BESIDE : m.x - BESIDE
        const from = anchor === 'start' ? x : x - m.width
        const y = m.y + dy
        const box: Box = [from, y - 12, from + m.width, y + (m.lines - 1) * LINE + 3]
        const out = Math.max(0, left - box[0]) + Math.max(0, box[2] - right)
        return { x, y, anchor, box, cost: taken.reduce((a, t) => a + overlap(t, box), 0) + out * LINE }
      }),
    )
    const best = candidates.reduce((a, b) => (b.cost < a.cost - 1e-9 ? b : a))
    taken.push(best.box)
    return { x: best.x, y: best.y, anchor: best.anchor }
  })
}
