/**
 * After the print: how long bed and chamber are held, how fast they are let down, and when the part comes off. °C, mm,
 * minutes. Sources: the middle of a plate whose faces change by r °C/s lags by r·L²/2α once that is steady (Carslaw &
 * Jaeger, Conduction of Heat in Solids, section 3.4, from memory); soak-through as in `anneal`; cooling by itself
 * Newton's law; what lets go warm or cold and all thresholds common practice, no source.
 */
import { DIFFUSIVITY, soakThroughH, THICKNESS_MM } from '../anneal'
import { need, needIfKnown } from '../numeric'
import { readSurface, welds, type ChamberLevel, type Sheet } from '../limits'

/** A bed as it was printed on, °C. */
export const BED_C = [0, 300] as const
/** Cooling slower than this past its glass transition, a large part keeps its shape, °C below it. */
export const COOL_BELOW_GLASS_C = 20
/** So much colder may the outside of a part be than its middle while it is let down, °C. */
export const MOST_ACROSS_C = 10
/** A bed that is switched off does not cool faster than this, °C per hour: what is allowed beyond asks nothing. */
const BY_ITSELF_C_PER_H = 120
/** Off glass while it is warm, between these, °C; off everything else below the last. */
const WARM_OFF_C = [45, 60] as const
const COLD_OFF_C = 35
/** What a switched-off machine takes to lose 63 % of its heat, minutes, and how far that may be off either way. */
const TAU_MIN = { enclosed: 60, open: 25 }
const TAU_RANGE = [0.6, 1.6] as const
/** What needs a warm chamber is let down to here in any case: a hot part cracks in cold air, °C. */
const SHOCK_C = 80
/** Without a glass transition it is let down to here, °C. */
const NO_GLASS_C = 60

/**
 * To where a part that needs a warm chamber is let down slowly, by its glass transition, °C: until it keeps its shape
 * and does not crack in cold air.
 *
 * @example
 * letDownToC(147) // 80 (°C)
 */
export function letDownToC(glassC: number): number {
  need('glassC', glassC, -150, 400, '°C')
  return Math.min(glassC - COOL_BELOW_GLASS_C, SHOCK_C)
}

export interface CoolDown {
  polymer: string
  glassC: number | null
  chamber: ChamberLevel
  enclosed: boolean
  /** As it was printed, °C. */
  bedC: number
  roomC: number
  /** Its thickest place. */
  thicknessMm: number
  /** Sheet with what is on it: "glass + glue stick"; null where none is described. */
  surface: string | null
}

export interface CoolPhase {
  name: 'hold' | 'let down' | 'off'
  fromC: number
  toC: number
  /** Likely, and 80 % between: a plan for the first two, an estimate for the last. */
  minutes: number
  low80: number
  high80: number
}
export interface CoolPlan {
  phases: CoolPhase[]
  minutes: number
  /** °C per hour while it is let down; null where it may be switched off at once. */
  rateCPerH: number | null
  takeOff: {
    how: 'warm' | 'cold'
    /** Take it off when the bed shows this: not hotter when cold, not colder when warm. */
    atC: number
    says: string
  }
  /** What is not known and would change the plan. */
  missing: string[]
}

/**
 * The fastest that a part may be let down, °C per hour, so that its middle is at most `acrossC` hotter than its faces.
 * Thickness 1 to 300 mm, acrossC 0.1 to 100 °C.
 *
 * @example
 * letDownCPerH(20) // 86 (°C per hour; 2 · 1.2e-7 m²/s · 10 °C / (0.01 m)²)
 */
export function letDownCPerH(thicknessMm: number, acrossC: number = MOST_ACROSS_C): number {
  need('thicknessMm', thicknessMm, ...THICKNESS_MM, 'mm')
  need('acrossC', acrossC, 0.1, 100, '°C')
  const half = thicknessMm / 2000
  return ((2 * DIFFUSIVITY * acrossC) / half ** 2) * 3600
}

/** How each sheet lets go; glass pulls chips out when the part cools on it. */
const LETS_GO: Record<Sheet, 'warm' | 'cold'> = {
  'PEI': 'cold',
  'epoxy-glass laminate': 'cold',
  'glass': 'warm',
  'polycarbonate': 'cold',
  'polypropylene': 'cold',
  'polyimide': 'cold',
  'carbon fibre plate': 'cold',
  'steel': 'cold',
  'aluminium': 'cold',
}

function takeOff(c: CoolDown): CoolPlan['takeOff'] {
  const s = c.surface === null ? null : readSurface(c.surface)
  if (s && LETS_GO[s.sheet] === 'warm') {
    const [low, high] = WARM_OFF_C
    const solid = c.glassC === null ? high : c.glassC - COOL_BELOW_GLASS_C
    const atC = Math.max(low, Math.min(high, solid))
    const says = `warm, in heat gloves, while the bed shows ${atC} °C or a little more: left to cool it pulls chips out`
    return { how: 'warm', atC, says }
  }
  if (s && s.adhesive === null && welds(c.polymer, s.sheet))
    return {
      how: 'cold',
      atC: COLD_OFF_C,
      says: `cold and slowly: it bonds to bare ${s.sheet}; next time something between`,
    }
  const says = s
    ? `cold, below ${COLD_OFF_C} °C: ${s.sheet} lets go by itself`
    : `cold, below ${COLD_OFF_C} °C and without force: what it stands on is not described`
  return { how: 'cold', atC: COLD_OFF_C, says }
}

/** Minutes by itself from one temperature to another in a room, by Newton's law; 0 where it is there. */
function byItself(fromC: number, toC: number, roomC: number, tauMin: number): number {
  if (toC >= fromC) return 0
  return tauMin * Math.log((fromC - roomC) / Math.max(1, toC - roomC))
}

/**
 * The plan of a cool-down. Bed 0 to 300 °C, room -20 to 60 °C, thickness 1 to 300 mm; a glass transition that is not
 * known (null) is said, and the part is let down to 60 °C. Throws InputError.
 */
export function coolPlan(c: CoolDown): CoolPlan {
  need('bedC', c.bedC, ...BED_C, '°C')
  need('roomC', c.roomC, -20, 60, '°C')
  needIfKnown('glassC', c.glassC, -150, 400, '°C')
  need('thicknessMm', c.thicknessMm, ...THICKNESS_MM, 'mm')
  const off = takeOff(c)
  const warm = c.enclosed && c.chamber !== 'indifferent'
  const phases: CoolPhase[] = []
  const planned = (name: CoolPhase['name'], fromC: number, toC: number, minutes: number) =>
    phases.push({ name, fromC, toC, minutes, low80: minutes, high80: minutes })
  if (warm && c.chamber === 'needs')
    planned('hold', c.bedC, c.bedC, Math.ceil((soakThroughH(c.thicknessMm) * 60) / 5) * 5)
  const solidC = c.glassC === null ? NO_GLASS_C : c.glassC - COOL_BELOW_GLASS_C
  const slowTo = c.glassC !== null && c.chamber === 'needs' ? letDownToC(c.glassC) : solidC
  const downC = Math.max(slowTo, off.atC)
  const rate = letDownCPerH(c.thicknessMm)
  let fromC = c.bedC
  let rateCPerH: number | null = null
  if (warm && downC < c.bedC && rate < BY_ITSELF_C_PER_H) {
    rateCPerH = rate
    planned('let down', c.bedC, downC, ((c.bedC - downC) / rate) * 60)
    fromC = downC
  }
  const alone = byItself(fromC, off.atC, c.roomC, c.enclosed ? TAU_MIN.enclosed : TAU_MIN.open)
  if (alone > 0)
    phases.push({
      name: 'off',
      fromC,
      toC: off.atC,
      minutes: alone,
      low80: alone * TAU_RANGE[0],
      high80: alone * TAU_RANGE[1],
    })
  return {
    phases,
    minutes: phases.reduce((sum, p) => sum + p.minutes, 0),
    rateCPerH,
    takeOff: off,
    missing: [
      ...(c.glassC === null && warm ? ['its glass transition'] : []),
      ...(c.surface === null ? ['the sheet that it stands on'] : []),
    ],
  }
}
