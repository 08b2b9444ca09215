/** News of what was saved, as a browser hears them. */
import { z } from 'zod'
import { nozzleLine } from './nozzles'
import { printerLine } from './printers'
import { spoolRow } from './spools'
import { studyTurn } from './studies'

const id = z.number().int().optional()
export const newsItem = z.object({
  of: z.string(),
  id,
  nozzle: id,
  spool: id,
  printer: id,
  material: id,
  /** Of a forecast: its nozzle is rather past its limit than not. */
  past: z.boolean().optional(),
})
export type NewsItem = z.output<typeof newsItem>

/** What of the shop's names and numbers is new: all of it, or these lines. */
export const shopNews = z.object({
  whole: z.boolean(),
  nozzles: z.array(nozzleLine),
  spools: z.array(spoolRow),
  /** All of them, where one may have another nozzle, spool or job. */
  printers: z.array(printerLine).nullable(),
  counts: z.object({ studyTurn: studyTurn.nullable() }).nullable(),
})
export type ShopNews = z.output<typeof shopNews>

/** What a browser hears; without items it may have missed some, and reads everything. */
export const news = z.object({
  items: z.array(newsItem),
  shop: shopNews,
  /** The mark of these news: who reads again because of them says it, and shares what was begun after them. */
  heard: z.string(),
})
export type News = z.output<typeof news>
