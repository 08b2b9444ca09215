/**
 * The demo's flow benches: one on Ribble, that melts no faster than it should, and one on Wharfe, whose gears give way
 * first. What came out is drawn by a generator of their own from heads that only the stand-ins know.
 */
import { netUG } from '#core/flow'
import { massG } from '#core/materials'
import { mulberry32, normalDraw } from '#core/numeric'
import { benchSchema, blobSchema, filamentMeasureSchema } from '#shared/entries/flow'
import { endingSchema } from '#shared/entries/log'
import type { Connection } from '../server/db/client'
import { saveEnding } from '../server/records/entry/endings'
import { addBench, benchPage } from '../server/records/flow/benches'
import { saveBlob, saveFilamentMeasure } from '../server/records/flow/weigh'
import { delivers, STAND_IN_HEADS } from '../sim/flow-bench'

const SEED = 53
const STEP_G = 0.001
/** Blobs of one cell differ by so much. */
const SCATTER = 0.003

interface Bench {
  printer: string
  headId: number
  spoolId: number
  temperaturesC: number[]
  flowsMm3S: number[]
  callipersMm: number[] | null
  at: string
  person: number
  note: string
}

export async function addFlowBenches(tx: Connection, benches: readonly Bench[]): Promise<void> {
  const random = mulberry32(SEED)
  for (const b of benches) {
    const after = (minutes: number) => new Date(Date.parse(b.at) + minutes * 60_000).toISOString()
    const entry = {
      headId: b.headId,
      spoolId: b.spoolId,
      temperaturesC: b.temperaturesC,
      flowsMm3S: b.flowsMm3S,
      repeats: 2,
      balanceStepG: STEP_G,
      stand: { xMm: 20, yMm: 20, zMm: 60 },
      note: b.note,
      occurredAt: b.at,
    }
    const { id } = await addBench(tx, benchSchema.parse(entry), b.person)
    const { lines, lengthMm, diameterMm, densityGCm3 } = await benchPage(tx, id)
    const nominalG = massG(lengthMm, diameterMm, densityGCm3)
    const head = STAND_IN_HEADS[b.printer]!
    for (const [line, l] of lines.entries()) {
      const out = nominalG * delivers(head, l.temperatureC, l.flowMm3S) * (1 + SCATTER * normalDraw(random))
      const grossG = Number((out + netUG(STEP_G) * normalDraw(random)).toFixed(3))
      const blob = { benchId: id, line, grossG, occurredAt: after(6 + 3 * line) }
      await saveBlob(tx, blobSchema.parse(blob), b.person)
    }
    const end = after(8 + 3 * lines.length)
    if (b.callipersMm)
      await saveFilamentMeasure(
        tx,
        filamentMeasureSchema.parse({ benchId: id, callipersMm: b.callipersMm, occurredAt: end }),
        b.person,
      )
    const ending = {
      target: 'flow bench',
      targetId: id,
      occurredAt: end,
      confirmed: ['same-run:0', 'overlap:0', 'not-fitted:0', 'fitted-late:0', 'more-than-left:0'],
    }
    await saveEnding(tx, endingSchema.parse(ending), b.person)
  }
}
