/** A bed: its plane, its screws, what is left, meshes as text, how Z wanders. Facts of the trade: no source. */
import { describe, expect, test } from 'vitest'
import {
  COARSE_PITCH_MM,
  driftOf,
  fitPlane,
  levelFound,
  levelVerdict,
  lostZ,
  meshPoints,
  readMesh,
  screwTurns,
  turnWords,
  type Bed,
  type FeelerLevel,
  type MeshLevel,
} from '#core/level'

const bed: Bed = {
  widthMm: 300,
  depthMm: 300,
  screws: [
    { name: 'front left', xMm: 30, yMm: 30 },
    { name: 'front right', xMm: 270, yMm: 30 },
    { name: 'back', xMm: 150, yMm: 270 },
  ],
  pitchMm: COARSE_PITCH_MM.M4,
  clockwise: 'lowers',
}
const feeler = (...rounds: number[][]): FeelerLevel => ({
  how: 'feeler',
  wantedMm: 0.1,
  rounds: rounds.map(gaps => gaps.map((gapMm, i) => ({ xMm: bed.screws[i]!.xMm, yMm: bed.screws[i]!.yMm, gapMm }))),
})
const mesh = (rows: (number | null)[][], more: Partial<MeshLevel> = {}): MeshLevel => ({
  how: 'mesh',
  rows,
  leftMm: 0,
  rightMm: 300,
  frontMm: 0,
  backMm: 300,
  firstRow: 'front',
  ...more,
})
const hot = { bedC: 100, jobC: 100 }
const says = (m: FeelerLevel | MeshLevel, at = hot, of = bed) => levelVerdict(m, levelFound(m, of), of, at)

describe('plane', () => {
  test('points on a plane give it back, and nothing is left', () => {
    const points = [0, 100, 250].flatMap(xMm =>
      [0, 80, 290].map(yMm => ({ xMm, yMm, zMm: 0.3 + 0.001 * xMm - 0.0005 * yMm })),
    )
    const p = fitPlane(points)
    expect(p.slopeX).toBeCloseTo(0.001, 12)
    expect(p.slopeY).toBeCloseTo(-0.0005, 12)
  })
  test('points on one line, or two, tell no plane', () => {
    const line = [0, 100, 200].map(v => ({ xMm: v, yMm: v, zMm: 0 }))
    for (const points of [line, line.slice(0, 2), [], [line[0]!, line[0]!, line[0]!]])
      expect(() => fitPlane(points)).toThrow(/three that lie 10 mm or more off one line/)
  })
})

describe('screws', () => {
  test('a gap 0.35 mm too wide under an M4 is half a turn (coarse pitch 0.7 by ISO 261, from memory)', () => {
    const found = levelFound(feeler([0.45, 0.1, 0.1]), bed)
    expect(found.screws.map(turnWords)).toEqual(['1/2 turn anticlockwise', 'leave it', 'leave it'])
    expect(found.screws[0]!.upMm).toBeCloseTo(0.35, 9)
    expect(found.leftMm).toBeLessThan(0.001)
    expect(levelFound(feeler([0.45, 0.1, 0.1]), { ...bed, clockwise: 'raises' }).screws.map(turnWords)[0]).toBe(
      '1/2 turn clockwise',
    )
  })
  test('measured beside the screws, the plane tells what is over them', () => {
    const m: FeelerLevel = {
      how: 'feeler',
      wantedMm: 0.1,
      rounds: [
        [
          { xMm: 60, yMm: 60, gapMm: 0.1 },
          { xMm: 240, yMm: 60, gapMm: 0.1 },
          { xMm: 150, yMm: 240, gapMm: 0.28 },
        ],
      ],
    }
    // 0.18 mm in 180 mm: over the back screw, 30 mm further out, 0.21; over the front ones 0.03 too high
    const [left, right, back] = levelFound(m, bed).screws
    expect(back!.upMm).toBeCloseTo(0.21, 9)
    expect(left!.upMm).toBeCloseTo(-0.03, 9)
    expect(right!.way).toBe('clockwise')
  })
  test('a mesh turns about the mean of its screws, so that Z stays', () => {
    const turns = screwTurns(
      fitPlane(
        meshPoints(
          mesh([
            [0, 0.3],
            [0, 0.3],
          ]),
        ),
      ),
      bed,
      null,
    )
    expect(turns.reduce((s, t) => s + t.upMm, 0)).toBeCloseTo(0, 12)
  })
  test('turns are said in sixteenths', () => {
    const way = 'clockwise' as const
    expect([0, 1, 4, 6, 16, 22, 32].map(parts => turnWords({ parts, way }))).toEqual([
      'leave it',
      '1/16 turn clockwise',
      '1/4 turn clockwise',
      '3/8 turn clockwise',
      '1 turn clockwise',
      '1 3/8 turns clockwise',
      '2 turns clockwise',
    ])
  })
  test('a bed on one or two screws is none', () => {
    expect(() => levelFound(feeler([0.1, 0.1, 0.1]), { ...bed, screws: bed.screws.slice(0, 2) })).toThrow(
      /none, or three and more/,
    )
  })
})

describe('what is said of a bed', () => {
  test('even within a tenth it is level, but three points tell nothing of what lies between', () => {
    const v = says(feeler([0.3, 0.1, 0.1], [0.1, 0.12, 0.1]))
    expect(v).toMatchObject({ mark: 'fine', action: '' })
    expect(v.says).toBe('Level to 0.02 mm at 100 °C. Three points tell nothing of what lies between.')
  })
  test('the last round counts, and names the screws', () => {
    const v = says(feeler([0.1, 0.1, 0.1], [0.4, 0.1, 0.1]))
    expect(v.mark).toBe('look')
    expect(v.action).toMatch(/^Turn front left; 0\.\d\d mm is left then$/)
  })
  test('even, but off the gap, is a matter of Z and not of screws', () => {
    expect(says(feeler([0.4, 0.4, 0.4]))).toEqual({
      mark: 'look',
      says: 'Even, but 0.30 mm too low under the nozzle.',
      action: 'Bring the nozzle nearer by that with Z: the screws stay',
    })
    expect(levelFound(feeler([0.4, 0.4, 0.4]), bed).screws.every(s => s.parts === 0)).toBe(true)
    const tight: FeelerLevel = { ...feeler([0, 0.02, 0]), wantedMm: 0.2 }
    expect(levelVerdict(tight, levelFound(tight, bed), bed, hot).action).toMatch(/^Raise the nozzle/)
  })
  test('levelled cold for a hot job is a look (common practice, no source: level hot, after the soak)', () => {
    expect(says(feeler([0.1, 0.1, 0.1]), { bedC: 25, jobC: 100 })).toMatchObject({
      mark: 'look',
      action: 'Level it hot',
    })
    expect(
      levelVerdict(feeler([0.1, 0.1, 0.1]), levelFound(feeler([0.1, 0.1, 0.1]), bed), bed, { bedC: 25, jobC: null })
        .mark,
    ).toBe('fine')
  })
  test('a dome is no matter of screws', () => {
    const dome = mesh([
      [0, 0.1, 0],
      [0.1, 0.45, 0.1],
      [0, 0.1, 0],
    ])
    const found = levelFound(dome, bed)
    expect(found.tiltMm).toBeCloseTo(0, 9)
    expect(found.warpMm).toBeCloseTo(0.45, 9)
    expect(says(dome).says).toBe('Warped by 0.45 mm, highest at the middle: no screw takes that out.')
  })
  test('which row is in front decides where it is high', () => {
    const rows = [
      [0, 0],
      [0.3, 0.3],
    ]
    expect(levelFound(mesh(rows), bed).highCorner).toMatch(/^back/)
    expect(levelFound(mesh(rows, { firstRow: 'back' }), bed).highCorner).toMatch(/^front/)
  })
  test('without screws it is not told to turn any', () => {
    const v = says(
      mesh([
        [0, 0.2],
        [0, 0.2],
      ]),
      hot,
      { ...bed, screws: [] },
    )
    expect(v.action).toBe('No screw is entered: shim it, or let the printer even it out')
  })
  test('a hole is left out, never counted as 0', () => {
    const rows = [
      [1, 1, 1],
      [1, null, 1],
      [1, 1, 1],
    ]
    expect(levelFound(mesh(rows), bed).rangeMm).toBe(0)
  })
})

describe('a mesh as text', () => {
  const plain = [
    [0.12, -0.05],
    [0.1, 0],
  ]
  test.each([
    ['a table', '0.12,-0.05\n0.10,0.00'],
    ['semicolons and decimal commas', '0,12;-0,05\n0,10;0,00'],
    ['blanks and decimal commas', '0,12  -0,05\n0,10 0,00'],
    ['commas between decimal commas', '0,12, -0,05\n0,10, 0,00'],
    ['tabs', '0.12\t-0.05\r\n0.10\t0.00\r\n'],
    ['blanks, signs and a title', 'heights of the bed:\n +0.12 -0.05\n +0.10 +0.00\n'],
    ['brackets in one line', '[[0.12, -0.05], [0.10, 0.0]]'],
    ['brackets in several', '[\n  [0.12, -0.05],\n  [0.10, 0.0]\n]'],
    ['a comma at each end', '0.12,-0.05,\n0.10,0.00,'],
  ])('%s', (_, text) => {
    const read = readMesh(text)
    expect(read.problems).toEqual([])
    expect(read.rows).toEqual(plain)
  })
  test('a first line and column that only count are left out, and that is said', () => {
    const read = readMesh('     0      1      2\n 0 +0.10 +0.11 +0.12\n 1 +0.20 +0.21 +0.22\n')
    expect(read.rows).toEqual([
      [0.1, 0.11, 0.12],
      [0.2, 0.21, 0.22],
    ])
    expect(read.left).toEqual([
      'the first line, which only counts the columns',
      'the first column, which only counts the rows',
    ])
  })
  test('holes are named by row and column', () => {
    for (const hole of ['nan', '', '---', 'n/a', '=====']) {
      const read = readMesh(`0.1;${hole};0.2\n0.1;0.1;0.2`)
      expect(read.problems, hole).toEqual([])
      expect(read.holes, hole).toEqual([{ row: 1, column: 2 }])
      expect(read.rows[0], hole).toEqual([0.1, null, 0.2])
    }
  })
  test('a row with one cell that cannot be read stays a row: it is named, and nothing moves up', () => {
    const read = readMesh('Bed level, 3 x 3\n0.1 0.2 0.30err\n0.4 0.5 0.6\n0.7 0.8 0.9')
    expect(read.problems).toEqual([{ line: 2, message: 'Column 3: “0.30err” is not a number' }])
    expect(read.rows).toHaveLength(3)
    expect(read.left).toEqual(['a line of words'])
  })
  test.each([
    ['commas that may be either', '0,125,0,130\n0,110,0,120', 1, /separate the numbers by semicolons/],
    ['a row that is short', '0.1 0.2 0.3\n0.1 0.2', 2, /2 numbers where the first row has 3/],
    ['µm', '120 -50\n100 0', 1, /Is it in µm/],
    ['no number', '0.1 0.2\n0.1 0.2q', 2, /“0\.2q” is not a number/],
    ['one row', '0.1 0.2', 1, /1 rows/],
    ['nothing', '\n\n', 1, /No row of numbers/],
    ['words', 'hello world', 1, /No row of numbers/],
    ['too much', '0.1 '.repeat(20_000), 1, /no mesh of a bed/],
  ])('%s: named at its line', (_, text, line, message) => {
    const [first] = readMesh(text).problems
    expect(first?.line).toBe(line)
    expect(first?.message).toMatch(message)
  })
})

describe('Z over time', () => {
  const line = (slope: number, noise: readonly number[]) =>
    noise.map((n, i) => ({ day: i * 7, mm: -1.2 + slope * i + n }))
  test('a plain drift is told, scatter alone is not', () => {
    expect(driftOf(line(-0.02, [0.002, -0.001, 0.001, -0.002, 0.001, 0]))!.verdict).toBe('drifts')
    expect(driftOf(line(0, [0.002, -0.001, 0.001, -0.002, 0.001, 0]))!.verdict).toBe('still')
    expect(driftOf(line(0, [0.1, -0.12, 0.09, -0.1, 0.12, -0.08]))!.verdict).toBe('cannot tell')
  })
  test('three readings, or one day, tell nothing', () => {
    expect(driftOf(line(-0.1, [0, 0, 0]))).toBeNull()
    expect(driftOf([0, 0.1, 0.2, 0.3].map(day => ({ day, mm: day })))).toBeNull()
  })
  test('a number that was kept is no loss', () => {
    expect(lostZ({ setMm: -1.25, readMm: -1.25 })).toBeNull()
    expect(lostZ({ setMm: 0, readMm: 0 })).toBeNull()
    expect(lostZ({ setMm: -1.25, readMm: 0 })).toMatch(/was not kept/)
  })
})
