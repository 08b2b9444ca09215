/**
 * Entries on their way. Each is kept in the browser's own database from before the first try until the server has it,
 * so that it survives a reload; its key makes it count once however often it is sent. One tab at a time sends (a
 * lease). An entry that the server failed on waits and is sent again. A refused or questioned one stays, with its
 * reason, until a person answers, corrects, sends or withdraws it; whichever tab does so first has done it for all.
 */
import { openDB, type IDBPDatabase } from 'idb'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { EntryAnswer, EntryPath } from '#shared/api'
import type { Problem } from '#shared/problem'
import { FaultError, isStored, keyAfter, newKey, post, ProblemError, UnreachableError } from '~/lib/api'
import { useShop } from '~/state/shop'

export interface Queued {
  key: string
  route: EntryPath
  body: Record<string, unknown>
  /** What it says to a person: "Gauge N-014". */
  says: string
  at: string
  /** Was refused or questioned, and waits for a person; null while it waits for the server. */
  problem: Problem | null
  /** The server failed on it: how often, and when it is sent again (ms since 1970). */
  fault?: { tries: number; title: string; again: number } | null
  /** A form is open on it: the background leaves it alone. */
  held: boolean
}

/** `failed`: queued because the server failed on it, not because it was away. */
export type Outcome<T> =
  { kind: 'saved'; answer: T } | { kind: 'queued'; failed: boolean } | { kind: 'refused'; problem: Problem }

/** What the server took a moment ago: a list that was asked for before does not show it yet. */
export type Taken = Pick<Queued, 'route' | 'body'> & { at: number }
const TAKEN_MS = 60_000

/** What becomes of a queued entry, for a person. */
export const queuedWords = ({ failed }: { failed: boolean }): string =>
  failed ? 'The server failed on it; it is kept here and sent again.' : 'Kept here; it is sent when the server answers.'

const LEASE_MS = 20_000
const RETRY_MS = 4_000
/** An entry that the server failed on is sent again after so long, then after twice that, up to the other. */
const FAULT_MS = 8_000
const LONGEST_MS = 300_000

const GONE: Problem = {
  type: 'about:blank',
  status: 0,
  title: 'Another tab has sent or withdrawn this entry; nothing was sent from here. What you typed is still here',
}

/** What the server has against an entry. */
const refusalOf = (error: unknown): Problem =>
  error instanceof ProblemError ? error.problem : { type: 'about:blank', status: 0, title: String(error) }

export const useOutbox = defineStore('outbox', () => {
  const entries = ref<Queued[]>([])
  const taken = ref<Taken[]>([])
  const me = newKey()
  const otherTabs = new BroadcastChannel('iron-nozzle-outbox')
  otherTabs.onmessage = () => void load()
  let db: Promise<IDBPDatabase> | null = null
  let timer: ReturnType<typeof setInterval> | null = null
  let sending = false

  const waiting = computed(() => entries.value.filter(e => !e.problem && !e.held).length)
  const refused = computed(() => entries.value.filter(e => e.problem !== null && !e.held))

  function store(): Promise<IDBPDatabase> {
    db ??= openDB('iron-nozzle', 1, {
      upgrade(d) {
        d.createObjectStore('entries', { keyPath: 'key' })
        d.createObjectStore('lease')
      },
    })
    return db
  }

  async function load(): Promise<void> {
    const all = (await (await store()).getAll('entries')) as Queued[]
    entries.value = all.sort((a, b) => (a.at < b.at ? -1 : 1))
  }

  /**
   * In one step: removes some entries and puts one, provided that `if` (when given) is still there. False when it is
   * not.
   */
  async function swap(step: { if?: string; out?: string[]; in?: Queued }): Promise<boolean> {
    const tx = (await store()).transaction('entries', 'readwrite')
    const there = step.if === undefined || (await tx.store.getKey(step.if)) !== undefined
    if (there) {
      for (const key of step.out ?? []) await tx.store.delete(key)
      if (step.in) await tx.store.put(JSON.parse(JSON.stringify(step.in)))
    }
    await tx.done
    await load()
    otherTabs.postMessage('changed')
    return there
  }

  const drop = (key: string) => swap({ out: [key] })

  /** Said before it leaves `entries`: at no moment does it seem that nobody has it. */
  function took({ route, body }: Queued): void {
    const at = Date.now()
    taken.value = [...taken.value.filter(x => at - x.at < TAKEN_MS), { route, body, at }]
  }

  /**
   * Sends an entry. Kept first, so that nothing typed is lost whatever happens in between. `instead` is the key of a
   * refused entry that this one takes the place of.
   */
  async function submit<P extends EntryPath>(
    route: P,
    body: Record<string, unknown>,
    says: string,
    key = newKey(),
    instead: string | null = null,
  ): Promise<Outcome<EntryAnswer<P>>> {
    const e: Queued = {
      key: instead === null ? key : keyAfter(instead),
      route,
      body,
      says,
      at: new Date().toISOString(),
      problem: null,
      held: true,
    }
    if (!(await swap({ if: instead ?? undefined, in: e }))) return { kind: 'refused', problem: GONE }
    const both = instead === null ? [e.key] : [e.key, instead]
    try {
      const sentAt = Date.now()
      const answer = await post(route, body, e.key)
      took(e)
      await swap({ out: both })
      useShop().saved(sentAt)
      return { kind: 'saved', answer }
    } catch (error) {
      const failed = error instanceof FaultError
      if (failed || error instanceof UnreachableError) {
        await swap({ out: both, in: { ...e, held: false, fault: failed ? faultAfter(e, error) : null } })
        if (!failed) useShop().reachable = false
        return { kind: 'queued', failed }
      }
      await drop(e.key) // the form keeps it and shows why
      return { kind: 'refused', problem: refusalOf(error) }
    }
  }

  function faultAfter(e: Queued, error: FaultError): NonNullable<Queued['fault']> {
    const tries = (e.fault?.tries ?? 0) + 1
    return { tries, title: error.problem.title, again: Date.now() + Math.min(LONGEST_MS, FAULT_MS * 2 ** (tries - 1)) }
  }

  async function leased(): Promise<boolean> {
    const tx = (await store()).transaction('lease', 'readwrite')
    const held = (await tx.store.get('sender')) as { by: string; until: number } | undefined
    const mine = !held || held.by === me || held.until < Date.now()
    if (mine) await tx.store.put({ by: me, until: Date.now() + LEASE_MS }, 'sender')
    await tx.done
    return mine
  }

  /** Lets another tab, or this one after a reload, send at once. */
  async function release(): Promise<void> {
    await (await store()).put('lease', { by: me, until: 0 }, 'sender')
  }

  /** Sends what waits, oldest first; stops at the first that finds no server. `now`: also what waits out a fault. */
  async function replay(now = false): Promise<void> {
    if (sending) return
    sending = true
    try {
      await load()
      // an entry held by a form that is gone (a reload in the middle of a save) is sent as it was
      const due = entries.value.filter(
        e =>
          !e.problem &&
          (!e.held || Date.now() - Date.parse(e.at) > LEASE_MS) &&
          (now || !e.fault || e.fault.again <= Date.now()),
      )
      if (due.length === 0 || !(await leased())) return
      let sent = 0
      try {
        sent = await sendAll(due)
      } finally {
        await release()
      }
      if (sent > 0 || !useShop().reachable) await useShop().refresh()
    } finally {
      sending = false
    }
  }

  /** How many the server took. One that it fails on, or refuses, does not hold up those behind it. */
  async function sendAll(due: Queued[]): Promise<number> {
    let sent = 0
    for (const e of due) {
      try {
        try {
          await post(e.route, e.body, e.key)
        } catch (error) {
          if (!isStored(error)) throw error
        }
        took(e)
        await drop(e.key)
        sent++
      } catch (error) {
        if (error instanceof UnreachableError) return sent
        const failed = error instanceof FaultError
        await swap({
          if: e.key,
          in: {
            ...e,
            held: false,
            fault: failed ? faultAfter(e, error) : null,
            problem: failed ? null : refusalOf(error),
          },
        })
      }
    }
    return sent
  }

  function start(): void {
    if (timer) return
    void load()
    timer = setInterval(() => {
      if (entries.value.some(e => !e.problem)) void replay()
    }, RETRY_MS)
    window.addEventListener('online', () => void replay())
  }

  /**
   * Sends a refused entry with another body: its questions answered, or its fields corrected. False when another tab
   * was first.
   */
  async function change(e: Queued, body: Record<string, unknown>): Promise<boolean> {
    const there = await swap({
      if: e.key,
      out: [e.key],
      in: { ...e, key: keyAfter(e.key), body, problem: null, fault: null, held: false },
    })
    await replay()
    return there
  }

  /** Answers the questions of an entry, with one code for each. */
  const confirm = (e: Queued, codes: string[]) =>
    change(e, { ...e.body, confirmed: [...((e.body.confirmed as string[] | undefined) ?? []), ...codes] })

  /** Sends a refused entry again as it is, or one that waits out a fault at once. */
  async function sendAgain(e: Queued): Promise<boolean> {
    const there = await swap({ if: e.key, in: { ...e, problem: null, fault: null, held: false } })
    await replay()
    return there
  }

  return { entries, taken, waiting, refused, submit, replay, start, confirm, change, sendAgain, drop, load }
})
