/* eslint-disable max-lines -- one list: a function for each line of the check */
/**
 * "May I press start": the job file, the spool and the printer as they stand, one line each. Thresholds are common
 * practice, no source, unless the line says where they come from.
 */
import { ANY_C, readSurface, surfaceText } from '../limits'
import { capital, celsius, chance, counted, FOR_GOOD_H, grams, hours, kgEstimate, listed } from '../words'
import type { GuardState } from '../chamber'
import { letDownToC } from '../cooling'
import { compareJob, countWords, differsWords, ofJob, recordOf } from '../cards'
import { sustainedWords } from '../flow'
import { PROBABLY_PAST } from '../schedule'
import { drynessFixes, drynessFor, takesNoWater } from '../drying'
import { CHANCE, need, needEach, needIfKnown } from '../numeric'
import { SETPOINT_C } from '../gcode'
import { checkWindow } from './profile'
import {
  bedWindow,
  chamberStands,
  fanStands,
  FAN_MOST,
  flowStands,
  headStands,
  setpointsStand,
  sheetStands,
} from './stands'
import type { CheckLine, CheckStatus, LimitLine, PrecheckFacts } from './types'

/** First layers of filled and hot filament: not faster, not thinner. */
export const FIRST_LAYER = { fastestMmS: 25, thinnestOfBore: 0.4 }

/** What ends a nozzle whatever its bore: it may come apart in the machine. */
const NEVER_RUN_SHAPES: readonly string[] = ['cracked body', 'loose insert']

type More = Partial<Pick<CheckLine, 'fix' | 'where' | 'waivable' | 'reasons'>>
const line = (key: CheckLine['key'], status: CheckStatus, says: string, more: More = {}): CheckLine => ({
  key,
  status,
  says,
  fix: '',
  where: null,
  waivable: true,
  reasons: [],
  ...more,
})
/** Reasons that people give. */
const WATCHED = 'watched until the first layers are on'
const AGREED = 'agreed with the shop lead'
const TRIAL = 'a trial piece'

/** Numbers that are none never become a line: NaN compares as if all were well. */
function checkFacts(f: PrecheckFacts): void {
  needEach(f.job, ['nozzleC', 'bedC', 'chamberC'], ...SETPOINT_C, '°C')
  needEach(f.made, ['nozzleC', 'bedC'], ...ANY_C, '°C')
  needEach(f.job, ['peakMm3S', 'hours', 'massG', 'fibreG'], 0, 1e12)
  needIfKnown('fanMax', f.job.fanMax, 0, 1e12)
  if (f.job.firstLayer) needEach(f.job.firstLayer, ['heightMm', 'meanMmS'], 0, 1e12)
  for (const m of [f.material, ...f.others]) checkWindow(m)
  needEach(f.material, ['chamberMinC', 'chamberMaxC'], ...SETPOINT_C, '°C')
  needEach(f.material, ['shortMaxC', 'glassC'], ...ANY_C, '°C')
  need('nozzleOffsetC', f.nozzleOffsetC, -100, 100, '°C')
  if (f.air) {
    for (const k of ['coolestC', 'headC'] as const) need(k, f.air[k], ...ANY_C, '°C')
    need('u90', f.air.u90, 0, 1000, '°C')
  }
  if (f.nozzle) {
    need('boreMm', f.nozzle.boreMm, 0.01, 5, 'mm')
    needIfKnown('provenMm3S', f.nozzle.provenMm3S, 0, 1e4, 'mm³/s')
    if (f.nozzle.bench) needEach(f.nozzle.bench.sustained, ['flowMm3S', 'low80', 'high80', 'temperatureC'], 0, 1e4)
    if (f.nozzle.left)
      for (const k of ['low80G', 'medianG', 'high80G'] as const) need(k, f.nozzle.left[k], 0, Infinity, 'g')
    need('pastChance', f.nozzle.pastChance, ...CHANCE)
    needIfKnown('purgeC', f.nozzle.holds?.purgeC, ...ANY_C, '°C')
  }
  if (f.worked) needEach(f.worked, ['good', 'failed'], 0, 1e9)
  if (f.spool) need('leftG', f.spool.leftG, -1e6, 1e6, 'g')
  if (f.soak) need('leftMin', f.soak.leftMin, -1e9, Infinity, 'min')
  for (const t of [f.dryness, f.clean, f.inBox])
    if (t) for (const k of ['strandH', 'woundH'] as const) need(k, t[k], 0, Infinity, 'h')
}

/**
 * The lines of "may I press start": whether the printer is ready for work, may take it and is guarded, profile, what
 * worked, limits, what stands in the nozzle, flow, wear, spool, water, surface, level, first layer, fan, lid, chamber,
 * soak, the shop's own, and what comes after; each with what it rests on and where that is changed. Facts in °C, mm³/s,
 * g, h and min; what is not known (null) is never a pass. Throws InputError for a number outside its range.
 */
export function precheck(f: PrecheckFacts): CheckLine[] {
  checkFacts(f)
  return [
    ...ready(f),
    ...restricted(f),
    ...guarded(f),
    profile(f),
    ...worked(f),
    ...limits(f),
    ...inTheNozzle(f),
    flow(f),
    wear(f),
    spool(f),
    dryness(f),
    surface(f),
    level(f),
    firstLayer(f),
    fan(f),
    lid(f),
    chamber(f),
    soak(f),
    ...f.own.map(says => line('own', 'confirm', says)),
    ...afterwards(f),
  ]
}

/** Nothing is started on a printer that somebody left half done, took out of service, or left a note on. */
const ready = (f: PrecheckFacts): CheckLine[] =>
  f.notReady.map(n => line('ready', 'stop', n.reason, { fix: n.action, where: 'change', waivable: false }))

/** What only the one who chose the job knows: whether the printer may take it. */
const restricted = (f: PrecheckFacts): CheckLine[] =>
  f.restrictions.length === 0
    ? []
    : [line('restrictions', 'confirm', `This job may run here, by its restrictions: ${f.restrictions.join('; ')}.`)]

/**
 * A heater that nothing stops is not left alone: a guard that did not trip, or was changed since it did. One that was
 * never tested or is due again is told by what is due; it says nothing against this job.
 */
function guarded(f: PrecheckFacts): CheckLine[] {
  const all = (state: GuardState) => f.guards.filter(g => g.state === state).map(g => g.guard)
  const more: More = { where: 'upkeep', reasons: ['a person stays by it until it is cold'] }
  const failed = all('failed')
  const changed = all('changed since')
  const lines: CheckLine[] = []
  if (failed.length > 0)
    lines.push(
      line('guards', 'stop', `Did not trip when tested: the ${listed(failed, 'and')}. Nobody leaves this job alone.`, {
        fix: 'Mend it, and test it again',
        ...more,
      }),
    )
  if (changed.length > 0)
    lines.push(
      line('guards', 'look', `Not proved since heater or sensor was changed: the ${listed(changed, 'and')}.`, {
        fix: 'Test it, with somebody beside it',
        ...more,
      }),
    )
  return lines
}

function profile(f: PrecheckFacts): CheckLine {
  const { job, made, material: m } = f
  if (job.nozzleC === null && job.bedC === null)
    return line('profile', 'unknown', 'The file sets no temperatures, so its profile cannot be told.', {
      fix: 'Enter the setpoints that will be used',
      where: 'file',
      waivable: false,
    })
  // nobody waives what burns the filament
  if (made.nozzleC !== null && m.shortMaxC !== null && made.nozzleC > m.shortMaxC)
    return line(
      'profile',
      'stop',
      `Nozzle ${setMakes(job.nozzleC!, made.nozzleC)}; ${m.name} stands ${m.shortMaxC} °C for a short time at most: ` +
        'it decomposes and fumes.',
      { fix: `Make the file again with the profile for ${m.name}`, where: 'file', waivable: false },
    )
  if (m.nozzleMinC === null || m.nozzleMaxC === null)
    return line('profile', 'unknown', `${m.name} has no nozzle window.`, {
      fix: 'Enter its window',
      where: 'material',
      waivable: false,
    })
  const { nozzleC, bedC } = made
  const stand = setpointsStand(f)!
  const wrong: string[] = []
  if (stand.nozzle !== null)
    wrong.push(`nozzle ${setMakes(job.nozzleC!, nozzleC!)}, ${m.name} wants ${m.nozzleMinC} to ${m.nozzleMaxC}`)
  if (stand.bed !== null)
    wrong.push(`bed ${setMakes(job.bedC!, bedC!)}, ${m.name} wants ${bedWindow(m.beds).join(' to ')}`)
  if (wrong.length === 0) {
    const set = [job.nozzleC !== null ? `nozzle ${job.nozzleC}` : '', job.bedC !== null ? `bed ${job.bedC}` : '']
    return line('profile', 'ok', `Setpoints fit ${m.name}: ${set.filter(Boolean).join(', ')} °C.`)
  }
  const { like } = stand
  return line(
    'profile',
    like || wrong.length > 1 ? 'stop' : 'look',
    `${capital(wrong.join('; '))}.${like ? ` It looks like a profile for ${like}.` : ''}`,
    { fix: `Make the file again with the profile for ${m.name}`, where: 'file', reasons: [TRIAL, AGREED] },
  )
}

/** The file against what worked with this filament, nozzle type and printer. */
function worked(f: PrecheckFacts): CheckLine[] {
  const w = f.worked
  if (w === null) return []
  const tried = recordOf(w.good, w.failed)
  if (tried === 'nothing tried' && w.values.length === 0)
    return [line('what worked', 'note', `${f.material.name} was not printed here with such a nozzle before.`)]
  const compared = compareJob(w.values, ofJob(f.job))
  const counts = tried === 'nothing tried' ? 'no run yet' : countWords(w.good, w.failed)
  const more = { fix: 'Change the file, or put its card right', where: 'card' as const, reasons: [TRIAL, AGREED] }
  if (compared.differs.length > 0)
    return [line('what worked', 'look', `Not as it worked here (${counts}): ${differsWords(compared)}.`, more)]
  if (tried === 'mostly fails')
    return [line('what worked', 'look', `Most of it failed here: ${counts}.`, { ...more, fix: 'See its card' })]
  if (compared.same.length === 0) return [line('what worked', 'note', `Printed here before: ${counts}.`)]
  return [line('what worked', 'ok', `As it worked here: ${counts}.`)]
}

/** A setpoint with what it makes where its sensor was found to be off. */
const setMakes = (setC: number, madeC: number) =>
  Math.abs(setC - madeC) < 0.05 ? `${setC} °C` : `${setC} °C (${celsius(madeC)} by the check of its sensor)`

function limits(f: PrecheckFacts): CheckLine[] {
  if (f.limits.length === 0) return [line('limits', 'ok', 'The printer stands what the file asks.')]
  const just = f.limits.filter(l => l.status === 'just' && !l.sensor)
  const others = f.limits.filter(l => l.status !== 'just' || l.sensor).map(limitLine)
  if (just.length === 0) return others
  // one place to measure, one line: the worst is said in full
  const more = just.length > 1 ? `; and ${counted(just.length - 1, 'part')} more in the heat` : ''
  const measured = line('limits', 'look', `${capital(just[0]!.says)}: just${more}.`, {
    fix: 'Measure the air there: survey the chamber',
    where: 'survey',
    reasons: ['a person stays by it', AGREED],
  })
  return [...others.filter(l => l.status === 'stop'), measured, ...others.filter(l => l.status !== 'stop')]
}

function limitLine(l: LimitLine): CheckLine {
  const says = `${capital(l.says)}.`
  if (l.status === 'short')
    return line('limits', 'stop', says, {
      fix: 'Change the file, or see what would change it',
      where: 'equip',
      waivable: false,
    })
  if (l.status === 'just')
    return line('limits', 'look', `${says.slice(0, -1)}: just, by what is known of its sensor.`, {
      fix: 'Check its sensor with a surer reference',
      where: 'sensor',
      reasons: ['a person stays by it', AGREED],
    })
  if (l.status === 'unknown')
    return line('limits', 'unknown', says, { fix: 'Enter it with the parts', where: 'stack', waivable: false })
  return line('limits', l.eye ? 'confirm' : 'note', says)
}

function inTheNozzle(f: PrecheckFacts): CheckLine[] {
  const holds = f.nozzle?.holds
  if (!f.nozzle) return []
  if (!holds)
    return [
      line('in the nozzle', 'unknown', `What stands in ${f.nozzle.tag} is not logged.`, {
        fix: 'Log the purge',
        where: 'changeover',
        reasons: ['a new nozzle', 'purged clear before'],
      }),
    ]
  if (holds.same) return [line('in the nozzle', 'ok', `${holds.name} went through ${f.nozzle.tag} last.`)]
  const at = holds.purgeC === null ? '' : ` at ${holds.purgeC} °C`
  return [
    line('in the nozzle', 'stop', `${holds.name} still stands in ${f.nozzle.tag}; ${f.material.name} comes next.`, {
      fix: `Purge it first${at}`,
      where: 'changeover',
      reasons: ['purged clear, not logged'],
    }),
  ]
}

function flow(f: PrecheckFacts): CheckLine {
  const peak = f.job.peakMm3S
  const reasons = [WATCHED, TRIAL]
  if (peak === null) return line('flow', 'unknown', 'The file does not tell its flow.', { reasons })
  if (f.nozzle?.bench) return benched(peak, f.nozzle.bench)
  const proven = f.nozzle?.provenMm3S ?? null
  if (proven === null)
    return line('flow', 'unknown', `Peak flow ${peak.toFixed(1)} mm³/s; what this nozzle sustains is not known yet.`, {
      fix: 'A finished run of this filament proves it',
      reasons,
    })
  return peak <= proven * 1.05
    ? line('flow', 'ok', `Peak flow ${peak.toFixed(1)} mm³/s; this nozzle has finished runs at ${proven.toFixed(1)}.`)
    : line(
        'flow',
        'look',
        `Peak flow ${peak.toFixed(1)} mm³/s is above the ${proven.toFixed(1)} that this nozzle has finished runs at.`,
        { fix: 'Slow it down in the file', where: 'file', reasons },
      )
}

/** A bench knows more than runs that were finished: what is above it comes out thin, whoever finished what. */
function benched(peak: number, { sustained: s, on }: NonNullable<NonNullable<PrecheckFacts['nozzle']>['bench']>) {
  const by = `on ${on} it sustained ${sustainedWords(s)}`
  const says = `Peak flow ${peak.toFixed(1)} mm³/s; ${by}`
  const slower = { fix: 'Slow it down in the file', where: 'file' as const, reasons: [WATCHED, TRIAL] }
  const stands = flowStands(peak, s)
  if (stands === 'sustained') return line('flow', 'ok', `${says}.`)
  if (stands === 'not tried')
    return line('flow', 'look', `${says}: faster was not tried.`, {
      ...slower,
      fix: 'Bench it faster, or slow it down',
    })
  return stands === 'above'
    ? line('flow', 'look', `${says}: more comes out thin.`, slower)
    : line('flow', 'look', `${says}: perhaps too fast.`, slower)
}

function wear(f: PrecheckFacts): CheckLine {
  const n = f.nozzle
  const gauge = { where: 'gauge' as const, reasons: ['gauged right after this job', AGREED] }
  if (n === null) return line('wear', 'stop', 'No nozzle is fitted.', { fix: 'Fit one', where: 'fit', waivable: false })
  const broken = n.shape.filter(s => NEVER_RUN_SHAPES.includes(s))
  if (broken.length > 0)
    return line('wear', 'stop', `${n.tag} has a ${listed(broken, 'and')}: it can come apart in the machine.`, {
      fix: 'Fit another',
      where: 'fit',
      waivable: false,
    })
  const asks = f.job.fibreG
  if (n.pastChance > PROBABLY_PAST)
    return line('wear', 'stop', `${n.tag} is more likely past its limit than not (${chance(n.pastChance)}).`, {
      fix: 'Gauge it, or fit another',
      ...gauge,
    })
  if (asks === null)
    return line('wear', 'unknown', 'What fibre the job takes is not known.', {
      fix: 'Enter density and filler of the filament',
      where: 'material',
      reasons: gauge.reasons,
    })
  if (asks === 0)
    return line(
      'wear',
      n.pastChance > 0.1 ? 'look' : 'ok',
      `The job takes no fibre; the chance that ${n.tag} is past its limit is ${chance(n.pastChance)}.`,
      n.pastChance > 0.1 ? { fix: 'Gauge it', ...gauge } : {},
    )
  if (n.left === null)
    return line('wear', 'unknown', `How much fibre ${n.tag} still takes is not known.`, { fix: 'Gauge it', ...gauge })
  if (asks > n.left.medianG)
    return line('wear', 'stop', `The job takes ${grams(asks)} of fibre; ${n.tag} has ${leftOf(n.left)} left.`, {
      ...gauge,
      fix: 'Fit another nozzle',
      where: 'fit',
    })
  if (asks > n.left.low80G)
    return line(
      'wear',
      'look',
      `The job takes ${grams(asks)} of fibre; ${n.tag} has ${leftOf(n.left)} left: perhaps too little.`,
      { fix: 'Gauge it first', ...gauge },
    )
  return line('wear', 'ok', `The job takes ${grams(asks)} of fibre; ${n.tag} has ${leftOf(n.left)} left.`)
}
const leftOf = (g: { low80G: number; medianG: number; high80G: number }) =>
  kgEstimate({ median: g.medianG / 1000, low80: g.low80G / 1000, high80: g.high80G / 1000 })

function spool(f: PrecheckFacts): CheckLine {
  if (f.spool === null)
    return line('spool', 'unknown', 'No spool is chosen, so what is left on it is not known.', {
      fix: 'Choose the spool',
      where: 'file',
      reasons: ['a spool the shop has not entered'],
    })
  if (f.job.massG === null)
    return line('spool', 'unknown', 'What the job weighs is not known.', {
      fix: 'Enter the density of the filament',
      where: 'material',
      reasons: [WATCHED],
    })
  const short = f.job.massG - f.spool.leftG
  if (short > 0)
    return line(
      'spool',
      'stop',
      `The job takes ${grams(f.job.massG)} and ${f.spool.tag} has ${grams(Math.max(0, f.spool.leftG))}: ` +
        `${grams(short)} short.`,
      { fix: 'Load a fuller spool, or weigh this one', where: 'spool', reasons: ['changed over while it prints'] },
    )
  const close = f.spool.leftG - f.job.massG < 0.05 * f.job.massG + 5
  return line(
    'spool',
    close ? 'look' : 'ok',
    `The job takes ${grams(f.job.massG)}; ${f.spool.tag} has ${grams(f.spool.leftG)}.`,
    close ? { fix: 'Weigh it: this is close', where: 'spool', reasons: ['weighed just now'] } : {},
  )
}

function dryness(f: PrecheckFacts): CheckLine {
  const t = f.dryness
  const wet = { reasons: [TRIAL, AGREED] }
  if (takesNoWater(f.material.polymer)) return line('dryness', 'ok', `${f.material.name} takes up no water.`)
  if (t === null)
    return line('dryness', 'unknown', f.drynessMissing, {
      fix: 'Log where the spool stood, or dry it',
      where: f.spool ? 'dry' : 'file',
      ...wet,
    })
  if (t.woundH <= 0)
    return line('dryness', f.wet, 'The spool is too wet to print now.', { fix: 'Dry it first', where: 'dry', ...wet })
  if (f.job.hours === null)
    return line('dryness', 'unknown', 'How long the job takes is not known.', {
      fix: 'Enter the hours',
      where: 'hours',
      ...wet,
    })
  const d = drynessFor(f.job.hours, t)
  const where = `in the ${f.printsFrom}`
  const stay = t.woundH < FOR_GOOD_H ? `stays dry ${hours(t.woundH)} ${where}` : `stays dry ${where}`
  const fix = drynessFixes(f.job.hours, t, f.printsFrom === 'room' ? f.inBox : null)
  if (d === 'outlasts')
    return line('dryness', f.wet, `The job takes ${hours(f.job.hours)} and the spool ${stay}.`, {
      fix,
      where: 'dry',
      ...wet,
    })
  if (d === 'outer turns')
    return line(
      'dryness',
      'look',
      `The job takes ${hours(f.job.hours)}; the spool ${stay}, but its outer turns only ${hours(t.strandH)}.`,
      { fix, where: 'dry', reasons: ['the outer turns are pulled off first', ...wet.reasons] },
    )
  const cleanH = f.clean?.woundH ?? 0
  if (cleanH > 0 && cleanH >= f.job.hours)
    return line('dryness', 'ok', `The job takes ${hours(f.job.hours)}; the spool ${stay}, and clean.`)
  return line(
    'dryness',
    'look',
    `The job takes ${hours(f.job.hours)}; the spool ${stay} by what usually prints. Clean it is ` +
      `${cleanH <= 0 ? 'not' : `for ${hours(cleanH)}`}.`,
    { fix: 'Drier is cleaner', where: 'dry', reasons: ['it usually prints so', ...wet.reasons] },
  )
}

function surface(f: PrecheckFacts): CheckLine {
  const wants = f.material.surfaces
  if (wants.length === 0)
    return line('surface', 'unknown', `No build surface is entered for ${f.material.name}.`, {
      fix: 'Enter it with its practice',
      where: 'material',
      reasons: [TRIAL],
    })
  if (f.fittedSurface === null)
    return line('surface', 'unknown', `Which sheet is on is not entered; ${f.material.name} wants ${listed(wants)}.`, {
      fix: 'Enter the sheet with the parts',
      where: 'stack',
      reasons: [`looked: it is ${wants[0]}`],
    })
  const fits = sheetStands(f)!.map(surfaceText)
  if (fits.length === 0)
    return line('surface', 'stop', `${f.material.name} wants ${listed(wants)}; the ${f.fittedSurface} sheet is on.`, {
      fix: 'Change the sheet',
      where: 'stack',
      reasons: [TRIAL],
    })
  return line('surface', 'confirm', `${listed(fits)}: clean, adhesive on, brim for little contact.`)
}

/** Nobody can tell from here whether it was switched off: eyes and a feeler gauge do. */
function level(f: PrecheckFacts): CheckLine {
  const fitted = f.nozzle?.fittedSinceRun
    ? `${f.nozzle.tag} was fitted since the last run here: Z set anew, levelled hot.`
    : null
  const bed = f.level === null ? null : `Bed, ${f.level.on}: ${f.level.says}`
  const says = (...parts: (string | null)[]) => parts.filter(p => p !== null).join(' ')
  if (f.zLost !== null)
    return line('level', 'look', says(f.zLost, fitted, bed), {
      fix: 'Enter it again at the printer, set Z by feeler, and log it',
      where: 'level',
      reasons: ['entered again at the printer', WATCHED],
    })
  if (f.level?.mark === 'look')
    return line('level', 'look', says(fitted, bed), {
      fix: f.level.action,
      where: 'level',
      reasons: ['the printer evens it out', 'a small part where it is flat', WATCHED],
    })
  const asked = fitted ?? 'Z and level: set anew after a power-off or a nozzle change, and checked hot.'
  return line('level', 'confirm', says(asked, bed))
}

function firstLayer(f: PrecheckFacts): CheckLine {
  const l = f.job.firstLayer
  const more: More = { where: 'file', reasons: [WATCHED] }
  if (l === null)
    return line('first layer', 'unknown', 'The file does not show its first layer.', { reasons: [WATCHED] })
  const bore = f.nozzle?.boreMm ?? 0.4
  const shown = `First layer ${l.heightMm.toFixed(2)} mm at ${l.meanMmS.toFixed(0)} mm/s`
  if (l.meanMmS > FIRST_LAYER.fastestMmS)
    return line('first layer', 'look', `${shown}; 15 is usual, over ${FIRST_LAYER.fastestMmS} it lifts.`, {
      fix: 'Slow the first layer in the file',
      ...more,
    })
  if (l.heightMm < FIRST_LAYER.thinnestOfBore * bore)
    return line('first layer', 'look', `${shown}; thin for a ${bore} mm bore, 0.3 is usual.`, {
      fix: 'Make it thicker in the file',
      ...more,
    })
  return line('first layer', 'ok', `${shown}.`)
}

function fan(f: PrecheckFacts): CheckLine {
  if (f.job.fanMax === null)
    return line('fan', 'unknown', 'The file does not set the part fan.', { reasons: ['looked: it is off', WATCHED] })
  const share = Math.round(f.job.fanMax * 100)
  if (fanStands(f) === 'high')
    return line(
      'fan',
      'look',
      `Part fan up to ${share} %; ${f.material.name} wants it off, ${FAN_MOST * 100} % at most for bridges.`,
      { fix: 'Turn it down in the file', where: 'file', reasons: ['turned down at the printer', TRIAL] },
    )
  return line('fan', 'ok', `Part fan at most ${share} %.`)
}

function lid(f: PrecheckFacts): CheckLine {
  const m = f.material
  if (!f.enclosed)
    return m.chamber === 'needs'
      ? line(
          'lid and vent',
          'stop',
          `${m.name} needs a chamber${m.chamberMinC === null ? '' : ` of ${m.chamberMinC} °C`} and this printer ` +
            `has no enclosure.`,
          { fix: 'Use another printer', where: 'equip', reasons: [TRIAL, AGREED] },
        )
      : line('lid and vent', 'ok', 'Open frame: keep draughts off.')
  const atHead = headStands(f)
  if (m.chamber === 'indifferent' && atHead !== null && atHead !== 'ok')
    return line(
      'lid and vent',
      'confirm',
      `Lid off or vent open: shut, the air at the head would come to ${celsius(f.air!.headC)}, and ${m.name} takes ` +
        `${m.chamberMaxC} °C at most.`,
    )
  return line('lid and vent', 'confirm', 'Lid on, vent shut, tube not pinched.')
}

/** What the file makes of the chamber against what the filament needs, at the coolest place of the build. */
function chamber(f: PrecheckFacts): CheckLine {
  const { chamber: asks, chamberMinC: need_, name } = f.material
  if (asks === 'indifferent' || need_ === null) return line('chamber', 'ok', `${name} asks for no warm chamber.`)
  const stands = chamberStands(f)
  const wants = `${name} ${asks === 'needs' ? 'needs' : 'is better with'} ${need_} °C`
  const worst = asks === 'needs' ? ('stop' as const) : ('look' as const)
  const more: More = { where: 'file', reasons: asks === 'needs' ? [TRIAL, AGREED] : ['small part', TRIAL] }
  if (stands === 'none here')
    return line('chamber', worst, `${wants} in the chamber, and there is none here.`, {
      ...more,
      where: 'equip',
      fix: 'Use another printer',
    })
  if (f.air === null)
    return line('chamber', 'unknown', `The file sets nothing that warms the chamber; ${wants}.`, {
      ...more,
      fix: 'Set the bed or the chamber heater',
    })
  const at = `The file makes ${celsius(f.air.coolestC)} at the coolest place of the build, by ${f.air.from}`
  if (stands === 'ok') return line('chamber', 'ok', `${at}; ${wants}.`)
  const fix =
    f.heated && f.job.chamberC === null ? 'The file sets no chamber temperature: set it' : 'Set it hotter in the file'
  if (stands === 'short') return line('chamber', worst, `${at}; ${wants}.`, { ...more, fix })
  return line('chamber', 'look', `${at}, known to ${celsius(f.air.u90)}; ${wants}.`, {
    ...more,
    fix: 'Measure it: survey the chamber',
    where: 'survey',
  })
}

function soak(f: PrecheckFacts): CheckLine {
  const { chamber: asks, chamberMinC: target, name } = f.material
  if (!f.enclosed || target === null || asks === 'indifferent') return line('soak', 'ok', 'No soak is asked.')
  if (f.soak?.done) return line('soak', 'ok', 'Soaked.')
  if (f.soak?.running)
    return line('soak', 'look', `The soak has ${Math.ceil(f.soak.leftMin)} min to go.`, {
      fix: 'Wait for it',
      where: 'soak',
      reasons: ['small part'],
    })
  return line(
    'soak',
    asks === 'needs' ? 'stop' : 'look',
    `No soak was started; ${name} ${asks === 'needs' ? 'needs' : 'is better with'} ${target} °C in the chamber.`,
    {
      fix: 'Start the soak',
      where: 'soak',
      reasons: asks === 'needs' ? [AGREED] : ['small part', 'warm from the job before'],
    },
  )
}

/** What to do when it is done: part and glass ask for it. */
function afterwards(f: PrecheckFacts): CheckLine[] {
  const out: CheckLine[] = []
  const { name, chamber: asks, glassC } = f.material
  if (asks === 'needs' && f.enclosed)
    out.push(
      line(
        'after',
        'note',
        `When it is done: lid shut and the bed let down slowly` +
          `${glassC === null ? '' : `, until the part is below ${letDownToC(glassC)} °C`}. ${name} cracks ` +
          `when it is cooled fast.`,
      ),
    )
  if (f.fittedSurface !== null && readSurface(f.fittedSurface)?.sheet === 'glass')
    out.push(
      line(
        'after',
        'note',
        'When it is done: take the part off the glass while it is warm, in heat gloves; left to cool it ' +
          'pulls chips out.',
      ),
    )
  return out
}
