/**
 * What Equip works with, in one reading: stacks, shelf, materials, rules, and the shop's own mix. The verdicts are made
 * in the browser.
 */
import type { Buying, Equip, MixLine, UsedLine } from '#shared/answers/bench'
import { sql, type SQL } from 'drizzle-orm'
import { NOZZLE_MATERIALS, type NozzleMaterial } from '#core/wear'
import type { Connection } from '../../db/client'
import { standings } from '../change/under-way'
import { throughFitted } from '../prepare/changeovers'
import { listAskings } from '../materials/materials'
import { shopRules } from '../printers/ceilings'
import { sistersPrior } from '../nozzles/sisters'
import { typeLives } from '../nozzles/lives'
import { hotendsNow } from '../printers/hotends'
import { listChanges, listShelf, listSpareNozzles, listStacks } from '../printers/stack-read'
import { shopSettings } from '../shop/settings'

const MIX_DAYS = 90

async function mixOf(db: Connection): Promise<MixLine[]> {
  return await db.execute<MixLine & Record<string, unknown>>(sql`
    select d.material_id "materialId", sum(d.extruded_g) / 1000 kg from material_days d
    where d.day > day_of(now()) - ${MIX_DAYS}::int group by d.material_id order by kg desc`)
}

/** What the shop's own finished jobs of a year set, by material; several tools of one job share its bed. */
async function usedOf(db: Connection): Promise<UsedLine[]> {
  const span = (low: SQL, high: SQL) =>
    sql`case when min(${low}) is null then null else json_build_array(min(${low}), max(${high})) end`
  return await db.execute<UsedLine & Record<string, unknown>>(sql`
    select d.material_id "materialId", ${span(sql`d.nozzle_low`, sql`d.nozzle_high`)} nozzle,
      ${span(sql`d.bed_low`, sql`d.bed_high`)} bed, ${span(sql`d.chamber_low`, sql`d.chamber_high`)} chamber
    from material_days d where d.day > day_of(now() - interval '1 year') and d.sets group by d.material_id`)
}

export async function equip(db: Connection): Promise<Equip> {
  const [printers, shelf, nozzles, materials, rules, settings, mix, used, changes, through, stand, hotends] =
    await Promise.all([
      listStacks(db),
      listShelf(db),
      listSpareNozzles(db),
      listAskings(db),
      shopRules(db),
      shopSettings(db),
      mixOf(db),
      usedOf(db),
      listChanges(db),
      throughFitted(db),
      standings(db),
      hotendsNow(db),
    ])
  return {
    hotends: hotends.filter(h => h.place === null && h.taken === null),
    printers: printers.filter(p => !p.outOfUse),
    shelf,
    nozzles,
    materials,
    rules,
    prices: settings.prices,
    currency: settings.currency,
    mix,
    mixDays: MIX_DAYS,
    used,
    changes,
    through,
    standing: [...stand].map(([printerId, standing]) => ({ printerId, standing })),
  }
}

export interface WearOfMaterial {
  material: NozzleMaterial
  meanLn: number
  sd: number
  sisters: number
}

/** Wear rate of each nozzle material as the shop's own gauges tell it, and what it prints. */
export async function buying(db: Connection): Promise<Buying> {
  const wear: WearOfMaterial[] = []
  for (const material of NOZZLE_MATERIALS) {
    const { prior, sisters } = await sistersPrior(db, material, null)
    wear.push({ material, ...prior, sisters })
  }
  const mix = await db.execute<Buying['mix'][number] & Record<string, unknown>>(sql`
    select d.material_id "materialId", m.name, sum(d.filled_g) / 1000 kg,
    sum(d.fibre_g) / sum(d.filled_g) "fillerFraction", m.abrasivity
    from material_days d join materials m on m.id = d.material_id
    where d.day > day_of(now()) - ${MIX_DAYS}::int
    group by d.material_id, m.name, m.abrasivity having sum(d.filled_g) > 0 order by kg desc`)
  const lives = (await typeLives(db)).flatMap(({ typeId, filler, fit, nozzles }) => {
    if (filler !== null || fit === null) return []
    const failures = nozzles.filter(n => n.end === 'found past its limit').length
    return { typeId, shape: fit.shape, scale: fit.scale, failures }
  })
  return { wear, mix, mixDays: MIX_DAYS, lives }
}
