/** What Prepare and the Floor show of what is under way: spools in the air, dryings, soaks, anneals. */
import type { FittedFactor } from '#core/drying'
import type { Connection } from '../../db/client'
import { listChangeovers, throughFitted, type ChangeoverLine, type Through } from './changeovers'
import { listDryers, type DryerRow } from './dryers'
import { spoolsAndAir, stateOf, type Air, type SpoolState } from '../spools/moisture'
import { listSoaks, type SoakLine } from './soaks'
import { listWarmUps, type WarmUpLine } from './warm-ups'
import { listSpools } from '../spools/spools'
import { type AnnealLine, listAnneals } from './anneals'
import { type CheckOfRun, listChecks } from './prechecks'

export interface Prepare {
  spools: SpoolState[]
  dryers: DryerRow[]
  air: Air
  wound: FittedFactor
  soaks: SoakLine[]
  anneals: AnnealLine[]
  warmUps: WarmUpLine[]
  changeovers: ChangeoverLine[]
  through: Through[]
  checks: CheckOfRun[]
  at: string
}

export async function prepare(db: Connection): Promise<Prepare> {
  const [{ logs, air, wound }, left, dryers, soaks, anneals, warmUps, changeovers, through, checks] = await Promise.all(
    [
      spoolsAndAir(db),
      listSpools(db),
      listDryers(db),
      listSoaks(db),
      listAnneals(db),
      listWarmUps(db),
      listChangeovers(db),
      throughFitted(db),
      listChecks(db),
    ],
  )
  const now = Date.now()
  // a spool that is used up needs no state; its weighings still count
  const inUse = new Set(left.filter(s => s.left_g > 1).map(s => s.id))
  return {
    spools: logs.filter(s => inUse.has(s.id)).map(s => stateOf(s, air, wound, now)),
    dryers,
    air,
    wound,
    soaks,
    anneals,
    warmUps,
    changeovers,
    through,
    checks,
    at: new Date(now).toISOString(),
  }
}
