/** Lines of gauges and weighings: entries of a log, by the functions of a single one. */
import { sql } from 'drizzle-orm'
import { gaugeSchema } from '#shared/entries/nozzles'
import { spoolEventSchema } from '#shared/entries/spools'
import { grams } from '#core/words'
import { gaugeFoundWords } from '#shared/gauge-words'
import { iso } from '../../db/iso'
import { refuseField } from '../entry/refusal'
import { storeGauge } from '../nozzles/gauges'
import { saveSpoolEvent } from '../spools/spools'
import { added, checked, found, here, momentIn, need, numberOf, textOf, type SaveLine } from './line'

export const gauges: SaveLine = async (tx, line, by) => {
  const tag = need(line, 'nozzle', 'the nozzle')
  const nozzle = (await found(tx, 'nozzles', 'tag', tag)) ?? refuseField('nozzle', `No nozzle is ${tag}: add it first`)
  const occurredAt = momentIn(line, 'gauged', by)
  const g = {
    valueMm: numberOf(line, 'bore'),
    uMm: numberOf(line, 'boreU'),
    goMm: numberOf(line, 'go'),
    noGoMm: numberOf(line, 'noGo'),
    tipMm: numberOf(line, 'tip'),
  }
  const says = `${nozzle.tag}: ${gaugeFoundWords({ ...g, shape: [] })}`
  const [same] = await tx.execute(sql`
    select id from standing_gauges where nozzle_id = ${nozzle.id} and occurred_at = ${occurredAt}
      and value_mm is not distinct from ${g.valueMm}::float8 and go_mm is not distinct from ${g.goMm}::float8
      and no_go_mm is not distinct from ${g.noGoMm}::float8 and tip_mm is not distinct from ${g.tipMm}::float8`)
  if (same) return here(says)
  const body = checked(gaugeSchema, {
    ...g,
    nozzleId: nozzle.id,
    occurredAt,
    note: textOf(line, 'note'),
    confirmed: line.confirmed,
  })
  const { id } = await storeGauge(tx, body, by.personId)
  return { ...added(says), entry: { target: 'gauge', id, nozzleId: nozzle.id } }
}

export const weighings: SaveLine = async (tx, line, by) => {
  const tag = need(line, 'spool', 'the spool')
  const spool = (await found(tx, 'spools', 'tag', tag)) ?? refuseField('spool', `No spool is ${tag}: add it first`)
  const grossG = numberOf(line, 'gross') ?? refuseField('gross', 'Enter what the balance showed, g')
  const occurredAt = momentIn(line, 'weighed', by)
  const says = `${spool.tag}: ${grams(grossG)} on the balance`
  const [same] = await tx.execute(sql`
    select ${iso('occurred_at')} from standing_spool_events where spool_id = ${spool.id} and kind = 'weighed'
      and occurred_at = ${occurredAt} and gross_g = ${grossG}`)
  if (same) return here(says)
  const body = checked(spoolEventSchema, {
    spoolId: spool.id,
    kind: 'weighed',
    grossG,
    occurredAt,
    note: textOf(line, 'note'),
    confirmed: line.confirmed,
  })
  const { id } = await saveSpoolEvent(tx, body, by.personId)
  return { ...added(says), entry: { target: 'spool event', id, nozzleId: null } }
}
