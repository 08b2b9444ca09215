/** An entry is stored once, whatever happens: repeated, raced, or the server killed at any statement of its save. */
import { spawn } from 'node:child_process'
import { rmSync } from 'node:fs'
import { sql } from 'drizzle-orm'
import { build } from 'vite'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { once } from '../../server/records/entry/answers'
import { saveRun } from '../../server/records/runs/runs'
import { freshDatabase, refusal, runEntry, smallShop } from './support'

const { db, url } = await freshDatabase()
const shop = await smallShop(db)
const entry = (key: string, body: unknown) => ({ key, route: '/api/runs', body, personId: 1 })
const counts = async () =>
  (
    await db.execute<{ runs: number; tools: number; answers: number; wear: number }>(sql`
  select (select count(*)::int from runs) runs, (select count(*)::int
  from run_tools) tools, (select count(*)::int from answers) answers, (select coalesce(sum(wear_kg), 0)
  from run_tools) wear`)
  )[0]!

describe('keys', () => {
  test('the same key and body get the first answer again, whatever the order of the fields', async () => {
    const body = runEntry(shop)
    const first = await once(db, entry('key-00000001', body), tx => saveRun(tx, body, 1))
    const turned = Object.fromEntries(Object.entries(body).reverse())
    const again = await once(db, entry('key-00000001', turned), tx => saveRun(tx, body, 1))
    expect(first.repeated).toBe(false)
    expect(again).toEqual({ repeated: true, answer: first.answer })
    expect((await counts()).runs).toBe(1)
  })
  test('the same key with another body is refused', async () => {
    const p = await refusal(
      once(db, entry('key-00000001', { ...runEntry(shop), name: 'other' }), tx => saveRun(tx, runEntry(shop), 1)),
    )
    expect(p).toMatchObject({ status: 422, type: 'urn:iron-nozzle:reused-key' })
  })
  test('ten at once store one', async () => {
    const before = await counts()
    const body = runEntry(shop, {}, { kind: 'grams', grams: 1 })
    const all = await Promise.all(
      Array.from({ length: 10 }, () => once(db, entry('key-00000002', body), tx => saveRun(tx, body, 1))),
    )
    expect(all.filter(a => !a.repeated)).toHaveLength(1)
    expect(new Set(all.map(a => a.answer.runId)).size).toBe(1)
    expect((await counts()).runs - before.runs).toBe(1)
  })
  test('a refused entry stores nothing, and its key stays free', async () => {
    const before = await counts()
    const bad = runEntry(shop, { endedAt: new Date(Date.now() + 1e7).toISOString() })
    await refusal(once(db, entry('key-00000003', bad), tx => saveRun(tx, bad, 1)))
    expect(await counts()).toEqual(before)
  })
})

// The child is bundled once: it is started some forty times.
const bundle = new URL('../../node_modules/.cache/killed-save/', import.meta.url).pathname
beforeAll(() =>
  build({
    configFile: false,
    logLevel: 'silent',
    build: {
      ssr: new URL('./killed-save.ts', import.meta.url).pathname,
      outDir: bundle,
      emptyOutDir: true,
      rollupOptions: { output: { entryFileNames: 'killed-save.mjs' } },
    },
  }),
)
afterAll(() => rmSync(bundle, { recursive: true, force: true }))

const killed = runEntry(
  shop,
  { endedAt: '2026-01-05T10:00:00Z', confirmed: ['not-fitted:0', 'over-spool:1', 'same-run:0'] },
  { kind: 'grams', grams: 1 },
)

/**
 * Runs the save in a process of its own that kills itself as statement `at` is about to be sent; answers its exit code.
 */
function child(at: number, key: string): Promise<number> {
  const p = spawn(process.execPath, [`${bundle}killed-save.mjs`], {
    env: { ...process.env, DATABASE_URL: url, KILL_AT: String(at), KEY: key, BODY: JSON.stringify(killed) },
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  return new Promise(done => p.once('exit', (code, signal) => done(signal === 'SIGKILL' ? -9 : (code ?? -1))))
}

test('killed at each statement of a save, then retried: exactly one entry each time', async () => {
  let at = 1
  for (; at < 60; at++) {
    const before = await counts()
    const key = `killed-${String(at).padStart(4, '0')}`
    const code = await child(at, key)
    const between = await counts()
    expect([0, 1], `statement ${at}`).toContain(between.runs - before.runs)
    expect(between.runs - before.runs).toBe(between.answers - before.answers)
    await once(db, entry(key, killed), tx => saveRun(tx, killed, 1)) // the retry
    const after = await counts()
    expect(after.runs - before.runs, `statement ${at}`).toBe(1)
    expect(after.tools - before.tools).toBe(1)
    expect(after.wear - before.wear).toBeCloseTo(0.0002, 9)
    if (code === 0) break // the save has fewer statements than this
    expect(code).toBe(-9)
  }
  expect(at).toBeGreaterThan(12)
}, 180_000)
