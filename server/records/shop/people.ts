/** Who works here. */
import { asc } from 'drizzle-orm'
import type { z } from 'zod'
import type { personSchema } from '#shared/entries/shop'
import type { Connection } from '../../db/client'
import { people } from '../../db/schema'
import { unused } from '../entry/unused'

export async function addPerson(tx: Connection, p: z.output<typeof personSchema>): Promise<{ id: number }> {
  await unused(tx, people, 'name', p.name, 'a person called')
  const [row] = await tx.insert(people).values(p).returning({ id: people.id })
  return row!
}

/** The three roles a shop starts with, so that the first entry has a person. */
export async function firstPeople(tx: Connection): Promise<void> {
  const [some] = await tx.select({ id: people.id }).from(people).limit(1)
  if (some) return
  await tx.insert(people).values([
    { name: 'Day technician', role: 'technician' },
    { name: 'Night technician', role: 'technician' },
    { name: 'Shop lead', role: 'lead' },
  ])
}
export async function listPeople(db: Connection) {
  return await db.select().from(people).orderBy(asc(people.id))
}
