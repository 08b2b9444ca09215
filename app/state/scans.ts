/** Job files dropped in this browser: they stay here; only the scan goes to the server, with a run. */
import { proxy, wrap, type Remote } from 'comlink'
import { defineStore } from 'pinia'
import { markRaw, ref } from 'vue'
import { MOST_TOOLS, type Dialect, type FullScan } from '#core/gcode'
import type { ScanWorker } from '~/workers/scan.worker'

export interface Read {
  id: number
  file: File
  state: 'reading' | 'read' | 'cancelled' | 'failed'
  share: number
  failure: string
  diameterMm: number
  dialect: Dialect
  scan: FullScan | null
  sha256: string
  /** Saved as a run already. */
  logged: boolean
}

const PROBLEM_WORDS: Record<string, string> = {
  'bad-number': 'a number cannot be read, or is beyond 10¹²; the line was left out',
  'bad-checksum': 'the checksum does not fit; the line was carried out',
  'unknown-word': 'a word cannot be read; the line was left out',
  'no-feedrate': 'a move before any feedrate; its time is unknown',
  'too-many-tools': `names a tool beyond the ${MOST_TOOLS} a job can have; the line was left out`,
  'not-text': 'this is not a text file, so it is no G-code',
  'no-extrusion': 'nothing is extruded in this file',
}
export const problemWords = (kind: string) => PROBLEM_WORDS[kind] ?? kind

export const useScans = defineStore('scans', () => {
  const reads = ref<Read[]>([])
  const workers = new Map<number, Worker>()
  let next = 1

  function add(files: Iterable<File>): number | null {
    let first: number | null = null
    for (const file of files) {
      const id = next++
      first ??= id
      reads.value.push({
        id,
        file: markRaw(file),
        state: 'reading',
        share: 0,
        failure: '',
        diameterMm: 1.75,
        dialect: 'eIndependent',
        scan: null,
        sha256: '',
        logged: false,
      })
      void start(id)
    }
    return first
  }

  async function start(id: number): Promise<void> {
    const r = reads.value.find(x => x.id === id)!
    stop(id)
    const worker = new Worker(new URL('~/workers/scan.worker.ts', import.meta.url), { type: 'module' })
    workers.set(id, worker)
    Object.assign(r, { state: 'reading', share: 0, failure: '' })
    try {
      const api = wrap(worker) as Remote<ScanWorker>
      const failed = new Promise<never>((_, no) => {
        worker.onerror = e => no(new Error(e.message || 'the reader stopped'))
      })
      const done = await Promise.race([
        api.scan(
          r.file,
          { filamentDiameterMm: r.diameterMm, dialect: r.dialect },
          proxy((share: number) => {
            r.share = share
          }),
        ),
        failed,
      ])
      if (workers.get(id) !== worker) return
      Object.assign(r, { state: 'read', share: 1, scan: markRaw(done.scan), sha256: done.sha256 })
    } catch (error) {
      if (workers.get(id) !== worker) return
      Object.assign(r, {
        state: 'failed',
        failure:
          `The file could not be read: ${error instanceof Error ? error.message : String(error)}. Was it ` +
          `moved or changed? Drop it again.`,
      })
    } finally {
      if (workers.get(id) === worker) stop(id)
    }
  }

  function stop(id: number): void {
    workers.get(id)?.terminate()
    workers.delete(id)
  }

  function cancel(id: number): void {
    stop(id)
    const r = reads.value.find(x => x.id === id)
    if (r?.state === 'reading') r.state = r.scan ? 'read' : 'cancelled'
  }

  /** Reads it again, for another filament diameter or the other reading of E. */
  function again(id: number, how: Partial<Pick<Read, 'diameterMm' | 'dialect'>>): void {
    Object.assign(
      reads.value.find(x => x.id === id)!,
      how,
    )
    void start(id)
  }

  function remove(id: number): void {
    stop(id)
    reads.value = reads.value.filter(r => r.id !== id)
  }
  return { reads, add, cancel, again, remove }
})
