/** What a spool should weigh now, for the stand-in balance: what is left on it, its water and its hub. */
import { spoolMass } from '#core/materials'
import { USUAL_TARE_G } from '#shared/filament'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { airAndFactor } from './factor'
import { spoolLogs } from './log'
import { stateOf } from './moisture'
import { notFound } from '../entry/refusal'

export async function expectedGrossG(db: Connection, spoolId: number): Promise<number> {
  const [[log], { air, wound }] = await Promise.all([spoolLogs(db, idIn('s.id', [spoolId])), airAndFactor(db)])
  if (!log) notFound('This spool')
  const water = stateOf(log, air, wound, Date.now()).water
  const { g } = spoolMass(log.mass)
  // the last weighing, or the net mass, is taken as wet as the room: what it lost since shows on the balance
  return Math.max(0, g) * (1 + (water ? (water.wound - water.soaked) / 100 : 0)) + (log.mass.tareG ?? USUAL_TARE_G)
}
