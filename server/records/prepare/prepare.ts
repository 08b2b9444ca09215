/** What Prepare and the Floor show of what is under way: spools in the air, dryings, soaks, anneals. */
import { spoolMass } from '#core/materials'
import type { Prepare } from '#shared/answers/prepare'
import { spoolInUse } from '#shared/entries/spools'
import type { Connection } from '../../db/client'
import { listCoolDowns } from '../change/cool-downs'
import { listChangeovers, throughFitted } from './changeovers'
import { listCheckLines } from './check-lines'
import { listDryers } from './dryers'
import { spoolsAndAir, stateOf, type SpoolLog } from '../spools/moisture'
import { listSoaks } from './soaks'
import { listWarmUps } from './warm-ups'
import { listAnneals } from './anneals'
import { listChecks } from './prechecks'

export async function prepare(db: Connection): Promise<Prepare> {
  const [{ logs, air, wound }, dryers, checkLines, soaks, anneals, warmUps, changeovers, through, checks, coolDowns] =
    await Promise.all([
      spoolsAndAir(db),
      listDryers(db),
      listCheckLines(db),
      listSoaks(db),
      listAnneals(db),
      listWarmUps(db),
      listChangeovers(db),
      throughFitted(db),
      listChecks(db),
      listCoolDowns(db),
    ])
  const now = Date.now()
  // a spool that is used up needs no state; its weighings still count
  const inUse = (s: SpoolLog) => spoolInUse({ leftG: spoolMass(s.mass).g, place: s.events.at(-1)?.kind ?? null })
  return {
    spools: logs.filter(inUse).map(s => stateOf(s, air, wound, now)),
    dryers,
    checkLines,
    air,
    wound,
    soaks,
    anneals,
    warmUps,
    changeovers,
    through,
    checks,
    coolDowns,
    at: new Date(now).toISOString(),
  }
}
