/** What is due as iCalendar (RFC 5545): a day each, its printer and what to do; no job, no person, no reason. */
import { createHash } from 'node:crypto'
import { ICalCalendar, ICalEventTransparency } from 'ical-generator'
import type { DueItem } from '#shared/answers/due'
import type { Connection } from '../../db/client'
import { shopSettings } from '../shop/settings'
import { dueItems } from './due'

export async function calendarOf(db: Connection): Promise<string> {
  const [items, { shopName, timeZone }] = await Promise.all([dueItems(db), shopSettings(db)])
  return calendarText(items, shopName || 'Print shop', timeZone, new Date())
}

/** The same day for everybody: the shop's. */
const dayIn = (zone: string, at: Date) => new Intl.DateTimeFormat('en-CA', { timeZone: zone }).format(at)

export function calendarText(items: readonly DueItem[], shopName: string, zone: string, now: Date): string {
  const calendar = new ICalCalendar({
    name: `${shopName}: what is due`,
    prodId: { company: 'Iron Nozzle', product: 'due' },
  })
  for (const i of items) {
    const at = new Date(i.snoozed?.until ?? i.on ?? now.toISOString())
    const day = dayIn(zone, at > now ? at : now)
    const next = new Date(`${day}T00:00:00Z`)
    next.setUTCDate(next.getUTCDate() + 1)
    calendar.createEvent({
      id: `${createHash('sha256').update(i.key).digest('hex').slice(0, 32)}@iron-nozzle`,
      start: `${day}T00:00:00`,
      end: `${next.toISOString().slice(0, 10)}T00:00:00`,
      allDay: true,
      floating: true,
      stamp: now,
      summary: [i.printer, i.about, i.action].filter(Boolean).join(': '),
      transparency: ICalEventTransparency.TRANSPARENT,
    })
  }
  return calendar.toString()
}
