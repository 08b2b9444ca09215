/** Pin gauges in words. */
import { mmNumber } from '#core/words'
import type { PinLine } from '#shared/answers/pins'
import { day } from '#shared/time'
import { um } from '~/words/picture'

type Certificate = PinLine['certificates'][number]

/** The certificate that holds: the latest that was not struck out. */
export const holding = (p: PinLine): Certificate | null => p.certificates.find(c => c.struck === null) ?? null
/** How far a pin is off its nominal, µm: above zero it is large. */
export const offUm = (p: Pick<PinLine, 'nominalMm'>, c: Pick<Certificate, 'sizeMm'>): number =>
  Math.round((c.sizeMm - p.nominalMm) * 1e5) / 100
/** "4 µm small", "1.5 µm large", "as marked". */
export function offWords(p: Pick<PinLine, 'nominalMm'>, c: Pick<Certificate, 'sizeMm'>): string {
  const off = offUm(p, c)
  if (off === 0) return 'as marked'
  return `${um(Math.abs(off))} ${off < 0 ? 'small' : 'large'}`
}
/** "0.416 mm ± 1 µm (k = 2), 4 µm small". */
export const certificateWords = (p: PinLine, c: Certificate): string =>
  `${mmNumber(c.sizeMm, 5)} mm ± ${um(c.uMm * 2000)} (k = 2), ${offWords(p, c)}`
export function heldWords(c: Certificate, zone: string): string {
  const until = c.dueOn === null ? 'without an end' : `holds until ${day(`${c.dueOn}T12:00:00Z`, zone)}`
  return `measured ${day(c.at, zone)}, ${until}`
}
