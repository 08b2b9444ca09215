/** Pins by their marks, with their standing certificates: what gauges made with them count by. */
import { sql } from 'drizzle-orm'
import { BORE_U_MM, checkPinPair, isOfPin, pinAt, type PinCertificate, type PinSize } from '#core/wear'
import { InputError } from '#core/numeric'
import type { Connection } from '../../db/client'

export interface BookedPin {
  id: number
  mark: string
  nominalMm: number
  withdrawn: boolean
  certificates: PinCertificate[]
}
export type PinBook = ReadonlyMap<string, BookedPin>
export const keyOfMark = (mark: string) => mark.trim().toLowerCase()

export async function pinBook(db: Connection): Promise<PinBook> {
  const pins = await db.execute<Omit<BookedPin, 'certificates'> & Record<string, unknown>>(
    sql`select id, mark, nominal_mm "nominalMm", withdrawn from pins`,
  )
  if (pins.length === 0) return new Map()
  const certificates = await db.execute<{ pinId: number; atMs: number; sizeMm: number; uMm: number }>(sql`
    select pin_id "pinId", (extract(epoch from occurred_at) * 1000)::float8 "atMs", size_mm "sizeMm", u_mm "uMm"
    from standing_pin_certificates order by occurred_at, id`)
  return new Map(
    pins.map(p => [
      keyOfMark(p.mark),
      { ...p, certificates: certificates.filter(c => c.pinId === p.id).map(({ pinId: _, ...c }) => c) },
    ]),
  )
}

interface Pair {
  goMm: number | null
  noGoMm: number | null
  goPin: string | null
  noGoPin: string | null
}

/**
 * The sizes that a reading counts with: by the certificates of its pins where they have one, as typed otherwise. A pin
 * whose mark is used for another size, and two pins that by their certificates are no pair, count as typed.
 */
export function countedPins(g: Pair, at: Date, book: PinBook): { go: PinSize | null; noGo: PinSize | null } {
  const go = certified(g.goPin, g.goMm, at, book)
  const noGo = certified(g.noGoPin, g.noGoMm, at, book)
  try {
    checkPinPair(go?.sizeMm ?? g.goMm, noGo?.sizeMm ?? g.noGoMm)
    return { go, noGo }
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    return { go: null, noGo: null }
  }
}

function certified(mark: string | null, typedMm: number | null, at: Date, book: PinBook): PinSize | null {
  const pin = mark === null ? undefined : book.get(keyOfMark(mark))
  if (typedMm === null || pin === undefined || !isOfPin(typedMm, pin.nominalMm, pin.certificates)) return null
  const size = pinAt(pin.certificates, at.getTime())
  return size && { ...size, uMm: Math.max(size.uMm, BORE_U_MM[0]) }
}
