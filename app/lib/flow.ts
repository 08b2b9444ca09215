/** Whose blob it is, and the job file of a bench. */
import { benchFile } from '#core/flow'
import type { BenchPage } from '#shared/answers/flow'
import { nextOpen, type TurnKind, type Waiting } from '~/lib/turn'

export const BLOB_TURN: TurnKind = { route: '/api/blobs', of: 'benchId' }
type Lines = Pick<BenchPage, 'id' | 'lines'>
export const openBlobs = (b: Lines) => b.lines.map(l => l.blob === null)

/** The first blob that nothing stands for and nothing waits for; null when there is none. */
export const nextBlob = (b: Lines, waiting: Waiting) => nextOpen(BLOB_TURN, b.id, openBlobs(b), waiting)

const each = (values: readonly number[]) => [...new Set(values)]

/** The job file of a bench as it was planned. */
export function fileOf(b: BenchPage): { name: string; text: string } {
  return {
    name: `flow-bench-${b.id}-${b.nozzle}.gcode`.replace(/[^\w.-]/g, '-'),
    text: benchFile({
      title: `Flow bench ${b.id}: ${b.nozzle} on ${b.place}, ${b.material}, ${b.spool}`,
      temperaturesC: each(b.lines.map(l => l.temperatureC)),
      flowsMm3S: each(b.lines.map(l => l.flowMm3S)),
      repeats: Math.max(...b.lines.map(l => l.round)) + 1,
      lengthMm: b.lengthMm,
      diameterMm: b.diameterMm,
      densityGCm3: b.densityGCm3,
      stand: b.stand,
      tool: b.tool,
    }),
  }
}
