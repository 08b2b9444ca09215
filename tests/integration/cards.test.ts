/** Cards of what worked: gathered from runs, written by hand, held against the next job. */
import { expect, test } from 'vitest'
import { cardFields, cardSchema } from '#shared/entries/cards'
import { precheckSchema } from '#shared/entries/prepare'
import type { Connection } from '../../server/db/client'
import { addCard, listCards } from '../../server/records/cards/cards'
import { editRecord } from '../../server/records/entry/edits'
import { saveStrike } from '../../server/records/entry/strikes'
import { makePrecheck } from '../../server/records/prepare/prechecks'
import { saveRun } from '../../server/records/runs/runs'
import { ago, freshDatabase, refusal, runEntry, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
const { materialId, typeId, printerId } = shop
const cards = () => listCards(db, { materialId })
let days = 20
async function run(setC: number, bedSetC: number, more: object = {}): Promise<number> {
  const entry = runEntry(shop, { endedAt: ago(days--), bedSetC, ...more }, { kind: 'grams', grams: 40 })
  entry.tools[0]!.setC = setC
  return (await tx(c => saveRun(c, entry, 1))).runId
}
const valueOf = (c: Awaited<ReturnType<typeof cards>>[number], key: string) => c.values.find(v => v.key === key)

test('runs that finished make a card; failed ones are counted and set nothing', async () => {
  expect(await cards()).toEqual([])
  await run(275, 100)
  await run(280, 105)
  await run(285, 110)
  await run(240, 60, { outcome: 'failed', symptoms: ['warped'] })
  const struck = await run(200, 30)
  await tx(c => saveStrike(c, { target: 'run', targetId: struck, reason: 'for the test', confirmed: [] }, 1))
  const [card, ...others] = await cards()
  expect(others).toEqual([])
  expect(card).toMatchObject({ printer: 'Ribble', type: 'hardened steel 0.4', good: 3, failed: 1, hand: null })
  expect(valueOf(card!, 'nozzleC')).toEqual({
    key: 'nozzleC',
    value: 280,
    by: 'runs',
    found: { low: 275, middle: 280, high: 285 },
  })
  expect(valueOf(card!, 'bedC')!.found).toEqual({ low: 100, middle: 105, high: 110 })
})

test('a person writes on it, once, and edits it with its history', async () => {
  const card = { bedC: 95, fanPercent: 20, bondAlongN: 400, bondAcrossN: 180, adhesive: 'PEI + glue stick' }
  const entry = cardSchema.parse({ materialId, typeId, printerId, card })
  const { id } = await tx(c => addCard(c, entry, 1))
  expect((await refusal(tx(c => addCard(c, entry, 1)))).errors).toMatchObject([{ field: 'printerId' }])
  const [written] = await cards()
  expect(valueOf(written!, 'bedC')).toMatchObject({ value: 95, by: 'hand', found: { low: 100 } })
  expect(written!.hand).toMatchObject({ id, bondAcrossN: 180, adhesive: 'PEI + glue stick' })
  await tx(c => editRecord(c, 'cards', id, 1, cardFields.parse({ ...card, bedC: null, holdMin: 30 }), 1))
  const [edited] = await cards()
  expect(valueOf(edited!, 'bedC')).toMatchObject({ value: 105, by: 'runs' })
  expect(valueOf(edited!, 'holdMin')).toMatchObject({ value: 30, by: 'hand', found: null })
  expect(edited!.hand!.version).toBe(2)
  expect((await refusal(tx(c => editRecord(c, 'cards', id, 1, cardFields.parse({}), 1)))).status).toBe(409)
})

test('a card for what was never printed; what is not known is refused at its field', async () => {
  const of = (more: object) => cardSchema.parse({ materialId, typeId, printerId, card: {}, ...more })
  for (const field of ['materialId', 'typeId', 'printerId'])
    expect((await refusal(tx(c => addCard(c, of({ [field]: 9999 }), 1)))).errors).toMatchObject([{ field }])
  expect(cardFields.safeParse({ nozzleC: 5000 }).error!.issues[0]!.path).toEqual(['nozzleC'])
  expect(cardFields.safeParse({ bondAlongN: 300 }).error!.issues[0]).toMatchObject({ path: ['bondAcrossN'] })
})

test('the check before the next job says where the file is not as it worked', async () => {
  const check = async (setC: number, fan: number) => {
    const scan = {
      filamentDiameterMm: 1.75,
      tools: [{ index: 0, extrudedMm: 1000, offPartMm: 0, printingMm: 1000 }],
      maxSetpointC: { tools: { 0: setC }, bed: 105, chamber: null },
      fan: { max: fan, mean: fan },
    }
    const asked = { printsFrom: 'room', printerId, headId: shop.headId, spoolId: shop.spoolId, materialId }
    const q = precheckSchema.parse({ ...asked, name: 'x.gcode', scan, hours: 1, occurredAt: ago(0) })
    return (await makePrecheck(db, q)).lines.find(l => l.key === 'what worked')!
  }
  expect(await check(282, 0.2)).toMatchObject({ status: 'ok', says: 'As it worked here: 3 good runs, 1 failed.' })
  expect(await check(262, 1)).toMatchObject({
    status: 'look',
    says:
      'Not as it worked here (3 good runs, 1 failed): nozzle 262 °C, where 275 to 285 °C worked and ' +
      'part fan 100 %, where 20 % worked.',
  })
})
