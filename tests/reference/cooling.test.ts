/** Cooling down after a print against the equation of heat, and facts of the trade. */
import { describe, expect, test } from 'vitest'
import { DIFFUSIVITY } from '#core/anneal'
import { coolPlan, letDownCPerH, MOST_ACROSS_C, type CoolDown } from '#core/cooling'

/** Middle of a plate less its faces, °C, when they are let down by `cPerH` for so long: explicit differences. */
function across(thicknessMm: number, cPerH: number, hours: number): number {
  const n = 41
  const dx = thicknessMm / 1000 / (n - 1)
  const dt = (0.4 * dx * dx) / DIFFUSIVITY
  const t = new Float64Array(n)
  for (let s = 0; s < hours * 3600; s += dt) {
    t[0] = t[n - 1] = (-cPerH * s) / 3600
    const was = t.slice()
    for (let i = 1; i < n - 1; i++)
      t[i] = was[i]! + ((DIFFUSIVITY * dt) / dx ** 2) * (was[i - 1]! - 2 * was[i]! + was[i + 1]!)
  }
  return t[(n - 1) / 2]! - t[0]!
}

describe('how fast a part may be let down', () => {
  test.each([10, 20, 40])(
    '%d mm: the middle lags by r·L²/2α (Carslaw & Jaeger, section 3.4, from memory), as the equation of heat gives',
    thickness => {
      const rate = letDownCPerH(thickness)
      // long enough to be steady: several times L²/α
      const hours = (6 * (thickness / 2000) ** 2) / DIFFUSIVITY / 3600
      expect(across(thickness, rate, hours)).toBeCloseTo(MOST_ACROSS_C, 1)
    },
  )
  test('twice as thick is four times as slow', () => {
    expect(letDownCPerH(20) / letDownCPerH(40)).toBeCloseTo(4, 9)
  })
})

const pc = (more: Partial<CoolDown> = {}): CoolDown => ({
  polymer: 'PC',
  glassC: 147,
  chamber: 'needs',
  enclosed: true,
  bedC: 120,
  roomC: 23,
  thicknessMm: 30,
  surface: 'epoxy-glass laminate',
  ...more,
})

describe('facts of the trade (common practice, no source)', () => {
  test('off glass while it is warm, in gloves; off other sheets cold', () => {
    const glass = coolPlan(pc({ surface: 'glass + glue stick' })).takeOff
    expect(glass).toMatchObject({ how: 'warm', atC: 60 })
    expect(glass.says).toMatch(/heat gloves.*pulls chips out/)
    // PLA is soft at 60 °C: it comes off a little cooler
    expect(
      coolPlan(pc({ polymer: 'PLA', glassC: 60, chamber: 'indifferent', bedC: 60, surface: 'glass' })).takeOff.atC,
    ).toBe(45)
    expect(coolPlan(pc()).takeOff).toMatchObject({ how: 'cold', atC: 35 })
    expect(coolPlan(pc({ polymer: 'PETG', glassC: 80, surface: 'PEI' })).takeOff.says).toMatch(/bonds to bare PEI/)
  })
  test('what needs a warm chamber is held until it is warm through, and let down by its thickness', () => {
    const peek = coolPlan(pc({ polymer: 'PEEK', glassC: 143, bedC: 160 }))
    expect(peek.phases.map(p => p.name)).toEqual(['hold', 'let down', 'off'])
    expect(peek.rateCPerH).toBeCloseTo(letDownCPerH(30), 9)
    const [hold, down] = peek.phases
    expect(hold!.minutes).toBeGreaterThan(45)
    expect(down!.minutes).toBeCloseTo(((160 - 80) / letDownCPerH(30)) * 60, 6)
    // a thin one follows a bed that is switched off
    expect(coolPlan(pc({ polymer: 'PEEK', glassC: 143, bedC: 160, thicknessMm: 4 })).rateCPerH).toBeNull()
    // PLA on an open frame is switched off
    expect(coolPlan(pc({ chamber: 'indifferent', enclosed: false })).phases.map(p => p.name)).toEqual(['off'])
  })
  test('an estimate says how far it may be off, and what is not known is said', () => {
    const plan = coolPlan(pc({ glassC: null, surface: null }))
    const off = plan.phases.at(-1)!
    expect(off.low80).toBeLessThan(off.minutes)
    expect(off.high80).toBeGreaterThan(off.minutes)
    expect(plan.missing).toEqual(['its glass transition', 'the sheet that it stands on'])
    // Newton: from 120 to 35 °C in a room of 23 with 60 min: 60 · ln(97/12) = 125 min
    expect(coolPlan(pc({ chamber: 'indifferent' })).minutes).toBeCloseTo(60 * Math.log(97 / 12), 6)
  })
})
