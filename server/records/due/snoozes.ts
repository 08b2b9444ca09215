/** Putting off what is due: why, and until when. */
import type { z } from 'zod'
import { mayBePutOff } from '#core/schedule'
import { MOST_SNOOZE_DAYS } from '#shared/choices'
import type { snoozeSchema } from '#shared/entries/due'
import type { Connection } from '../../db/client'
import { snoozes } from '../../db/schema'
import { notInFuture, refuseField } from '../entry/refusal'
import { dueItems } from './due'

export async function saveSnooze(
  tx: Connection,
  { confirmed: _, ...s }: z.output<typeof snoozeSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', s.occurredAt)
  const until = new Date(s.until)
  const days = (until.getTime() - Date.now()) / 86_400_000
  if (days <= 0) refuseField('until', 'Put it off to a day that is still to come')
  if (days > MOST_SNOOZE_DAYS) refuseField('until', `At most ${MOST_SNOOZE_DAYS} days: then it is looked at again`)
  const item = (await dueItems(tx)).find(i => i.key === s.key)
  if (!item) refuseField('key', 'This is not due any more')
  if (!mayBePutOff(item)) refuseField('key', 'What stops a printer is not put off: it can hurt or break')
  const [row] = await tx
    .insert(snoozes)
    .values({ ...s, says: item.reason, until, occurredAt, personId })
    .returning({ id: snoozes.id })
  return row!
}
