/** The hub of this process, and keeping what printers report while they soak. */
import { sql } from 'drizzle-orm'
import { keepReading, soakingPrinters } from '../records/prepare/soaks'
import { Hub, linksFrom } from './hub'
import { database } from '../db/database'

let hub: Hub | null = null

export function theHub(): Hub {
  if (hub === null) {
    const { links, balance, microscope, thermometer, fineBalance, standIns } = linksFrom(process.env, t =>
      console.error(t),
    )
    hub = new Hub(links, balance, standIns, microscope, thermometer, fineBalance)
    hub.start(standIns ? 1000 : 2000)
  }
  return hub
}

export function stopHub(): void {
  hub?.stop()
  hub = null
}

/** Keeps one reading each ten seconds of every printer that soaks. */
export async function keepReadings(): Promise<void> {
  const live = theHub()
    .all()
    .filter(l => l.at !== null && l.lostSince === null)
  if (live.length === 0) return
  const db = await database()
  const soaking = await soakingPrinters(db)
  if (soaking.length === 0) return
  const rows = await db.execute<{ id: number; name: string }>(sql`select id, name from printers`)
  for (const l of live) {
    const printer = rows.find(r => r.name === l.printer)
    if (printer && soaking.includes(printer.id))
      await keepReading(db, printer.id, new Date(l.at!), l.bed?.nowC ?? null, l.chamber?.nowC ?? null)
  }
}
