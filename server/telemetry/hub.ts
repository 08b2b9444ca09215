/**
 * What every printer reports now. Addresses come from the environment: PRINTER_LINKS, JSON of printer name and address;
 * BALANCE_LINK, FINE_BALANCE_LINK, MICROSCOPE_LINK and THERMOMETER_LINK; and STAND_INS=1 when they are the stand-ins
 * that ship with the app. A printer is read by one process (leases.ts); what it reads is told to the others.
 */
import type { Live } from '#shared/answers/live'
import { parseAddress, watch, type Watch } from './link'
import { readReport } from './report'

type Hearer = (live: Live) => void

export class Hub {
  private readonly state = new Map<string, Live>()
  private readonly hearers = new Set<Hearer>()
  private readonly watches = new Map<string, Watch>()
  /** Tells the other processes. */
  publish: Hearer = () => {}

  constructor(
    readonly links: Readonly<Record<string, string>>,
    readonly balance: string | null,
    readonly standIns: boolean,
    readonly microscope: string | null = null,
    readonly thermometer: string | null = null,
    readonly fineBalance: string | null = null,
    private readonly now: () => Date = () => new Date(),
  ) {
    for (const printer of Object.keys(links))
      this.state.set(printer, { printer, heads: [], bed: null, chamber: null, at: null, lostSince: null })
  }

  /** Reads all of them, as the only process. */
  start(everyMs = 2000): void {
    for (const printer of Object.keys(this.links)) this.take(printer, everyMs)
  }

  /** This process reads the printer from now on. */
  take(printer: string, everyMs = 2000): void {
    const address = this.links[printer]
    if (address === undefined || this.watches.has(printer)) return
    this.watches.set(
      printer,
      watch(
        address,
        'M105',
        line => this.heard(printer, line),
        () => this.lost(printer),
        { everyMs },
      ),
    )
  }

  /** Another process reads it from now on. */
  give(printer: string): void {
    this.watches.get(printer)?.stop()
    this.watches.delete(printer)
  }

  /** What another process has read. */
  told(live: Live): void {
    if (live.printer in this.links && !this.watches.has(live.printer)) this.show(live)
  }

  /** Tells the others once more what this process reads: one that has just started knows nothing yet. */
  repeat(): void {
    for (const printer of this.watches.keys()) this.publish(this.state.get(printer)!)
  }

  reads(printer: string): boolean {
    return this.watches.has(printer)
  }

  private heard(printer: string, line: string): void {
    const report = readReport(line)
    if (report) this.tell({ printer, ...report, at: this.now().toISOString(), lostSince: null })
    else this.lost(printer)
  }

  private lost(printer: string): void {
    const before = this.state.get(printer)!
    if (before.lostSince !== null) return
    this.tell({ printer, heads: [], bed: null, chamber: null, at: before.at, lostSince: this.now().toISOString() })
  }

  private tell(live: Live): void {
    this.show(live)
    this.publish(live)
  }

  private show(live: Live): void {
    this.state.set(live.printer, live)
    for (const h of this.hearers) h(live)
  }

  all(): Live[] {
    return [...this.state.values()]
  }
  hear(hearer: Hearer): () => void {
    this.hearers.add(hearer)
    return () => {
      this.hearers.delete(hearer)
    }
  }
  stop(): void {
    for (const w of this.watches.values()) w.stop()
    this.watches.clear()
    this.hearers.clear()
  }
}

/** Links as written in the environment; a mistake there is said at the start and leaves that link out. */
export function linksFrom(
  env: Record<string, string | undefined>,
  say: (text: string) => void,
): {
  links: Record<string, string>
  balance: string | null
  microscope: string | null
  thermometer: string | null
  fineBalance: string | null
  standIns: boolean
} {
  const links: Record<string, string> = {}
  const take = (what: string, address: unknown) => {
    try {
      parseAddress(String(address))
      return String(address)
    } catch (e) {
      say(`${what}: ${(e as Error).message}`)
      return null
    }
  }
  let given: unknown = {}
  try {
    given = JSON.parse(env.PRINTER_LINKS ?? '{}')
  } catch {
    say('PRINTER_LINKS is not JSON like {"Ribble":"192.0.2.7:8899"}')
  }
  for (const [name, address] of Object.entries(given as Record<string, unknown>)) {
    const a = take(`PRINTER_LINKS, ${name}`, address)
    if (a) links[name] = a
  }
  return {
    links,
    balance: env.BALANCE_LINK ? take('BALANCE_LINK', env.BALANCE_LINK) : null,
    microscope: env.MICROSCOPE_LINK ? take('MICROSCOPE_LINK', env.MICROSCOPE_LINK) : null,
    fineBalance: env.FINE_BALANCE_LINK ? take('FINE_BALANCE_LINK', env.FINE_BALANCE_LINK) : null,
    thermometer: env.THERMOMETER_LINK ? take('THERMOMETER_LINK', env.THERMOMETER_LINK) : null,
    standIns: env.STAND_INS === '1',
  }
}
