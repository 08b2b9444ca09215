/**
 * The face of a label: a square code and lines of text, beside each other on a wide label, one under the other on a
 * square one. mm. The code keeps a quiet zone of four modules (ISO/IEC 18004:2015, 5.3.8, from memory); a module below
 * 0.35 mm is read badly from paper by a phone or a hand scanner (common practice, no source).
 */
import { need } from '../numeric'
import { checkLabel, type LabelSize } from './sheet'

export interface Box {
  xMm: number
  yMm: number
  widthMm: number
  heightMm: number
}
export interface LabelFace {
  code: Box
  text: Box
  /** Height of the tag's letters and of the lines under it, mm. */
  tagMm: number
  lineMm: number
  /** How many lines there is room for under the tag. */
  lines: number
}

const EDGE_MM = 1.5
/** Letters no smaller than this can be read at arm's length, mm; common practice, no source. */
const LEAST_LINE_MM = 2.1
/** The narrowest module that is read well, mm. */
export const LEAST_MODULE_MM = 0.35
/** Quiet zone around a code, modules. */
export const QUIET_MODULES = 4
/** Modules along the side of a code: version 1 to 40. */
const MODULES = [21, 177] as const

/** How a label of that size is laid out. */
export function labelFace(size: LabelSize): LabelFace {
  checkLabel(size)
  const { widthMm, heightMm } = size
  const wide = widthMm >= 1.5 * heightMm
  const inner = { w: widthMm - 2 * EDGE_MM, h: heightMm - 2 * EDGE_MM }
  const side = wide ? Math.min(inner.h, inner.w * 0.5) : Math.min(inner.w, inner.h * 0.72)
  const code = {
    xMm: wide ? EDGE_MM : (widthMm - side) / 2,
    yMm: wide ? (heightMm - side) / 2 : EDGE_MM,
    widthMm: side,
    heightMm: side,
  }
  const text: Box = wide
    ? { xMm: EDGE_MM + side + 1, yMm: EDGE_MM, widthMm: inner.w - side - 1, heightMm: inner.h }
    : { xMm: EDGE_MM, yMm: EDGE_MM + side, widthMm: inner.w, heightMm: inner.h - side }
  const tagMm = wide ? Math.min(8, text.heightMm * 0.34) : Math.min(5, text.heightMm * 0.62)
  const lineMm = Math.max(LEAST_LINE_MM, Math.min(3.4, tagMm * 0.5))
  const lines = Math.max(0, Math.floor((text.heightMm - tagMm * 1.15) / (lineMm * 1.3)))
  return { code, text, tagMm, lineMm, lines }
}

/**
 * Width of one module of a code of so many modules (21 to 177) with its quiet zone on a label, mm: below
 * LEAST_MODULE_MM it is too fine.
 *
 * @example
 * moduleMm({ widthMm: 62, heightMm: 29 }, 29) // 0.703 (mm)
 */
export function moduleMm(size: LabelSize, modules: number): number {
  need('modules', modules, ...MODULES)
  return labelFace(size).code.widthMm / (modules + 2 * QUIET_MODULES)
}

/** Letters of a narrow sans serif are about so wide of their height, plain and bold; common practice, no source. */
const LETTER_WIDE = 0.5
const BOLD_WIDE = 0.62

/** The height of bold letters that lets a text fit into its width, mm: the wanted one where it does. */
export function textMm(text: string, widthMm: number, wantedMm: number): number {
  need('widthMm', widthMm, 0.1, 300, 'mm')
  need('wantedMm', wantedMm, 0.1, 100, 'mm')
  return Math.min(wantedMm, widthMm / Math.max(1, text.length * BOLD_WIDE))
}

/** A text broken between words into lines of letters of that height (mm); a word that is too long stands alone. */
export function wrapped(text: string, widthMm: number, letterMm: number): string[] {
  need('widthMm', widthMm, 0.1, 300, 'mm')
  need('letterMm', letterMm, 0.1, 100, 'mm')
  const most = Math.max(1, Math.floor(widthMm / (letterMm * LETTER_WIDE)))
  const lines: string[] = []
  for (const word of text.split(/\s+/).filter(w => w !== '')) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + 1 + word.length <= most) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}
