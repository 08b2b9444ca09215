/** A gauge study and the life of a type in words, whose turn it is, and the strip's line. */
import { describe, expect, test } from 'vitest'
import type { StudyLine } from '#shared/answers/studies'
import type { TypeLife } from '#shared/answers/lives'
import { studyReadingSchema } from '#shared/entries/studies'
import { checks } from '~/lib/checks'
import { nextLine } from '~/lib/study'
import { completions } from '~/strip/complete'
import type { StripShop } from '~/strip/grammar'
import { understand } from '~/strip/parse'
import { lifeNotes, lifeSentence, rangeWords } from '~/words/life'
import { readingEffectWords } from '~/words/effects'
import { resultOf, setsWords, studyNotes, toldWords } from '~/words/study'

const at = '2026-11-20T12:00:00.000Z'
const known = await checks()
type Reading = { goMm: number | null; noGoMm: number | null; valueMm: number | null }

/** Two nozzles, two rounds; what each person reads by nozzle and round. */
function study(values: (Reading | null)[][][], more: Partial<StudyLine> = {}): StudyLine {
  const lines = [0, 1].flatMap(round =>
    values.flatMap((own, p) =>
      [0, 1].map(n => {
        const r = own[n]![round]!
        const reading = r && { id: 1, at, person: 'x', note: '', ...r }
        return { personId: p + 1, nozzleId: n + 1, round, reading }
      }),
    ),
  )
  return {
    id: 5,
    name: 'Pins',
    method: 'pins',
    setup: null,
    people: values.map((_, i) => ({ id: i + 1, name: `Person ${i + 1}` })),
    nozzles: [1, 2].map(id => ({ id, tag: `N-00${id}`, nominalBoreMm: 0.4 })),
    repeats: 2,
    lines,
    struckReadings: [],
    allowanceMm: 0.04,
    setsMm: null,
    counts: false,
    at,
    person: 'x',
    note: '',
    struck: null,
    ...more,
  }
}
const pins = (goMm: number): Reading => ({ goMm, noGoMm: Number((goMm + 0.01).toFixed(2)), valueMm: null })
const value = (valueMm: number): Reading => ({ goMm: null, noGoMm: null, valueMm })
const agreeing = study([
  [
    [pins(0.42), pins(0.42)],
    [pins(0.44), pins(0.44)],
  ],
  [
    [pins(0.42), pins(0.42)],
    [pins(0.44), pins(0.44)],
  ],
])
const scattering = study(
  [
    [
      [value(0.42), value(0.424)],
      [value(0.44), value(0.443)],
    ],
    [
      [value(0.43), value(0.426)],
      [value(0.449), value(0.444)],
    ],
  ],
  { method: 'picture', setup: { id: 1, name: 'Microscope' } },
)

describe('a study in words', () => {
  test('what it tells, in steps of what the nozzles may grow', () => {
    // 2.8 × 0.01/√12
    expect(toldWords(agreeing, resultOf(agreeing))).toBe(
      'Two readings by anybody tell a change of 0.008 mm: 4.9 such steps lie in the 0.04 mm that its nozzles may grow.',
    )
    const coarse = { ...scattering, allowanceMm: 0.005 }
    expect(toldWords(coarse, resultOf(coarse))).toMatch(/more than the 0.005 mm .* do not show wear before the limit/)
    expect(toldWords({ ...agreeing, allowanceMm: null }, resultOf(agreeing))).toMatch(/0.008 mm\.$/)
  })

  test('agreement within a step, two people, and what came out below zero are said', () => {
    const notes = studyNotes(agreeing, resultOf(agreeing)).join(' ')
    expect(notes).toMatch(/Two people give one degree of freedom/)
    expect(notes).toMatch(
      /2\.9 µm, the step of 0\.01 mm over √12, is in the repeatability, also where all readings agree/,
    )
    expect(notes).toMatch(/All readings agree as far as such pins can/)
    const one = study([
      [
        [value(0.42), value(0.424)],
        [value(0.44), value(0.443)],
      ],
    ])
    const alone = { ...one, method: 'picture' as const }
    expect(studyNotes(alone, resultOf(alone)).join(' ')).toMatch(/One person alone/)
    const negative = study([
      [
        [value(0.42), value(0.43)],
        [value(0.43), value(0.42)],
      ],
      [
        [value(0.43), value(0.42)],
        [value(0.42), value(0.43)],
      ],
    ])
    const below = { ...negative, method: 'picture' as const }
    expect(studyNotes(below, resultOf(below)).join(' ')).toMatch(/came out below zero, which no spread can be/)
  })

  test('what gauges count with: only of the study that counts, and never of half a list', () => {
    const r = resultOf(scattering)
    const counts = { ...scattering, counts: true, setsMm: r.setsMm }
    expect(setsWords(counts, r)).toMatch(/^Every gauge by pictures by Microscope counts with \d+(\.\d)? µm of scatter/)
    expect(setsWords({ ...counts, counts: false }, r)).toMatch(/A later study/)
    const half = { ...scattering, lines: scattering.lines.map((l, i) => (i > 6 ? { ...l, reading: null } : l)) }
    expect(setsWords(half, resultOf(half))).toMatch(/until the list is worked off/)
    const effect = { id: 1, left: 0, setsMm: 0.0041, beforeMm: null, nozzles: 3 }
    expect(readingEffectWords(effect, counts)).toMatch(
      /4\.1 µm .* none was counted before\. 3 forecasts worked out anew/,
    )
    expect(readingEffectWords({ ...effect, left: 1 }, counts)).toBe('1 line left.')
    expect(readingEffectWords({ ...effect, setsMm: null }, counts)).toMatch(/sets nothing new/)
  })

  test('one number typed throughout tells nothing', () => {
    const same = study(
      [
        [
          [value(0.42), value(0.42)],
          [value(0.44), value(0.44)],
        ],
      ],
      { method: 'picture' },
    )
    expect(toldWords(same, resultOf(same))).toMatch(/nothing was measured anew/)
  })
})

test('whose turn it is: the first line that neither stands nor waits to be sent', () => {
  const half = { ...agreeing, lines: agreeing.lines.map((l, i) => (i > 2 ? { ...l, reading: null } : l)) }
  const waiting = { route: '/api/study-readings' as const, body: { studyId: 5, line: 3 } }
  expect(nextLine(half, [])).toBe(3)
  expect(nextLine(half, [waiting])).toBe(4)
  expect(nextLine(half, [{ ...waiting, body: { studyId: 6, line: 3 } }])).toBe(3)
  expect(nextLine(agreeing, [])).toBeNull()
})

describe('the strip', () => {
  const turn = {
    studyId: 5,
    name: 'Pins',
    method: 'pins' as const,
    setupId: null,
    line: 3,
    lines: 8,
    person: 'Night technician',
    nozzleId: 2,
    tag: 'N-002',
  }
  const nozzles = [
    { id: 1, tag: 'N-001' },
    { id: 2, tag: 'N-002' },
  ]
  const shop = {
    printers: [],
    nozzles,
    spools: [],
    known: { nozzles: [], spools: [] },
    materials: [],
    studyTurn: turn,
  } as unknown as StripShop
  const read = (line: string, s = shop) => understand(line, s, at, known)

  test.each(['study 0.43-0.44', 'study N-002 0,43-0,44'])('%s', line => {
    const u = read(line)
    if (u.kind !== 'entry') throw new Error(JSON.stringify(u))
    expect(u.says).toBe('Pins, line 4 of 8: Night technician gauges N-002: 0.43 goes, 0.44 does not')
    expect(studyReadingSchema.parse(u.body)).toMatchObject({ studyId: 5, line: 3, goMm: 0.43, noGoMm: 0.44 })
  })
  test('another nozzle in hand, half a reading, or no study: said at the word', () => {
    expect(read('study N-001 0.43-0.44')).toMatchObject({
      kind: 'unread',
      word: 'N-001',
      why: 'it is the turn of N-002',
    })
    expect(read('study 0.43')).toMatchObject({ kind: 'unread', word: '0.43' })
    expect(read('study 0.44-0.43')).toMatchObject({
      kind: 'unread',
      why: 'the go pin must be smaller than the no-go pin',
    })
    expect(read('study 0.43-0.44 again')).toMatchObject({ kind: 'unread', word: 'again' })
    expect(read('study')).toMatchObject({ kind: 'more' })
    const none = { ...shop, studyTurn: null }
    expect(read('study 0.43-0.44', none)).toMatchObject({ kind: 'more' })
    expect([completions('st', shop), completions('st', none)]).toEqual([['study'], []])
    expect(completions('study N', shop)).toEqual(['N-002'])
  })
  test('pictures: one bore', () => {
    const pictures = { ...shop, studyTurn: { ...turn, method: 'picture' as const, setupId: 1 } }
    expect(read('study 0.4312', pictures)).toMatchObject({ kind: 'entry', body: { valueMm: 0.4312, line: 3 } })
    expect(read('study 0.43-0.44', pictures)).toMatchObject({ kind: 'unread' })
  })
})

describe('the life of a type in words', () => {
  const life: TypeLife = {
    typeId: 1,
    typeName: 'brass 0.4',
    material: 'brass',
    filler: null,
    nozzles: [
      { id: 1, tag: 'N-1', end: 'found past its limit', record: { kind: 'between', from: 1, to: 2 } },
      { id: 2, tag: 'N-2', end: 'retired on forecast', record: { kind: 'survived', until: 1 } },
      { id: 3, tag: 'N-3', end: 'came used', record: null },
      { id: 4, tag: 'N-4', end: 'not gauged since it was new', record: null },
    ],
    fit: null,
    cannotTell: 'only 1 was found past the limit; 3 are needed',
    model: null,
  }
  test('cannot tell is said with its reason; a share retired on forecast as what it does', () => {
    expect(lifeSentence(life)).toBe(
      'brass 0.4: cannot tell how long it lives: only 1 was found past the limit; 3 are needed.',
    )
    const notes = lifeNotes(life).join(' ')
    expect(notes).toMatch(/1 of 2 retired \(50 %\) went on their forecast/)
    expect(notes).toMatch(/Left out: 1 that came used and 1 not gauged since new\./)
  })
  test('open ends of a range are no numbers', () => {
    expect(rangeWords({ low80: null, high80: 0.9 })).toBe('80 % up to 0.90 kg')
    expect(rangeWords({ low80: 1.2, high80: null })).toBe('80 % from 1.2 kg, no upper end')
    expect(rangeWords({ low80: null, high80: null })).toBe('80 %: no end to either side')
  })
})
