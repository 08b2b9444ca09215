/**
 * Entries on their way. Each is kept in the browser's own database from before the first try until the server has it, so
 * that it survives a reload; its key makes it count once however often it is sent. One tab at a time sends (a lease).
 * A refused or questioned entry stays, with its reason, until a person edits, confirms or withdraws it.
 */
import { openDB, type IDBPDatabase } from 'idb'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Problem } from '#shared/problem'
import { newKey, post, ProblemError, UnreachableError } from '~/api'
import { useShop } from '~/stores/shop'

export interface Queued {
  key: string
  route: string
  body: Record<string, unknown>
  /** What it says to a person: "Gauge N-014". */
  says: string
  at: string
  /** Waits for the server; or was refused and waits for a person. */
  problem: Problem | null
  /** A form is open on it: the background leaves it alone. */
  held: boolean
}

export type Outcome<T> = { kind: 'saved', answer: T } | { kind: 'queued' } | { kind: 'refused', problem: Problem }

const LEASE_MS = 20_000
const RETRY_MS = 4_000

export const useOutbox = defineStore('outbox', () => {
  const entries = ref<Queued[]>([])
  const me = newKey()
  let db: Promise<IDBPDatabase> | null = null
  let timer: ReturnType<typeof setInterval> | null = null
  let sending = false

  const waiting = computed(() => entries.value.filter(e => !e.problem && !e.held).length)
  const refused = computed(() => entries.value.filter(e => e.problem !== null && !e.held))

  function store(): Promise<IDBPDatabase> {
    db ??= openDB('iron-nozzle', 1, { upgrade(d) { d.createObjectStore('entries', { keyPath: 'key' }); d.createObjectStore('lease') } })
    return db
  }

  async function load(): Promise<void> {
    const all = await (await store()).getAll('entries') as Queued[]
    entries.value = all.sort((a, b) => a.at < b.at ? -1 : 1)
  }

  async function keep(e: Queued): Promise<void> {
    await (await store()).put('entries', JSON.parse(JSON.stringify(e)))
    await load()
  }

  async function drop(key: string): Promise<void> {
    await (await store()).delete('entries', key)
    await load()
  }

  /** Sends an entry. Kept first, so that nothing typed is lost whatever happens in between. */
  async function submit<T>(route: string, body: Record<string, unknown>, says: string, key = newKey()): Promise<Outcome<T>> {
    const e: Queued = { key, route, body, says, at: new Date().toISOString(), problem: null, held: true }
    await keep(e)
    try {
      const answer = await post<T>(route, body, key)
      await drop(key)
      void useShop().refresh()
      return { kind: 'saved', answer }
    } catch (error) {
      if (error instanceof UnreachableError) {
        await keep({ ...e, held: false })
        useShop().reachable = false
        return { kind: 'queued' }
      }
      await drop(key) // the form keeps it and shows why
      return { kind: 'refused', problem: error instanceof ProblemError ? error.problem : { type: 'about:blank', status: 0, title: String(error) } }
    }
  }

  async function leased(): Promise<boolean> {
    const tx = (await store()).transaction('lease', 'readwrite')
    const held = await tx.store.get('sender') as { by: string, until: number } | undefined
    const mine = !held || held.by === me || held.until < Date.now()
    if (mine) await tx.store.put({ by: me, until: Date.now() + LEASE_MS }, 'sender')
    await tx.done
    return mine
  }

  /** Lets another tab, or this one after a reload, send at once. */
  async function release(): Promise<void> {
    await (await store()).put('lease', { by: me, until: 0 }, 'sender')
  }

  /** Sends what waits, oldest first; stops at the first that finds no server. */
  async function replay(): Promise<void> {
    if (sending) return
    sending = true
    try {
      await load()
      // an entry held by a form that is gone (a reload in the middle of a save) is sent as it was
      const due = entries.value.filter(e => !e.problem && (!e.held || Date.now() - Date.parse(e.at) > LEASE_MS))
      if (due.length === 0 || !await leased()) return
      try { await sendAll(due) } finally { await release() }
      await useShop().refresh()
    } finally { sending = false }
  }

  async function sendAll(due: Queued[]): Promise<void> {
    for (const e of due) {
      try {
        await post(e.route, e.body, e.key)
        await drop(e.key)
      } catch (error) {
        if (error instanceof UnreachableError) return
        await keep({ ...e, held: false, problem: error instanceof ProblemError ? error.problem : { type: 'about:blank', status: 0, title: String(error) } })
      }
    }
  }

  function start(): void {
    if (timer) return
    void load()
    timer = setInterval(() => { if (entries.value.some(e => !e.problem)) void replay() }, RETRY_MS)
    window.addEventListener('online', () => void replay())
  }

  /** Confirms the questions of a questioned entry and sends it again under a new key (its body is another one now). */
  async function confirm(e: Queued): Promise<void> {
    const codes = e.problem?.questions?.map(q => q.code) ?? []
    await drop(e.key)
    await keep({ ...e, key: newKey(), body: { ...e.body, confirmed: [...(e.body.confirmed as string[] | undefined ?? []), ...codes] }, problem: null, held: false })
    await replay()
  }

  return { entries, waiting, refused, submit, replay, start, confirm, drop, load }
})
