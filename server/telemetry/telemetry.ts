/** The hub of this process, what it tells and hears of the others, and keeping what printers report while they soak. */
import { sql } from 'drizzle-orm'
import { live } from '#shared/answers/live'
import { keepReading, soakingPrinters } from '../records/prepare/soaks'
import { Hub, linksFrom } from './hub'
import { Leases } from './leases'
import { database, directUrl, listener } from '../db/database'

/** Reports of printers, from the process that reads one to the others. */
const REPORTS = 'iron_nozzle_live'
const REPEAT_MS = 5000

interface Running {
  hub: Hub
  leases: Leases
  timer: ReturnType<typeof setInterval>
}
let running: Running | null = null

export function theHub(): Hub {
  running ??= begun()
  return running.hub
}

function begun(): Running {
  const { links, balance, microscope, thermometer, fineBalance, standIns } = linksFrom(process.env, t =>
    console.error(t),
  )
  const hub = new Hub(links, balance, standIns, microscope, thermometer, fineBalance)
  const everyMs = standIns ? 1000 : 2000
  hub.publish = report => {
    void database()
      .then(db => db.execute(sql`select pg_notify(${REPORTS}, ${JSON.stringify(report)})`))
      .catch(() => {
        /* the database is away: the others hear the next one */
      })
  }
  const leases = new Leases(
    directUrl(),
    links,
    printer => hub.take(printer, everyMs),
    printer => hub.give(printer),
  )
  listener().hear(REPORTS, text => {
    const report = live.safeParse(JSON.parse(text))
    if (report.success) hub.told(report.data)
  })
  return { hub, leases, timer: setInterval(() => hub.repeat(), REPEAT_MS) }
}

export async function stopHub(): Promise<void> {
  if (running === null) return
  const { hub, leases, timer } = running
  running = null
  clearInterval(timer)
  hub.stop()
  await leases.stop()
}

/** Keeps one reading each ten seconds of every printer that soaks, of those that this process reads. */
export async function keepReadings(): Promise<void> {
  const hub = theHub()
  const heard = hub.all().filter(l => l.at !== null && l.lostSince === null && hub.reads(l.printer))
  if (heard.length === 0) return
  const db = await database()
  const soaking = await soakingPrinters(db)
  if (soaking.length === 0) return
  const rows = await db.execute<{ id: number; name: string }>(sql`select id, name from printers`)
  for (const l of heard) {
    const printer = rows.find(r => r.name === l.printer)
    if (printer && soaking.includes(printer.id))
      await keepReading(db, printer.id, new Date(l.at!), l.bed?.nowC ?? null, l.chamber?.nowC ?? null)
  }
}
