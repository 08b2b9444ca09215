/** Entries of a small shop, for the tests that hold what is kept to a fresh reading of the log. */
import { strikeSchema } from '#shared/entries/log'
import type { Connection, Database } from '../../server/db/client'
import { saveStrike } from '../../server/records/entry/strikes'
import { saveRun } from '../../server/records/runs/runs'
import { ago, runEntry, type SmallShop } from './support'

export function entriesOf(db: Database, shop: SmallShop) {
  let runs = 0
  const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
  /** A run of some grams, some days ago, whatever would be asked about it. */
  const run = (days: number, more: object = {}, grams = 20) =>
    tx(c =>
      saveRun(
        c,
        runEntry(
          shop,
          {
            name: `job ${++runs}`,
            endedAt: ago(days),
            confirmed: ['same-run:0', 'not-fitted:0', `over-spool:${shop.spoolId}`],
            ...more,
          },
          { kind: 'grams', grams },
        ),
        1,
      ),
    )
  const strike = (target: string, targetId: number) =>
    tx(c => saveStrike(c, strikeSchema.parse({ target, targetId, reason: 'a slip', confirmed: ['runs-rely'] }), 1))
  return { tx, run, strike }
}
