/**
 * "May I press start": the job file, the spool and the printer as they stand, one line each. Thresholds are common
 * practice, no source, unless the line says where they come from.
 */
import { onSheet, surfaceText } from '../limits'
import { FOR_GOOD_H, grams, hours } from '../words'
import { drynessFixes, drynessFor } from '../drying'
import { need, needEach, needIfKnown } from '../numeric'
import { SETPOINT_C } from '../gcode'
import { checkWindow, likeliest } from './profile'
import type { CheckLine, CheckStatus, PrecheckFacts } from './types'

/** First layers of filled and hot filament: not faster, not thinner. */
export const FIRST_LAYER = { fastestMmS: 25, thinnestOfBore: 0.4 }
/** Part fan for nylon and everything hotter: off, at most half for bridges. */
export const FAN_MOST = 0.5
const SLOW_COOLED = /^(pa\d|ppa|abs|asa|pc|pps|peek|pei|ppsu|psu|liquid)/i

const line = (key: CheckLine['key'], status: CheckStatus, says: string, fix = '', waivable = true): CheckLine => ({
  key,
  status,
  says,
  fix,
  waivable,
})

/** Numbers that are none never become a line: NaN compares as if all were well. */
function checkFacts(f: PrecheckFacts): void {
  needEach(f.job, ['nozzleC', 'bedC', 'chamberC'], ...SETPOINT_C, '°C')
  needEach(f.job, ['peakMm3S', 'hours', 'massG', 'fibreG'], 0, 1e12)
  needIfKnown('fanMax', f.job.fanMax, 0, 1e12)
  if (f.job.firstLayer) needEach(f.job.firstLayer, ['heightMm', 'meanMmS'], 0, 1e12)
  for (const m of [f.material, ...f.others]) checkWindow(m)
  needEach(f.material, ['chamberMinC', 'chamberMaxC'], ...SETPOINT_C, '°C')
  need('nozzleOffsetC', f.nozzleOffsetC, -100, 100, '°C')
  if (f.nozzle) {
    need('boreMm', f.nozzle.boreMm, 0.01, 5, 'mm')
    needIfKnown('provenMm3S', f.nozzle.provenMm3S, 0, 1e4, 'mm³/s')
    if (f.nozzle.left) for (const k of ['low80G', 'medianG'] as const) need(k, f.nozzle.left[k], 0, Infinity, 'g')
    need('pastChance', f.nozzle.pastChance, 0, 1)
  }
  if (f.spool) need('leftG', f.spool.leftG, -1e6, 1e6, 'g')
  if (f.soak) need('leftMin', f.soak.leftMin, -1e9, Infinity, 'min')
  for (const t of [f.dryness, f.inBox])
    if (t) for (const k of ['strandH', 'woundH'] as const) need(k, t[k], 0, Infinity, 'h')
}

/**
 * The lines of "may I press start": profile, limits, flow, wear, spool, water, surface, first layer, fan, lid and soak,
 * each with what it rests on. Facts in °C, mm³/s, g, h and min; what is not known (null) is never a pass. Throws
 * InputError for a number outside its range.
 */
export function precheck(f: PrecheckFacts): CheckLine[] {
  checkFacts(f)
  return [
    profile(f),
    ...limits(f),
    flow(f),
    wear(f),
    spool(f),
    dryness(f),
    surface(f),
    firstLayer(f),
    fan(f),
    lid(f),
    soak(f),
  ]
}

function profile(f: PrecheckFacts): CheckLine {
  const { job, material: m } = f
  if (job.nozzleC === null && job.bedC === null)
    return line(
      'profile',
      'unknown',
      'The file sets no temperatures, so its profile cannot be told.',
      "Check the printer's setpoints by hand",
    )
  if (m.nozzleMinC === null || m.nozzleMaxC === null)
    return line('profile', 'unknown', `${m.name} has no nozzle window.`, 'Enter it under Equip, Materials')
  const wrong: string[] = []
  if (job.nozzleC !== null && (job.nozzleC < m.nozzleMinC || job.nozzleC > m.nozzleMaxC + f.nozzleOffsetC))
    wrong.push(`nozzle ${job.nozzleC} °C, ${m.name} wants ${m.nozzleMinC} to ${m.nozzleMaxC}`)
  const low = Math.min(...m.beds.map(b => b[0])),
    high = Math.max(...m.beds.map(b => b[1]))
  if (job.bedC !== null && m.beds.length > 0 && (job.bedC < low || job.bedC > high))
    wrong.push(`bed ${job.bedC} °C, ${m.name} wants ${low} to ${high}`)
  if (wrong.length === 0) {
    const set = [job.nozzleC !== null ? `nozzle ${job.nozzleC}` : '', job.bedC !== null ? `bed ${job.bedC}` : '']
    return line('profile', 'ok', `Setpoints fit ${m.name}: ${set.filter(Boolean).join(', ')} °C.`)
  }
  const like = likeliest(
    job,
    f.others.filter(o => o.name !== m.name),
  )
  return line(
    'profile',
    like || wrong.length > 1 ? 'stop' : 'look',
    `${wrong.join('; ')}.${like ? ` It looks like a profile for ${like}.` : ''}`,
    `Make the file again with the profile for ${m.name}`,
  )
}

function limits(f: PrecheckFacts): CheckLine[] {
  if (f.limits.length === 0) return [line('limits', 'ok', 'The printer stands what the file asks.')]
  return f.limits.map(l =>
    line(
      'limits',
      l.status === 'short' ? 'stop' : l.status,
      `${l.says[0]!.toUpperCase()}${l.says.slice(1)}.`,
      l.status === 'unknown' ? 'Enter it under Equip, Stacks' : 'Ask under Equip what would change it',
      l.status !== 'short',
    ),
  )
}

function flow(f: PrecheckFacts): CheckLine {
  const peak = f.job.peakMm3S
  if (peak === null) return line('flow', 'unknown', 'The file does not tell its flow.')
  const proven = f.nozzle?.provenMm3S ?? null
  if (proven === null)
    return line(
      'flow',
      'unknown',
      `Peak flow ${peak.toFixed(1)} mm³/s; what this nozzle sustains is not known yet.`,
      'Watch the first walls; a finished run proves it',
    )
  return peak <= proven * 1.05
    ? line('flow', 'ok', `Peak flow ${peak.toFixed(1)} mm³/s; this nozzle has finished runs at ${proven.toFixed(1)}.`)
    : line(
        'flow',
        'look',
        `Peak flow ${peak.toFixed(1)} mm³/s is above the ${proven.toFixed(1)} that this nozzle has finished runs at.`,
        'Slow it down, or watch for thin lines',
      )
}

function wear(f: PrecheckFacts): CheckLine {
  const n = f.nozzle
  if (n === null) return line('wear', 'stop', 'No nozzle is fitted.', 'Fit one', false)
  const asks = f.job.fibreG
  if (n.pastChance > 0.5)
    return line(
      'wear',
      'stop',
      `${n.tag} is more likely past its limit than not (${Math.round(n.pastChance * 100)} %).`,
      'Gauge it, or fit another',
    )
  if (asks === null) return line('wear', 'unknown', 'What fibre the job takes is not known.')
  if (asks === 0)
    return line(
      'wear',
      n.pastChance > 0.1 ? 'look' : 'ok',
      `The job takes no fibre; ${n.tag} has a ${Math.round(n.pastChance * 100)} % chance of being past its limit.`,
      n.pastChance > 0.1 ? 'Gauge it' : '',
    )
  if (n.left === null) return line('wear', 'unknown', `How much fibre ${n.tag} still takes is not known.`, 'Gauge it')
  if (asks > n.left.medianG)
    return line(
      'wear',
      'stop',
      `The job takes ${grams(asks)} of fibre; ${n.tag} has about ${grams(Math.max(0, n.left.medianG))} left.`,
      'Fit another nozzle',
    )
  if (asks > n.left.low80G)
    return line(
      'wear',
      'look',
      `The job takes ${grams(asks)} of fibre; ${n.tag} has ${grams(n.left.medianG)} left, but perhaps only ` +
        `${grams(Math.max(0, n.left.low80G))}.`,
      'Gauge it first',
    )
  return line('wear', 'ok', `The job takes ${grams(asks)} of fibre; ${n.tag} has ${grams(n.left.medianG)} left.`)
}

function spool(f: PrecheckFacts): CheckLine {
  if (f.spool === null)
    return line('spool', 'unknown', 'No spool is chosen, so what is left on it is not known.', 'Choose the spool')
  if (f.job.massG === null)
    return line('spool', 'unknown', 'What the job weighs is not known.', 'Enter the density of the filament')
  const short = f.job.massG - f.spool.leftG
  if (short > 0)
    return line(
      'spool',
      'stop',
      `The job takes ${grams(f.job.massG)} and ${f.spool.tag} has ${grams(Math.max(0, f.spool.leftG))}: ` +
        `${grams(short)} short.`,
      'Load a fuller spool, or split the job',
    )
  return line(
    'spool',
    f.spool.leftG - f.job.massG < 0.05 * f.job.massG + 5 ? 'look' : 'ok',
    `The job takes ${grams(f.job.massG)}; ${f.spool.tag} has ${grams(f.spool.leftG)}.`,
    f.spool.leftG - f.job.massG < 0.05 * f.job.massG + 5 ? 'Weigh it: this is close' : '',
  )
}

function dryness(f: PrecheckFacts): CheckLine {
  const t = f.dryness
  if (t === null) return line('dryness', 'unknown', f.drynessMissing, 'Log where the spool stood, or dry it')
  if (f.job.hours === null) return line('dryness', 'unknown', 'How long the job takes is not known.', 'Enter the hours')
  const d = drynessFor(f.job.hours, t)
  const where = `in the ${f.printsFrom}`
  const stay = t.woundH < FOR_GOOD_H ? `stays dry ${hours(t.woundH)} ${where}` : `stays dry ${where}`
  if (d === 'wet') return line('dryness', 'stop', 'The spool is too wet to print now.', 'Dry it first')
  const fixes = drynessFixes(f.job.hours, t, f.printsFrom === 'room' ? f.inBox : null)
  if (d === 'outlasts')
    return line('dryness', 'stop', `The job takes ${hours(f.job.hours)} and the spool ${stay}.`, fixes)
  if (d === 'outer turns')
    return line(
      'dryness',
      'look',
      `The job takes ${hours(f.job.hours)}; the spool ${stay}, but its outer turns only ${hours(t.strandH)}.`,
      fixes,
    )
  return line('dryness', 'ok', `The job takes ${hours(f.job.hours)}; the spool ${stay}.`)
}

function surface(f: PrecheckFacts): CheckLine {
  const wants = f.material.surfaces
  if (wants.length === 0)
    return line(
      'surface',
      'unknown',
      `No build surface is entered for ${f.material.name}.`,
      'Enter it under Equip, Materials',
    )
  const fits = f.fittedSurface === null ? [] : onSheet(wants, f.fittedSurface).map(surfaceText)
  if (f.fittedSurface !== null && fits.length === 0)
    return line(
      'surface',
      'stop',
      `${f.material.name} wants ${wants.join(', or ')}; the ${f.fittedSurface} sheet is on.`,
      'Change the sheet',
    )
  return line(
    'surface',
    'confirm',
    f.fittedSurface === null
      ? `Put on ${wants.join(', or ')}.`
      : `${fits.join(', or ')}: clean, adhesive on, brim for little contact.`,
    'Look, then tick',
  )
}

function firstLayer(f: PrecheckFacts): CheckLine {
  const l = f.job.firstLayer
  if (l === null) return line('first layer', 'unknown', 'The file does not show its first layer.', 'Watch it')
  const bore = f.nozzle?.boreMm ?? 0.4
  const shown = `First layer ${l.heightMm.toFixed(2)} mm at ${l.meanMmS.toFixed(0)} mm/s`
  if (l.meanMmS > FIRST_LAYER.fastestMmS)
    return line(
      'first layer',
      'look',
      `${shown}; 15 is usual, over ${FIRST_LAYER.fastestMmS} it lifts.`,
      'Slow the first layer',
    )
  if (l.heightMm < FIRST_LAYER.thinnestOfBore * bore)
    return line('first layer', 'look', `${shown}; thin for a ${bore} mm bore, 0.3 is usual.`, 'Make it thicker')
  return line('first layer', 'ok', `${shown}.`)
}

function fan(f: PrecheckFacts): CheckLine {
  if (f.job.fanMax === null)
    return line('fan', 'unknown', 'The file does not set the part fan.', 'Check that it is off')
  const share = Math.round(f.job.fanMax * 100)
  if (f.job.fanMax > FAN_MOST && SLOW_COOLED.test(f.material.polymer))
    return line(
      'fan',
      'look',
      `Part fan up to ${share} %; ${f.material.name} wants it off, ${FAN_MOST * 100} % at most for bridges.`,
      'Turn it down in the file',
    )
  return line('fan', 'ok', `Part fan at most ${share} %.`)
}

function lid(f: PrecheckFacts): CheckLine {
  const m = f.material
  if (!f.enclosed)
    return m.chamberNeeded
      ? line(
          'lid and vent',
          'stop',
          `${m.name} needs a chamber of ${m.chamberMinC ?? '?'} °C and this printer has no enclosure.`,
          'Use another printer',
        )
      : line('lid and vent', 'ok', 'Open frame: keep draughts off.')
  return line(
    'lid and vent',
    'confirm',
    m.chamberMaxC !== null && m.chamberMinC === null
      ? `Lid off or vent open: ${m.name} wants the chamber below ${m.chamberMaxC} °C.`
      : 'Lid on, vent shut, tube not pinched.',
    'Look, then tick',
  )
}

function soak(f: PrecheckFacts): CheckLine {
  if (!f.enclosed || f.material.chamberMinC === null) return line('soak', 'ok', 'No soak is asked.')
  if (f.soak?.done) return line('soak', 'ok', 'Soaked.')
  if (f.soak?.running)
    return line('soak', 'look', `The soak has ${Math.ceil(f.soak.leftMin)} min to go.`, 'Wait for it')
  return line(
    'soak',
    f.material.chamberNeeded ? 'stop' : 'look',
    `No soak was started; ${f.material.name} wants ${f.material.chamberMinC} °C in the chamber.`,
    'Start the soak',
  )
}
