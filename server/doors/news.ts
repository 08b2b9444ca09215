/**
 * News of saves, for open screens: PostgreSQL's LISTEN on one connection per process, fanned out to the browsers that
 * listen. Nothing is kept: a screen that missed some reads anew.
 */
import type postgres from 'postgres'

type Hearer = (what: string) => void
const hearers = new Set<Hearer>()
let listening: Promise<postgres.ListenMeta> | null = null

export async function hearNews(client: postgres.Sql, hear: Hearer): Promise<() => void> {
  listening ??= client.listen('iron_nozzle', what => {
    for (const h of hearers) h(what)
  })
  try {
    await listening
  } catch (error) {
    listening = null
    throw error
  }
  hearers.add(hear)
  return () => {
    hearers.delete(hear)
  }
}

export function forgetNews(): void {
  hearers.clear()
  listening = null
}
