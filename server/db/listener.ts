/**
 * Hears channels of the database on a connection of its own, for as long as it lives. It listens to its own heartbeat
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

interface Channel {
  heard: (text: string) => void
  /** It is listened to again after it was not: something may have been missed. */
  missed: () => void
  begun: boolean
}

export class Listener {
  private client: postgres.Sql | null = null
  private beat: ReturnType<typeof setInterval> | undefined
  private again: ReturnType<typeof setTimeout> | undefined
  private heardAt = 0
  private stopped = false
  private readonly channels = new Map<string, Channel>()
  isListening = false

  /** `silent`: what to do when it was taken for dead without having been closed. */
  constructor(
    private readonly url: string,
    private readonly silent: () => void = () => {},
  ) {
    const own = `iron_nozzle_beat_${randomBytes(6).toString('hex')}`
    this.channels.set(own, { heard: () => {}, missed: () => {}, begun: false })
    void this.open(own)
  }

  hear(name: string, heard: (text: string) => void, missed: () => void = () => {}): this {
    const channel = { heard, missed, begun: false }
    this.channels.set(name, channel)
    // while it is opened all channels are listened to anyway; what goes wrong the heartbeat will tell
    if (this.isListening) void this.listen(this.client!, name, channel).catch(() => {})
    return this
  }

  private async listen(client: postgres.Sql, name: string, channel: Channel): Promise<void> {
    await client.listen(
      name,
      text => {
        this.heardAt = Date.now()
        channel.heard(text)
      },
      // also when the client has made its connection anew by itself
      () => {
        if (this.client !== client) return
        this.heardAt = Date.now()
        if (channel.begun) channel.missed()
        channel.begun = true
      },
    )
  }

  private async open(own: string): Promise<void> {
    if (this.stopped) return
    const client = postgres(this.url, { ...options, max: 1, idle_timeout: 0, max_lifetime: null })
    this.client = client
    this.heardAt = Date.now()
    try {
      for (const [name, channel] of this.channels) await this.listen(client, name, channel)
      if (this.client !== client) return
      this.isListening = true
    } catch {
      if (this.client === client) this.anew(own)
      return
    }
    this.beat = setInterval(() => {
      if (Date.now() - this.heardAt > SILENCE_MS) {
        this.silent()
        this.anew(own)
      } else void client.notify(own, '').catch(() => {})
    }, BEAT_MS)
  }

  private anew(own: string): void {
    clearInterval(this.beat)
    this.isListening = false
    const old = this.client
    this.client = null
    void old?.end({ timeout: 1 }).catch(() => {})
    if (!this.stopped) this.again = setTimeout(() => void this.open(own), AGAIN_MS)
  }

  async stop(): Promise<void> {
    this.stopped = true
    clearInterval(this.beat)
    clearTimeout(this.again)
    await this.client?.end({ timeout: 1 }).catch(() => {})
  }
}
