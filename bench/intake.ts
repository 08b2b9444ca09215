/**
 * Run by itself: node --import tsx bench/intake.ts
 *
 * 10 000 past runs of two years by one table, on 6 printers, 40 nozzles and 30 spools: sent in pieces, looked at, and
 * saved in one transaction with every nozzle worked out once. Budgets: looked at and saved in under 10 s each. The
 * baseline of the same run is the same entries saved one by one, as a person would send them.
 */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { dataFolder, startServer } from '../scripts/lib/postgres.mjs'
import { PIECE_LINES } from '#shared/choices'
import { intakeSchema } from '#shared/entries/intake'
import { strikeSchema } from '#shared/entries/log'
import { runSchema } from '#shared/entries/runs'
import { connect } from '../server/db/client'
import { migrationFiles } from '../server/db/files'
import { migrate } from '../server/db/migrate'
import { lookAt, takeIn } from '../server/records/intake/intake'
import { saveStrike } from '../server/records/entry/strikes'
import { keepPiece, progressOf } from '../server/records/intake/stage'
import { saveRun } from '../server/records/runs/runs'
import { firstPeople } from '../server/records/shop/people'

const [RUNS, SINGLE, BUDGET_S] = [10_000, 100, 10]
const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-bench-')), '/var/lib/iron-nozzle-bench')
const server = await startServer({ folder, fast: true })
server.dropDatabase('bench')
server.createDatabase('bench')
const { client, db } = connect(server.url('bench'), { max: 4 })
await migrate(client, migrationFiles())
await firstPeople(db)

const DAY = 86_400_000
const begin = Date.UTC(2024, 0, 1)
const at = (i: number) => new Date(begin + (i * 730 * DAY) / RUNS).toISOString().slice(0, 16)
const of = (letter: string, i: number) => `${letter}-${String(i + 1).padStart(3, '0')}`
type Values = Record<string, string | number>
const table = (name: string, rows: Values[], confirmed: string[] = []) =>
  intakeSchema.parse({ table: name, lines: rows.map((values, i) => ({ line: i + 2, values, confirmed })) })
const take = (name: string, rows: Values[], confirmed: string[]) =>
  db.transaction(tx => takeIn(tx, table(name, rows, confirmed), 1, db))
const list = (n: number, row: (i: number) => Values) => Array.from({ length: n }, (_, i) => row(i))
await take(
  'printers',
  list(6, i => ({ name: `P${i + 1}`, stack: 'open frame' })),
  [],
)
await take(
  'nozzles',
  list(40, i => ({ tag: of('N', i), type: 'hardened steel 0.4', received: '2023-12-01' })),
  ['new-type:hardened steel 0.4'],
)
await take(
  'spools',
  list(30, i => ({ tag: of('S', i), material: i % 3 === 0 ? 'PETG' : 'PA6-CF20', net: 20_000, tare: 900 })),
  ['new-material:petg', 'new-material:pa6-cf20'],
)
/** Seven runs a day on each of six printers' heads, of 14 days' nozzles. */
const lines = list(RUNS, i => ({
  printer: `P${(i % 6) + 1}`,
  ended: at(i),
  name: `part ${i % 97}`,
  spool: of('S', Math.floor((i * 30) / RUNS)),
  nozzle: of('N', Math.min(39, Math.floor((i * 6.6) / RUNS) * 6 + (i % 6))),
  grams: 20 + (i % 13),
  hours: 1,
})).map((values, i) => ({ line: i + 2, values, confirmed: ['not-fitted:0', `over-spool:${values.spool}`] }))

const timed = async <T>(work: () => Promise<T>): Promise<[number, T]> => {
  const from = performance.now()
  const got = await work()
  return [(performance.now() - from) / 1000, got]
}
const pieces = Math.ceil(RUNS / PIECE_LINES)
const [sentS] = await timed(async () => {
  for (let nr = 0; nr < pieces; nr++)
    await keepPiece(db, { stage: 'bench-stage', nr, lines: lines.slice(nr * PIECE_LINES, (nr + 1) * PIECE_LINES) })
})
const body = intakeSchema.parse({ table: 'runs', staged: { stage: 'bench-stage', pieces } })
const [lookedS, looked] = await timed(() => lookAt(db, body, 1))
const states = new Set(looked.lines.map(l => `${l.state} ${l.state === 'new' ? '' : l.says}`))
let told = 0
const telling = setInterval(
  () => void progressOf(db, 'bench-stage').then(p => (told = Math.max(told, p.done ?? 0))),
  50,
)
const [savedS, saved] = await timed(() => db.transaction(tx => takeIn(tx, body, 1, db)))
clearInterval(telling)
if (saved.added !== RUNS) throw new Error(`${saved.added} of ${RUNS} were added: ${[...states].slice(0, 5).join('; ')}`)

const [head] = await client<{ id: number; printer: number }[]>`select id, printer_id printer from heads order by id`
const [nozzle] = await client<{ id: number }[]>`select id from nozzles order by id`
const [material] = await client<{ id: number }[]>`select id from materials order by id`
const [singleS] = await timed(async () => {
  for (let i = 0; i < SINGLE; i++)
    await db.transaction(tx =>
      saveRun(
        tx,
        runSchema.parse({
          printerId: head!.printer,
          name: 'one by one',
          endedAt: new Date(begin + 740 * DAY + i * 3_600_000).toISOString(),
          outcome: 'finished',
          tools: [
            {
              tool: 0,
              headId: head!.id,
              nozzleId: nozzle!.id,
              materialId: material!.id,
              amount: { kind: 'grams', grams: 20 + i },
            },
          ],
          confirmed: ['not-fitted:0'],
        }),
        1,
      ),
    )
})
const [importId] = await client<{ id: number }[]>`select id::int from imports order by id`
const [struckS] = await timed(() =>
  db.transaction(tx =>
    saveStrike(tx, strikeSchema.parse({ target: 'import', targetId: importId!.id, reason: 'another shop' }), 1),
  ),
)
const each = (singleS / SINGLE) * 1000
const over = (s: number) => (s > BUDGET_S ? 'over' : '    ')
const ratio = (s: number) => ((s * 1000) / RUNS / each).toFixed(3)
console.log(`     sent in ${pieces} pieces  ${sentS.toFixed(2)} s`)
console.log(`${over(lookedS)} looked at         ${lookedS.toFixed(2)} s; ratio to one by one ${ratio(lookedS)}`)
console.log(
  `${over(savedS)} saved             ${savedS.toFixed(2)} s; ratio to one by one ${ratio(savedS)}; told of ${told}`,
)
console.log(`${over(struckS)} struck as a whole ${struckS.toFixed(2)} s; ratio to one by one ${ratio(struckS)}`)
console.log(`     one by one        ${each.toFixed(1)} ms each (baseline; ${SINGLE} of them)`)
await client.end({ timeout: 2 })
await server.stop()
rmSync(folder, { recursive: true, force: true })
