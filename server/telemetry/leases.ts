/**
 * Which process reads a printer: the one that holds its lease, an advisory lock of a database session that lives
 * as long as the process. When it dies the lock is free at once, and another takes it at its next try. While the
 * database is away a reader goes on: nobody else could have taken its place; when it is back it must win its lease.
 */
import postgres from 'postgres'
import { options } from '../db/client'

const EVERY_MS = 2000
const LOCKS = 720_419

export class Leases {
  private readonly client: postgres.Sql
  private readonly held = new Set<string>()
  private session: number | null = null
  private timer: ReturnType<typeof setTimeout> | undefined
  private stopped = false

  constructor(
    url: string,
    /** Printers by their names, each with its address: the lease is of the device there. */
    private readonly links: Readonly<Record<string, string>>,
    private readonly gained: (name: string) => void,
    private readonly lost: (name: string) => void,
    private readonly everyMs = EVERY_MS,
  ) {
    // one session for all of them, never given up by itself
    this.client = postgres(url, { ...options, max: 1, idle_timeout: 0, max_lifetime: null })
    void this.round()
  }

  has(name: string): boolean {
    return this.held.has(name)
  }

  private async round(): Promise<void> {
    try {
      await this.ask()
    } catch {
      /* the database is away: who reads goes on, and nobody begins */
    }
    if (!this.stopped) this.timer = setTimeout(() => void this.round(), this.everyMs)
  }

  private async ask(): Promise<void> {
    const [now] = await this.client<{ session: number }[]>`select pg_backend_pid() session`
    // another session holds nothing of what the one before it held
    const isNew = now!.session !== this.session
    const wanted = Object.keys(this.links).filter(n => isNew || !this.held.has(n))
    if (wanted.length === 0) return
    const addresses = wanted.map(n => this.links[n]!)
    const rows = await this.client<{ session: number; name: string; got: boolean }[]>`
      select pg_backend_pid() session, name, pg_try_advisory_lock(hashtextextended(concat(name, ' ', at), ${LOCKS})) got
      from unnest(${wanted}::text[], ${addresses}::text[]) x (name, at)`
    if (rows[0]!.session !== now!.session) {
      this.session = null // it broke in between: all is asked again
      return
    }
    this.session = now!.session
    for (const { name, got } of rows) {
      if (got === this.held.has(name) || this.stopped) continue
      if (got) {
        this.held.add(name)
        this.gained(name)
      } else {
        this.held.delete(name)
        this.lost(name)
      }
    }
  }

  async stop(): Promise<void> {
    this.stopped = true
    clearTimeout(this.timer)
    await this.client.end({ timeout: 1 }).catch(() => {})
  }
}
