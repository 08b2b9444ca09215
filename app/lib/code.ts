/** The square code of a text as one path of its dark modules, one unit each, with its quiet zone. */
import { create } from 'qrcode'
import { QUIET_MODULES } from '#core/labels'

export interface Code {
  /** Modules along its side without the quiet zone. */
  modules: number
  /** With it. */
  side: number
  path: string
}

export function codeFor(text: string): Code {
  // about 15 % of it may be lost to a scratch or a fold (ISO/IEC 18004, level M, from memory)
  const { modules } = create(text, { errorCorrectionLevel: 'M' })
  const rows = Array.from({ length: modules.size }, (_, y) => y)
  const path = rows
    .flatMap(y => rows.filter(x => modules.get(y, x)).map(x => `M${x + QUIET_MODULES} ${y + QUIET_MODULES}h1v1h-1z`))
    .join('')
  return { modules: modules.size, side: modules.size + 2 * QUIET_MODULES, path }
}
