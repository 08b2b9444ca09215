/** What Prepare and the Floor show of what is under way: spools in the air, dryings, soaks, anneals. */
import type { Prepare } from '#shared/answers/prepare'
import type { Connection } from '../../db/client'
import { listCoolDowns } from '../change/cool-downs'
import { listChangeovers, throughFitted } from './changeovers'
import { listCheckLines } from './check-lines'
import { listDryers } from './dryers'
import { spoolStates } from '../spools/stands'
import { listSoaks } from './soaks'
import { listAnneals } from './anneals'
import { listChecks } from './prechecks'

export async function prepare(db: Connection): Promise<Prepare> {
  const [{ spools, air, wound, at }, dryers, checkLines, soaks, anneals, changeovers, through, checks, coolDowns] =
    await Promise.all([
      spoolStates(db),
      listDryers(db),
      listCheckLines(db),
      listSoaks(db),
      listAnneals(db),
      listChangeovers(db),
      throughFitted(db),
      listChecks(db),
      listCoolDowns(db),
    ])
  return {
    spools,
    dryers,
    checkLines,
    air,
    wound,
    soaks,
    anneals,
    changeovers,
    through,
    checks,
    coolDowns,
    at: new Date(at).toISOString(),
  }
}
