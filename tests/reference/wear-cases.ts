/** Histories of very different shape, for the posterior and for the brute-force program alike. */
import { mulberry32, normalDraw } from '#core/numeric'
import type { Case, Reading } from './brute-force'

const pins = (wearKg: number, goMm: number | null, noGoMm: number | null, more: object = {}): Reading => ({
  kind: 'pins',
  wearKg,
  goMm,
  noGoMm,
  uMm: 0.003,
  ...more,
})
const value = (wearKg: number, valueMm: number, uMm: number): Reading => ({ kind: 'value', wearKg, valueMm, uMm })

const base: Omit<Case, 'readings'> = {
  law: 'sliding',
  nominalMm: 0.4,
  wasUsed: false,
  prior: { meanLn: Math.log(0.03), sd: 0.8 },
  misread: 0.03,
  otherBore: 0.03,
  nowKg: 1,
  limitMm: 0.44,
}
const linear = { law: 'linear' as const }
const pure = { misread: 0, otherBore: 0 }

/** The ridge that the search box used to clip. */
const RIDGE: [number, number][] = [
  [0.0212, 0.4141],
  [0.0423, 0.418],
  [0.0635, 0.4173],
  [0.0846, 0.4178],
  [0.1058, 0.4202],
  [0.1269, 0.4207],
  [0.1481, 0.4204],
  [0.1693, 0.4221],
  [0.1904, 0.4231],
  [0.2116, 0.4229],
  [0.2327, 0.4237],
  [0.2539, 0.4238],
  [0.275, 0.4247],
  [0.2962, 0.4259],
  [0.3174, 0.4279],
  [0.3385, 0.4278],
  [0.3597, 0.4271],
  [0.3808, 0.4296],
  [0.402, 0.4292],
  [0.4231, 0.4299],
]
const ridge = RIDGE.map(([kg, mm]) => value(kg, mm, 0.001))

/** n readings of a bore that grows as it should, with noise and now and then a misreading. */
function made(
  seed: number,
  n: number,
  uMm: number,
  o: {
    kind?: 'pins' | 'value'
    bad?: number
    d0?: number
    kappa?: number
    end?: number
    marked?: boolean
    nominalMm?: number
    law?: 'sliding' | 'linear'
  } = {},
): Reading[] {
  const random = mulberry32(seed)
  const { kind = 'pins', bad = 0, kappa = 0.03, end = 1.4, marked = false, nominalMm = 0.4, law = 'sliding' } = o
  const d0 = o.d0 ?? nominalMm
  return Array.from({ length: n }, (_, i) => {
    const wearKg = Number(((end * (i + 1)) / n).toFixed(5))
    let d =
      law === 'sliding' ? Math.cbrt(d0 ** 3 + 0.48 * kappa * wearKg) : d0 + kappa * (0.4 / nominalMm) ** 2 * wearKg
    d += uMm * normalDraw(random)
    if (random() < bad) d += random() < 0.5 ? 0.01 : -0.01
    if (kind === 'value') return value(wearKg, Number(d.toFixed(5)), uMm)
    const go = Math.floor(d * 100) / 100
    const noGo = Number((go + 0.01).toFixed(2))
    return { kind: 'pins', wearKg, goMm: go, noGoMm: noGo, uMm, ...(marked ? { goPin: 'P', noGoPin: 'P' } : {}) }
  })
}

export const CASES: Record<string, Case> = {
  'nothing known': { ...base, readings: [] },
  'nothing known, straight line': { ...base, ...linear, readings: [] },
  'nothing known, brass': { ...base, prior: { meanLn: 0, sd: 0.8 }, nowKg: 0.03, readings: [] },
  'nothing known, narrow prior': { ...base, prior: { meanLn: Math.log(0.03), sd: 0.1 }, readings: [] },
  'came used, nothing known': { ...base, wasUsed: true, nowKg: 0.2, readings: [] },
  'came used, one pin pair': { ...base, wasUsed: true, nowKg: 0.3, readings: [pins(0, 0.42, 0.43)] },
  'new and as it should be': { ...base, nowKg: 0, readings: [pins(0, 0.4, 0.41)] },
  'new 0.4 gauged 0.49 to 0.50': { ...base, nowKg: 0, readings: [pins(0, 0.49, 0.5)] },
  'new 0.4 that reads 0.62': { ...base, nowKg: 0.2, readings: [value(0, 0.62, 0.005), value(0.1, 0.621, 0.005)] },
  'receipt with go alone': { ...base, nowKg: 0, readings: [pins(0, 0.35, null)] },
  'receipt with no-go alone': { ...base, nowKg: 0, readings: [pins(0, null, 0.5)] },
  'a no-go that tells': { ...base, nowKg: 1.2, readings: [pins(1, null, 0.41)] },
  'a go that tells': { ...base, nowKg: 1.2, readings: [pins(1, 0.43, null)] },
  'one pin pair': { ...base, readings: [pins(0.8, 0.42, 0.43)] },
  'one pin pair, straight line': { ...base, ...linear, readings: [pins(0.8, 0.42, 0.43)] },
  'one value': { ...base, nowKg: 1.2, readings: [value(1, 0.425, 0.005)] },
  'one sharp value': { ...base, nowKg: 1.2, readings: [value(1, 0.425, 0.0005)] },
  'two very sharp values': { ...base, readings: [value(0.3, 0.41, 0.0001), value(1, 0.425, 0.0001)] },
  'two sharp values that shrink': { ...base, nowKg: 1.1, readings: [value(0.3, 0.43, 0.0002), value(1, 0.42, 0.0002)] },
  'pins that contradict': { ...base, nowKg: 1.3, readings: [pins(1, 0.41, 0.42), pins(1.3, 0.39, 0.4)] },
  'pins that contradict, straight line': {
    ...base,
    ...linear,
    nowKg: 1.3,
    readings: [pins(1, 0.41, 0.42), pins(1.3, 0.39, 0.4)],
  },
  'two against two': {
    ...base,
    nowKg: 1.1,
    readings: [value(0.4, 0.43, 0.002), value(0.5, 0.431, 0.002), value(0.9, 0.412, 0.002), value(1, 0.413, 0.002)],
  },
  'past the limit': { ...base, readings: [pins(0.5, 0.43, 0.44), pins(0.9, 0.45, 0.46)] },
  'near the limit': { ...base, nowKg: 1.1, readings: [pins(0.5, 0.42, 0.43), pins(0.9, 0.43, 0.44)] },
  'one-sided from both sides': { ...base, nowKg: 1.2, readings: [pins(0.9, null, 0.43), pins(0.9, 0.41, null)] },
  'one gross misreading': { ...base, readings: [...made(3, 4, 0.003), value(1.3, 4.2, 0.005)] },
  'the ridge': { ...base, nowKg: 0.4231, readings: ridge },
  'the ridge without doubt': { ...base, ...pure, nowKg: 0.4231, readings: ridge },
  'the ridge, straight line': { ...base, ...linear, nowKg: 0.4231, readings: ridge },
  'five pin pairs': { ...base, nowKg: 1.6, readings: made(11, 5, 0.003) },
  'five pin pairs, straight line': { ...base, ...linear, nowKg: 1.6, readings: made(12, 5, 0.003, linear) },
  'five pin pairs, one misread': { ...base, nowKg: 1.6, readings: made(27, 5, 0.003, { bad: 0.3 }) },
  'five values without doubt': { ...base, ...pure, nowKg: 1.6, readings: made(14, 5, 0.004, { kind: 'value' }) },
  'five of a 0.6 bore': {
    ...base,
    nominalMm: 0.6,
    limitMm: 0.66,
    nowKg: 2,
    readings: made(15, 5, 0.003, { nominalMm: 0.6, end: 1.8 }),
  },
  'five of a 0.25 brass bore': {
    ...base,
    nominalMm: 0.25,
    limitMm: 0.275,
    prior: { meanLn: 0, sd: 0.8 },
    nowKg: 0.012,
    readings: made(16, 5, 0.002, { kind: 'value', nominalMm: 0.25, kappa: 0.8, end: 0.01 }),
  },
  'five far from the prior': { ...base, nowKg: 1, readings: made(17, 5, 0.003, { kappa: 0.15, end: 0.5 }) },
  'eight marked pins': { ...base, nowKg: 1.5, readings: made(18, 8, 0.003, { marked: true }) },
  'twelve marked pins, some misread': {
    ...base,
    nowKg: 1.5,
    readings: made(19, 12, 0.003, { marked: true, bad: 0.15 }),
  },
  'marked go alone, eight times': {
    ...base,
    readings: Array.from({ length: 8 }, () => pins(1, 0.43, null, { goPin: 'P43' })),
  },
  'marked pin, first no then go': {
    ...base,
    readings: [
      pins(0.5, null, 0.42, { noGoPin: 'P' }),
      pins(0.7, null, 0.42, { noGoPin: 'P' }),
      pins(0.9, 0.42, null, { goPin: 'P' }),
      pins(1, 0.42, null, { goPin: 'P' }),
    ],
  },
  'marked pin, misread once': {
    ...base,
    readings: [
      pins(0.3, 0.42, null, { goPin: 'P' }),
      pins(0.5, null, 0.42, { noGoPin: 'P' }),
      pins(0.7, null, 0.42, { noGoPin: 'P' }),
      pins(1, 0.42, null, { goPin: 'P' }),
    ],
  },
  'forty that all say the same': {
    ...base,
    nowKg: 2,
    readings: Array.from({ length: 40 }, (_, i) => pins(i * 0.05, 0.4, 0.41)),
  },
  'two hundred that all say the same': {
    ...base,
    nowKg: 2,
    readings: Array.from({ length: 200 }, (_, i) => pins(i * 0.01, 0.4, 0.41)),
  },
  'fifty pin pairs': { ...base, nowKg: 1.6, readings: made(20, 50, 0.003) },
  'fifty pin pairs, some misread': { ...base, nowKg: 1.6, readings: made(21, 50, 0.003, { bad: 0.08 }) },
  'fifty values': { ...base, nowKg: 1.6, readings: made(22, 50, 0.004, { kind: 'value' }) },
  'fifty values, straight line': {
    ...base,
    ...linear,
    nowKg: 1.6,
    readings: made(23, 50, 0.004, { kind: 'value', ...linear }),
  },
  'fifty at one wear': {
    ...base,
    readings: made(24, 50, 0.001, { kind: 'value', end: 0.005 }).map(r => ({ ...r, wearKg: 1 + r.wearKg / 50 })),
  },
  'two hundred values': { ...base, nowKg: 1.6, readings: made(25, 200, 0.003, { kind: 'value' }) },
  'came used, twenty values, some misread': {
    ...base,
    wasUsed: true,
    nowKg: 1.6,
    readings: made(26, 20, 0.002, { kind: 'value', d0: 0.418, kappa: 0.01, bad: 0.1 }),
  },
}
