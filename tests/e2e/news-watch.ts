/**
 * Readings that are not read again after all saves, before and after each: one that changed must be among those that
 * the news of the save concern, and the shop with the lines that came with them must be the shop as it is read.
 */
import { expect } from '@playwright/test'
import type { ReadPath } from '#shared/api'
import { pathOf, type PathParams } from '#shared/paths'
import type { Shop } from '#shared/answers/shop'
import { listenTo } from './events'
import type { News } from '#shared/answers/news'
import { concerns, shopWith, TOLD_APART } from '#shared/news'

interface Reading {
  path: ReadPath
  params: PathParams
  answer: unknown
}

export class NewsWatch {
  private heard: News[] = []
  private readings: Reading[] = []
  stop: () => void = () => {}

  constructor(
    private readonly base: string,
    /** What fills the paths: several of each. */
    private readonly params: Partial<Record<ReadPath, PathParams[]>>,
  ) {}

  async begin(): Promise<void> {
    this.stop = await listenTo(`${this.base}/api/events`, (event, data) => {
      if (event === 'saved') this.heard.push(JSON.parse(data) as News)
    })
    this.readings = await this.all()
  }

  private async one(path: ReadPath, params: PathParams): Promise<unknown> {
    const response = await fetch(this.base + pathOf(path, params))
    return response.ok ? await response.json() : null
  }

  private async isWorking(): Promise<boolean> {
    const answer = await this.one('/api/nozzles', {})
    return answer !== null && (answer as { nozzles: { stale: boolean }[] }).nozzles.some(n => n.stale)
  }

  private async all(): Promise<Reading[]> {
    const asked = TOLD_APART.flatMap(path =>
      (path.includes('{') ? (this.params[path] ?? []) : [{}]).map(params => ({ path, params })),
    )
    return await Promise.all(asked.map(async a => ({ ...a, answer: await this.one(a.path, a.params) })))
  }

  /** After a save: what changed was told, and what was told of the shop is so. */
  async after(what: string): Promise<void> {
    for (let i = 0; i < 100 && this.heard.length === 0; i++) await new Promise(done => setTimeout(done, 20))
    // what follows in the background: until nothing is told for a while, and no forecast is still to be worked out
    for (let i = 0, last = -1; i < 60 && (last !== this.heard.length || (await this.isWorking())); i++) {
      last = this.heard.length
      await new Promise(done => setTimeout(done, 200))
    }
    const items = this.heard.flatMap(n => n.items)
    expect.soft(items.length, `${what} is told`).toBeGreaterThan(0)
    const before = this.readings
    // what is told while all is read may show in the next reading only
    const told = this.heard.length
    this.readings = await this.all()
    const missed = []
    for (const [i, { path, params, answer }] of before.entries()) {
      const now = this.readings[i]!.answer
      if (path === '/api/shop') {
        if (!this.heard.some(n => n.shop.whole)) {
          const told = this.heard.reduce((shop, n) => shopWith(shop, n.shop), answer as Shop)
          const again = await this.one(path, params)
          expect.soft(leaves(told, again, leaves(now, again)), `${what}: the shop as told`).toEqual([])
        }
        continue
      }
      if (answer === null || now === null || concerns(path, answer as never, items)) continue
      const changed = leaves(answer, now, leaves(now, await this.one(path, params)))
      if (changed.length > 0) missed.push(`${pathOf(path, params)}: ${changed.slice(0, 3).join(', ')}`)
    }
    expect.soft(missed, `${what} changed these and its news (${items.map(n => n.of).join()}) do not say so`).toEqual([])
    this.heard = this.heard.slice(told)
  }
}

/** What goes with the clock: the water in a spool, and what a printer reports while it soaks. */
const WITH_TIME = /\/water\/|^\/at$|^\/soaks\/\d+\/readings$/
/** Where two answers differ, but not in what moves by itself from one reading to the next. */
function leaves(a: unknown, b: unknown, moving: readonly string[] = [], at = ''): string[] {
  const here = at.replaceAll(/\d+/g, '*')
  if (a === b || WITH_TIME.test(at) || moving.some(m => m.replaceAll(/\d+/g, '*') === here)) return []
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return [at]
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].flatMap(k =>
    leaves((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k], moving, `${at}/${k}`),
  )
}
