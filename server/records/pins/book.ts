/** Pins by their marks, with their standing certificates: what gauges made with them count by. */
import { sql } from 'drizzle-orm'
import { BORE_U_MM, countedPin, isPinPair, type PinCertificate, type PinSize } from '#core/wear'
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

interface Counted {
  go: PinSize | null
  noGo: PinSize | null
}
/** The sizes of a reading's pins by their certificates; null where a pin counts as typed. */
export function certifiedPins(g: Pair, at: Date, book: PinBook): Counted {
  return { go: certified(g.goPin, g.goMm, at, book), noGo: certified(g.noGoPin, g.noGoMm, at, book) }
}
/** Whether they are still a pair by what they measure. */
export const isCertifiedPair = (g: Pair, { go, noGo }: Counted): boolean =>
  isPinPair(go?.sizeMm ?? g.goMm, noGo?.sizeMm ?? g.noGoMm)

/** The sizes that a reading counts with. Two pins that by their certificates are no pair count as typed. */
export function countedPins(g: Pair, at: Date, book: PinBook): Counted {
  const counted = certifiedPins(g, at, book)
  return isCertifiedPair(g, counted) ? counted : { go: null, noGo: null }
}

function certified(mark: string | null, typedMm: number | null, at: Date, book: PinBook): PinSize | null {
  const pin = mark === null ? undefined : book.get(keyOfMark(mark))
  const size = typedMm === null || pin === undefined ? null : countedPin(pin, typedMm, at.getTime())
  return size && { ...size, uMm: Math.max(size.uMm, BORE_U_MM[0]) }
}
