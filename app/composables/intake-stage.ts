/**
 * The lines of a table on their way to the server: a short one goes along with what is asked, a long one is sent ahead
 * in pieces, of which only those are sent again that changed. How far the server has come with it is asked meanwhile.
 */
import { ref } from 'vue'
import type { TableName } from '#core/intake'
import { PIECE_LINES } from '#shared/choices'
import { ask, newKey, read } from '~/lib/api'

const ASKED_EVERY_MS = 400

export interface SentTable<L> {
  table: TableName
  name: string
  lines: L[]
}

export function useStage() {
  let stage = newKey()
  const sent = new Map<number, string>()
  /** Lines that the server is done with, while it is at a long table. */
  const done = ref<number | null>(null)

  /** The table as the server takes it, its pieces sent ahead. */
  async function staged<L>({ table, name, lines }: SentTable<L>) {
    if (lines.length <= PIECE_LINES) return { table, name, staged: null, lines }
    const pieces = Math.ceil(lines.length / PIECE_LINES)
    for (let nr = 0; nr < pieces; nr++) {
      const piece = { stage, nr, lines: lines.slice(nr * PIECE_LINES, (nr + 1) * PIECE_LINES) }
      const text = JSON.stringify(piece)
      if (sent.get(nr) === text) continue
      await ask('/api/intake/pieces', piece)
      sent.set(nr, text)
    }
    return { table, name, staged: { stage, pieces }, lines: [] }
  }
  /** Follows the server through a long table while it works on it. */
  async function followed<T>(work: Promise<T>, isLong: boolean): Promise<T> {
    if (!isLong) return await work
    const mine = stage
    done.value = 0
    const asking = setInterval(
      () =>
        void read('/api/intake/progress', {}, { stage: mine }).then(
          p => (done.value = done.value === null ? null : (p.done ?? done.value)),
          () => {},
        ),
      ASKED_EVERY_MS,
    )
    try {
      return await work
    } finally {
      clearInterval(asking)
      done.value = null
    }
  }
  /** The next table is another one. */
  function begin(): void {
    stage = newKey()
    sent.clear()
  }
  /** What the server is at is given up; nothing of it is stored. */
  async function giveUp(): Promise<void> {
    const left = stage
    begin()
    await ask('/api/intake/drop', { stage: left })
  }
  return { done, staged, followed, begin, giveUp }
}
