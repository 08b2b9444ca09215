/**
 * Hears a channel of the database on a connection of its own, for as long as it lives. It listens to its own heartbeat
 * too: a connection that is dead without having said so, or that came back and listens no more, is given up and made
 * anew.
 */
import { randomBytes } from 'node:crypto'
import postgres from 'postgres'
import { options } from './client'

const BEAT_MS = 1500
/** Without its own heartbeat for so long it is taken for dead. */
const SILENCE_MS = 4000
const AGAIN_MS = 500

export class Listener {
  private client: postgres.Sql | null = null
  private beat: ReturnType<typeof setInterval> | undefined
  private again: ReturnType<typeof setTimeout> | undefined
  private heardAt = 0
  private stopped = false
  private begun = false
  isListening = false
  private readonly own = `iron_nozzle_beat_${randomBytes(6).toString('hex')}`

  constructor(
    private readonly url: string,
    private readonly channel: string,
    private readonly heard: (text: string) => void,
    /** It listens again after it did not: news may have been missed. */
    private readonly missed: () => void,
  ) {
    void this.open()
  }

  private async open(): Promise<void> {
    if (this.stopped) return
    const client = postgres(this.url, { ...options, max: 1, idle_timeout: 0, max_lifetime: null })
    this.client = client
    this.heardAt = Date.now()
    try {
      await client.listen(
        this.channel,
        text => this.heard(text),
        // also when the client has made its connection anew by itself
        () => this.listens(client),
      )
      await client.listen(this.own, () => {
        this.heardAt = Date.now()
      })
      if (this.client !== client) return
      this.isListening = true
    } catch {
      if (this.client === client) this.anew()
      return
    }
    this.beat = setInterval(() => {
      if (Date.now() - this.heardAt > SILENCE_MS) this.anew()
      else void client.notify(this.own, '').catch(() => {})
    }, BEAT_MS)
  }

  private listens(client: postgres.Sql): void {
    if (this.client !== client) return
    this.heardAt = Date.now()
    if (this.begun) this.missed()
    this.begun = true
  }

  private anew(): void {
    clearInterval(this.beat)
    this.isListening = false
    const old = this.client
    this.client = null
    void old?.end({ timeout: 1 }).catch(() => {})
    if (!this.stopped) this.again = setTimeout(() => void this.open(), AGAIN_MS)
  }

  async stop(): Promise<void> {
    this.stopped = true
    clearInterval(this.beat)
    clearTimeout(this.again)
    await this.client?.end({ timeout: 1 }).catch(() => {})
  }
}
