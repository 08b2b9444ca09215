/**
 * Labels on paper: how one is laid out, and where each stands on a sheet. mm. An A4 sheet is 210 × 297 mm (ISO 216).
 * Label sizes and margins are those common in the trade, no source.
 */
import { InputError, need } from '../numeric'

export interface LabelSize {
  widthMm: number
  heightMm: number
}
/** Sizes that are offered, mm; others can be typed. */
export const LABEL_SIZES: readonly LabelSize[] = [
  { widthMm: 62, heightMm: 29 },
  { widthMm: 50, heightMm: 25 },
  { widthMm: 25, heightMm: 25 },
]
/** How wide a label can be, mm. */
export const LABEL_WIDTH_MM = [15, 210] as const
/** How high a label can be, mm. */
export const LABEL_HEIGHT_MM = [12, 297] as const
/** An A4 sheet, mm. */
export const A4: LabelSize = { widthMm: 210, heightMm: 297 }

/** Margins and gaps of a sheet, mm. */
export interface SheetGrid {
  leftMm: number
  topMm: number
  gapXMm: number
  gapYMm: number
}
/** Margins of a sheet, mm. */
export const MARGIN_MM = [0, 100] as const
/** Gaps between labels, mm. */
export const GAP_MM = [0, 50] as const
/** Most labels that are laid out at once. */
export const MOST_LABELS = 1000

/** Refuses a label of no size, or of one that no label has. */
export function checkLabel({ widthMm, heightMm }: LabelSize): void {
  need('widthMm', widthMm, ...LABEL_WIDTH_MM, 'mm')
  need('heightMm', heightMm, ...LABEL_HEIGHT_MM, 'mm')
}

/** Columns and rows of such labels on an A4 sheet; at least one of each, or it is refused. */
export function gridOf(size: LabelSize, g: SheetGrid): { columns: number; rows: number } {
  checkLabel(size)
  need('leftMm', g.leftMm, ...MARGIN_MM, 'mm')
  need('topMm', g.topMm, ...MARGIN_MM, 'mm')
  need('gapXMm', g.gapXMm, ...GAP_MM, 'mm')
  need('gapYMm', g.gapYMm, ...GAP_MM, 'mm')
  const fits = (paper: number, margin: number, label: number, gap: number) =>
    Math.floor((paper - margin + gap + 1e-9) / (label + gap))
  const columns = fits(A4.widthMm, g.leftMm, size.widthMm, g.gapXMm)
  const rows = fits(A4.heightMm, g.topMm, size.heightMm, g.gapYMm)
  if (columns < 1) throw new InputError('leftMm', g.leftMm, `at most ${A4.widthMm - size.widthMm} mm for this label`)
  if (rows < 1) throw new InputError('topMm', g.topMm, `at most ${A4.heightMm - size.heightMm} mm for this label`)
  return { columns, rows }
}

/** Margins that put as many labels as fit into the middle of the sheet, without gaps. */
export function middleGrid(size: LabelSize): SheetGrid {
  const { columns, rows } = gridOf(size, { leftMm: 0, topMm: 0, gapXMm: 0, gapYMm: 0 })
  const half = (paper: number, label: number, n: number) => Math.floor(((paper - n * label) / 2) * 10) / 10
  return {
    leftMm: half(A4.widthMm, size.widthMm, columns),
    topMm: half(A4.heightMm, size.heightMm, rows),
    gapXMm: 0,
    gapYMm: 0,
  }
}

export interface LabelPlace {
  page: number
  xMm: number
  yMm: number
}

/**
 * Where each of `count` labels (1 to 1000) stands, row by row, the first at place `from` (1 is the upper left: places
 * before it are used already). Pages from 0.
 *
 * @example
 * const grid = { leftMm: 5, topMm: 8, gapXMm: 0, gapYMm: 0 }
 * labelPlaces({ widthMm: 100, heightMm: 140 }, grid, 4, 1) // [{"page":0,"xMm":105,"yMm":148}]
 */
export function labelPlaces(size: LabelSize, g: SheetGrid, from: number, count: number): LabelPlace[] {
  const { columns, rows } = gridOf(size, g)
  need('from', from, 1, columns * rows)
  need('count', count, 1, MOST_LABELS)
  return Array.from({ length: Math.floor(count) }, (_, i) => {
    const place = Math.floor(from) - 1 + i
    const onPage = place % (columns * rows)
    return {
      page: Math.floor(place / (columns * rows)),
      xMm: g.leftMm + (onPage % columns) * (size.widthMm + g.gapXMm),
      yMm: g.topMm + Math.floor(onPage / columns) * (size.heightMm + g.gapYMm),
    }
  })
}
