/** Lives of nozzles by their type and by what wore them, from what gauges found. */
import { sql } from 'drizzle-orm'
import { boreLifeSpread, FEWEST_FAILURES, fitWeibull, lifeRecordOf, weibullRanges, type LifeRecord } from '#core/life'
import type { TypeLife } from '#shared/answers/lives'
import type { Connection } from '../../db/client'
import { nozzleTypes } from '../../db/schema'
import type { NozzleType } from './history'
import type { LifeFacts } from './life-facts'
import { sistersPrior } from './sisters'

interface State extends Record<string, unknown> {
  id: number
  tag: string
  typeId: number
  retired: boolean
  onForecast: boolean
  life: LifeFacts
}

/** What was told last, by what it was made from: thousands of nozzles are gone through when one of them changed. */
let told: { basis: string; lives: TypeLife[] } | null = null

/** All types that have nozzles: all together, and by what wore them where that differs. */
export async function typeLives(db: Connection): Promise<TypeLife[]> {
  const [made] = await db.execute<{ basis: string }>(sql`
    select concat_ws(' ', current_database(), count(*), sum(hashtextextended(concat_ws(' ', n.tag, n.type_id, s.kind,
      f.computed_at, f.past_chance >= x.accepted_risk), n.id)),
      (select string_agg(t.id || ':' || t.version, ' ' order by t.id) from nozzle_types t),
      (select string_agg(md5(m.sum::text), ' ' order by m.material) from sister_sums m)) basis
    from forecasts f join nozzles n on n.id = f.nozzle_id join nozzle_stands s on s.nozzle_id = n.id
    cross join settings x where f.life is not null`)
  const basis = made!.basis
  if (told?.basis !== basis) told = { basis, lives: await livesNow(db) }
  return told.lives
}

async function livesNow(db: Connection): Promise<TypeLife[]> {
  const [states, types] = await Promise.all([
    db.execute<State>(sql`
      select n.id, n.tag, n.type_id "typeId", coalesce(s.kind = 'retire', false) retired,
        f.past_chance >= x.accepted_risk "onForecast", f.life
      from forecasts f join nozzles n on n.id = f.nozzle_id join nozzle_stands s on s.nozzle_id = n.id
      cross join settings x where f.life is not null`),
    db.select().from(nozzleTypes),
  ])
  const lives = states
    .map(({ id, tag, typeId, retired, onForecast, life: { wasUsed, gauges, filler } }) => ({
      id,
      tag,
      typeId,
      filler,
      ...lifeRecordOf({ wasUsed, isRetired: retired, isOnForecast: onForecast, gauges }),
    }))
    .sort((a, b) => byTag.compare(a.tag, b.tag))
  const out: TypeLife[] = []
  for (const typeId of new Set(lives.map(l => l.typeId))) {
    const of = lives.filter(l => l.typeId === typeId)
    const fillers = [...new Set(of.map(l => l.filler).filter(f => f !== null))]
    const type = types.find(t => t.id === typeId)!
    const model = await modelOf(db, type)
    for (const filler of [null, ...(fillers.length > 1 ? fillers : [])]) {
      const group = filler === null ? of : of.filter(l => l.filler === filler)
      out.push({
        typeId,
        typeName: type.name,
        material: type.material,
        filler,
        nozzles: group.map(({ id, tag, end, record }) => ({ id, tag, end, record })),
        ...fitted(group.flatMap(l => l.record ?? [])),
        model,
      })
    }
  }
  return out.sort((a, b) => a.typeName.localeCompare(b.typeName, 'en', { numeric: true }))
}

/** N-9 before N-10; one for all, since making it costs more than using it. */
const byTag = new Intl.Collator('en', { numeric: true })

/** Fits by the records they were made of: the same records say the same. */
const known = new Map<string, Pick<TypeLife, 'fit' | 'cannotTell'>>()

function fitted(records: LifeRecord[]): Pick<TypeLife, 'fit' | 'cannotTell'> {
  const key = JSON.stringify(records)
  let made = known.get(key)
  if (!made) {
    if (known.size >= 500) known.clear()
    made = fit(records)
    known.set(key, made)
  }
  return made
}

function fit(records: LifeRecord[]): Pick<TypeLife, 'fit' | 'cannotTell'> {
  const failed = records.filter(r => r.kind !== 'survived').length
  if (failed < FEWEST_FAILURES) return { fit: null, cannotTell: tooFew(failed) }
  const found = fitWeibull(records)
  if ('cannotTell' in found) return { fit: null, cannotTell: found.cannotTell }
  const { shape, scale, b10, mean } = found
  return { fit: { shape, scale, b10, mean, ranges: weibullRanges(records, found) }, cannotTell: null }
}
const tooFew = (failed: number) =>
  `${failed === 0 ? 'none was' : `only ${failed} ${failed === 1 ? 'was' : 'were'}`} found past the limit; ` +
  `${FEWEST_FAILURES} are needed`

async function modelOf(db: Connection, type: NozzleType): Promise<TypeLife['model']> {
  if (type.boreGrowthLimit === null) return null
  const { prior, sisters } = await sistersPrior(db, type.material, null)
  return { ...boreLifeSpread(type.nominalBoreMm, type.boreGrowthLimit, prior, 1), sisters }
}
