/**
 * News of saves, for open screens: heard from the database on one connection per process, gathered for a moment, and
 * told to every browser that listens, with the lines of the shop that changed: they are read once for all screens.
 * Nothing is kept. Whoever may have missed some (the database was away) is told to read everything.
 */
import type { News, NewsItem } from '#shared/answers/news'
import { newsItem } from '#shared/answers/news'
import { ofShop } from '#shared/news'
import { database, listener } from '../db/database'
import { NEWS } from '../db/news'
import { shopNewsOf } from '../records/shop/news'
import { nextNews } from './heard'

type Hearer = (told: string) => void
const hearers = new Set<Hearer>()
/** Gathered so long: a save tells of several rows, and a burst of saves is read once. */
const GATHER_MS = 60
/** Of more than so many it is simpler to read everything. */
const MOST = 300

type Unmarked = Omit<News, 'heard'>
const MISSED: Unmarked = { items: [], shop: { whole: true, nozzles: [], spools: [], printers: null, counts: null } }

let gathered: NewsItem[] = []
let missed = false
let timer: ReturnType<typeof setTimeout> | undefined
let isHearing = false
/** When the latest were heard; before the first, since when there is anybody who could. */
let latestMs = 0

function heard(text: string): void {
  const item = newsItem.safeParse(JSON.parse(text))
  if (!item.success) missed = true
  else if (gathered.length < MOST) gathered.push(item.data)
  else missed = true
  later()
}

/** The database was away for a while: nobody knows what was saved meanwhile. */
function mayHaveMissed(): void {
  missed = true
  later()
}

function later(): void {
  latestMs = Date.now()
  timer ??= setTimeout(() => void tell(), GATHER_MS)
}

async function tell(): Promise<void> {
  timer = undefined
  const [items, isMissed] = [gathered, missed]
  gathered = []
  missed = false
  if (hearers.size === 0) return
  const news = isMissed ? MISSED : await newsOf(items)
  const text = JSON.stringify({ ...news, heard: nextNews() } satisfies News)
  for (const hear of hearers) hear(text)
}

async function newsOf(items: NewsItem[]): Promise<Unmarked> {
  try {
    return { items, shop: await shopNewsOf(await database(), ofShop(items)) }
  } catch {
    return MISSED // the database went away in between
  }
}

export function hearNews(hear: Hearer): () => void {
  if (!isHearing) {
    listener().hear(NEWS, heard, mayHaveMissed)
    latestMs = Date.now()
  }
  isHearing = true
  hearers.add(hear)
  return () => {
    hearers.delete(hear)
  }
}

/** How long there have been no news, in ms: what a screen read before that is old. */
export const quietMs = (): number => Date.now() - latestMs

export function forgetNews(): void {
  clearTimeout(timer)
  timer = undefined
  hearers.clear()
  isHearing = false
}
