/** A case as its page works with it: the same core as the server's, from the same evidence. */
import {
  answerOf,
  evidenceOf,
  nextLooks,
  nextTests,
  posterior,
  resultsOf,
  SIGNS,
  TESTS,
  wayOf,
  type Cause,
  type Chances,
  type Evidence,
  type Sign,
  type TestName,
  type TestRow,
} from '#core/diagnosis'
import type { CaseFinding, CasePage } from '#shared/answers/diagnosis'

export const standing = (c: Pick<CasePage, 'findings'>): CaseFinding[] => c.findings.filter(f => f.struck === null)
export const evidenceOfCase = (c: CasePage): Evidence => evidenceOf(c.told, standing(c), c.right)
export const isOpenCase = (c: Pick<CasePage, 'closing' | 'struck'>): boolean => c.closing === null && c.struck === null

/** A sign or a test with how it stands, and who says so. */
export interface Piece {
  kind: 'sign' | 'test'
  key: string
  state: string
  /** What the records say of it, in words; null where people alone do. */
  records: string | null
  /** What a person found, the latest; null where the records alone tell it. */
  found: CaseFinding | null
}
/** All that is known of a case, tests first, then signs; a person's word stands over the records'. */
export function piecesOf(c: CasePage): Piece[] {
  const found = standing(c)
  const of = (kind: Piece['kind'], key: string): Piece[] => {
    const told = c.told.find(t => t.kind === kind && t.key === key) ?? null
    const last = found.findLast(f => f.kind === kind && f.key === key) ?? null
    const state = last?.state ?? told?.state
    return state === undefined ? [] : [{ kind, key, state, records: told?.says ?? null, found: last }]
  }
  return [...Object.keys(TESTS).flatMap(key => of('test', key)), ...Object.keys(SIGNS).flatMap(key => of('sign', key))]
}

/** The most questions that are put at once. */
const LOOKS = 3
/** What a case says now, and what would tell more. */
export function readCase(c: CasePage) {
  const evidence = evidenceOfCase(c)
  const p = posterior(c.start, evidence)
  const asked = piecesOf(c).map(x => x.key)
  return {
    p,
    answer: answerOf(p),
    way: (cause: Cause) => wayOf(cause, c.start, evidence),
    tests: nextTests(p, Object.keys(evidence.tests)),
    looks: nextLooks(p, asked)
      .filter(l => SIGNS[l.sign].from === 'print')
      .slice(0, LOOKS),
  }
}

/** What the likeliest cause would be with each result of a test. */
export function foretold(c: CasePage, name: TestName): { result: string; cause: Cause; chance: number }[] {
  const evidence = evidenceOfCase(c)
  const test: TestRow = TESTS[name]
  return resultsOf(test).map(result => {
    const p: Chances = posterior(c.start, { ...evidence, tests: { ...evidence.tests, [name]: result } })
    const first = answerOf(p).order[0]!
    return { result, ...first }
  })
}

/** Signs by what they are about, as they are chosen from when a case is opened. */
export const SIGN_GROUPS: readonly { title: string; signs: readonly Sign[] }[] = [
  {
    title: 'The lines',
    signs: ['uneven lines', 'under-extruded', 'gaps at speed', 'lines thicker than set', 'blobs', 'stringing', 'ooze'],
  },
  { title: 'The part', signs: ['warped corners', 'split layers', 'bad first layer'] },
  {
    title: 'At the nozzle and the gears',
    signs: [
      'popping',
      'steam or bubbles in the strand',
      'strand curls to one side',
      'nothing comes out',
      'gears grind or click',
      'filament snapped',
    ],
  },
  {
    title: 'When',
    signs: ['from the start', 'after some hours', 'again at the same height', 'since the nozzle was changed'],
  },
]
/** What a run was logged with, as signs. */
const OF_SYMPTOM: Readonly<Record<string, Sign>> = {
  'under-extruded': 'under-extruded',
  'uneven lines': 'uneven lines',
  'stringing': 'stringing',
  'popping': 'popping',
  'warped': 'warped corners',
  'clog': 'nothing comes out',
  'came loose': 'bad first layer',
}
export const signsOfSymptoms = (symptoms: readonly string[]): Sign[] => symptoms.flatMap(s => OF_SYMPTOM[s] ?? [])
