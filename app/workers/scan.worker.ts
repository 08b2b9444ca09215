/** Reads a job file in the background: scan and SHA-256 in one pass over the stream, with progress. */
import { expose } from 'comlink'
import { createSHA256 } from 'hash-wasm'
import { Scan, type FullScan, type ScanOptions } from '#core/gcode'

export interface ScanJob {
  scan: FullScan
  sha256: string
}

async function scan(file: Blob, options: ScanOptions, progress: (share: number) => void): Promise<ScanJob> {
  const reader = file.stream().getReader()
  const s = new Scan({ ...options, totalBytes: file.size })
  const hash = await createSHA256()
  let read = 0
  let said = performance.now()
  for (;;) {
    const { done, value } = await reader.read()
    if (done) break
    s.push(value)
    hash.update(value)
    read += value.length
    if (performance.now() - said > 60) {
      said = performance.now()
      progress(read / file.size)
    }
  }
  return { scan: s.finish(), sha256: hash.digest('hex') }
}

const api = { scan }
export type ScanWorker = typeof api
expose(api)
