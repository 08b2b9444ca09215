/**
 * Run by itself, after a build: node --import tsx bench/news.ts [--quick]
 *
 * Fifty open screens of the ten-year shop hear of saves and read again what may show them, by the rule that the browser
 * goes by. Budget: one save costs under 60 readings of 10 ms, so under 60, and in all the application under 600 ms of
 * work. (One reading by itself may take 50 ms, bench/readings; what many ask for because of one save is worked out
 * once, so the fewer a save concerns, the more each of them seems to cost.) The baseline of the same run is every
 * screen reading the shop and what it shows.
 */
import { setTimeout as sleep } from 'node:timers/promises'
import type { ReadPath } from '#shared/api'
import { pathOf, type PathParams } from '#shared/paths'
import type { Shop } from '#shared/answers/shop'
import type { News } from '#shared/answers/news'
import { concerns } from '#shared/news'
import { HEARD } from '#shared/paths'
import { listenTo } from '../tests/e2e/events'
import { tenYears } from './ten-years'

const MOST_READS = 60
const MOST_MS = MOST_READS * 10

const { base, workedMs, stop } = await tenYears(process.argv.includes('--quick') ? 50_000 : 1_000_000)
interface Screen {
  path: ReadPath
  params: PathParams
  shown: unknown
}
const of = (count: number, path: ReadPath, params: (i: number) => PathParams = () => ({})): Screen[] =>
  Array.from({ length: count }, (_, i) => ({ path, params: params(i), shown: null }))
/** What people have open on a morning. */
const screens: Screen[] = [
  ...of(12, '/api/floor'),
  ...of(12, '/api/nozzles/{tag}', i => ({ tag: `N-${4830 + i}` })),
  ...of(8, '/api/spools/{tag}', i => ({ tag: `S-${1970 + i}` })),
  ...of(6, '/api/prepare'),
  ...of(4, '/api/equip'),
  ...of(4, '/api/runs'),
  ...of(2, '/api/nozzles'),
  ...of(2, '/api/change'),
]
const times: number[] = []
const readings: Promise<void>[] = []
/** The news that were heard last, as a browser says them when it reads again. */
let heard: string | null = null
async function read(s: Screen): Promise<void> {
  const from = performance.now()
  s.shown = await (
    await fetch(base + pathOf(s.path, s.params), { headers: heard === null ? {} : { [HEARD]: heard } })
  ).json()
  times.push(performance.now() - from)
}
const shop = (await (await fetch(`${base}/api/shop`)).json()) as Shop
const printer = shop.printers[4]!
const head = printer.heads[0]!
let saved = 0
async function save(what: string, path: string, body: object): Promise<number> {
  const before = workedMs()
  const r = await fetch(base + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'idempotency-key': `bench-news-${++saved}` },
    body: JSON.stringify(body),
  })
  if (r.status !== 201) throw new Error(`${what}: ${r.status} ${await r.text()}`)
  await sleep(1500)
  await Promise.all(readings)
  return workedMs() - before
}
const now = () => new Date().toISOString()
const saves: [what: string, path: string, body: () => object][] = [
  [
    'a gauge of a spare nozzle',
    '/api/gauges',
    () => ({
      nozzleId: shop.nozzles.find(n => n.tag === 'N-4990')!.id,
      occurredAt: now(),
      goMm: 0.4,
      noGoMm: 0.41,
      confirmed: ['unexpected-bore:as-read'],
    }),
  ],
  [
    'a gauge of a fitted nozzle',
    '/api/gauges',
    () => ({
      nozzleId: head.nozzleId,
      occurredAt: now(),
      goMm: 0.41,
      noGoMm: 0.42,
      confirmed: ['unexpected-bore:as-read'],
    }),
  ],
  [
    'a weighing of a spool',
    '/api/spool-events',
    () => ({
      spoolId: shop.spools.find(s => s.tag === 'S-1990')!.id,
      kind: 'weighed',
      grossG: 300,
      occurredAt: now(),
      confirmed: ['too-heavy:S-1990'],
    }),
  ],
  [
    'a run',
    '/api/runs',
    () => ({
      printerId: printer.id,
      name: 'bench',
      endedAt: now(),
      outcome: 'finished',
      tools: [
        {
          tool: 0,
          headId: head.id,
          nozzleId: head.nozzleId,
          materialId: 1,
          spoolId: null,
          amount: { kind: 'grams', grams: 20 },
        },
      ],
      confirmed: ['same-run:0', 'overlap:0', 'fitted-late:0'],
    }),
  ],
  [
    'a note for the next shift',
    '/api/notes',
    () => ({
      printerId: printer.id,
      says: 'the belt was tightened',
      occurredAt: now(),
    }),
  ],
]
/** The kernel counts work in hundredths of a second, and one save is a few of them: each is made so often. */
const TIMES = 6
async function saveOften([what, path, body]: (typeof saves)[number]): Promise<number> {
  let worked = 0
  for (let i = 0; i < TIMES; i++) worked += await save(what, path, body())
  return worked / TIMES
}
/** Whether those who are told read again. */
let isReading = false
let shopReads = 0
for (const s of screens)
  await listenTo(`${base}/api/events`, (event, data) => {
    if (event !== 'saved' || !isReading) return
    const { items, shop, heard: mark } = JSON.parse(data) as News
    heard = mark
    if (shop.whole) {
      shopReads++
      readings.push(read({ path: '/api/shop', params: {}, shown: null }))
    }
    if (concerns(s.path, s.shown as never, items)) readings.push(read(s))
  })
/** Each save with everybody told and nobody reading: what it costs by itself. The first warm the program up. */
for (const s of saves) await saveOften(s)
const alone = new Map<string, number>()
for (const s of saves) alone.set(s[0], await saveOften(s))
for (const s of screens) await read(s)
isReading = true

for (const one of saves) {
  const [what] = one
  times.length = 0
  readings.length = 0
  shopReads = 0
  const worked = await saveOften(one)
  const reads = times.length / TIMES
  const work = Math.max(0, worked - alone.get(what)!)
  const over = reads >= MOST_READS || work > MOST_MS ? 'over' : '    '
  console.log(
    `${over} ${what.padEnd(28)} ${reads.toFixed(0).padStart(3)} readings ` +
      `(${(shopReads / TIMES).toFixed(0)} of the shop), ` +
      `${work.toFixed(0).padStart(4)} ms of work, ${(work / Math.max(1, reads)).toFixed(1)} each, answered within ` +
      `${Math.max(0, ...times).toFixed(0)} ms; ` +
      `ratio of readings ${(reads / (2 * screens.length)).toFixed(2)}`,
  )
}
const from = performance.now()
const workedBefore = workedMs()
await Promise.all(screens.flatMap(s => [read(s), read({ path: '/api/shop', params: {}, shown: null })]))
console.log(
  `     all of them reading shop and page: ${2 * screens.length} readings, ` +
    `${((workedMs() - workedBefore) / (2 * screens.length)).toFixed(1)} ms of work each, ` +
    `${((performance.now() - from) / 1000).toFixed(2)} s (baseline)`,
)
await stop()
process.exit()
