/* eslint-disable max-lines -- the reader's rules, one after the other */
/** The reader's rules one by one (docs/job-file-reader.md); numbers in the names are rule numbers. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { InputError } from '#core/numeric'
import { EXACT_MOVES, MOST_TOOLS, movesH, Scan, stoppedAt, type FullScan, type ScanOptions } from '#core/gcode'

function scan(text: string | Uint8Array, options: ScanOptions = {}, size = Infinity): FullScan {
  const bytes = typeof text === 'string' ? new TextEncoder().encode(text) : text
  const s = new Scan(options)
  for (let i = 0; i < bytes.length; i += size) s.push(bytes.subarray(i, Math.min(bytes.length, i + size)))
  return s.finish()
}
const problems = (text: string) => scan(text).problems.filter(p => p.kind !== 'no-extrusion')
const only = (text: string) => problems(text).map(p => p.kind)
const extruded = (text: string, options: ScanOptions = {}) => scan(text, options).totalExtrudedMm

describe('text', () => {
  test('1 a NUL byte: not text, and nothing else', () => {
    const r = scan(Uint8Array.of(71, 49, 0, 10))
    expect(r.problems).toEqual([{ line: null, kind: 'not-text' }])
    expect([r.totalExtrudedMm, r.moveSeconds, r.lines, r.flow.peak, r.fan.max, r.maxSetpointC.bed]).toEqual([
      null,
      null,
      null,
      null,
      null,
      null,
    ])
    expect(r.tools).toEqual([])
  })
  test('2 line ends, mark at the start, last line without an end', () => {
    expect(scan('\uFEFFG1 X1 E1 F60\r\n\r\n\tG1 X2 E2')).toMatchObject({ lines: 3, totalExtrudedMm: 2, problems: [] })
    expect(scan('\uFEFFG1 X1 E1 F60\n', {}, 1).totalExtrudedMm).toBe(1)
    expect(scan('').lines).toBe(0)
    expect(only('\u00EFG1 X1')).toEqual(['unknown-word'])
  })
  test('2 a file with CR alone reads as the same file with LF, in chunks of any size', () => {
    const text = ';old\nM83\n\nG1 X1 E1 F60\nN4 G1 X2 E2*89\n(note\nG1 X9 E1,5\n'
    const want = scan(text)
    expect(want).toMatchObject({ totalExtrudedMm: 3, lines: 7 })
    for (const size of [1, 2, 7, Infinity]) expect(scan(text.replaceAll('\n', '\r'), {}, size), `${size}`).toEqual(want)
  })
  test('2 CR decides only where no LF stands in the first 64 KB; a CR LF further down is one end', () => {
    expect(scan('G1 X1\rE1 F60\nG1 X2 E2').totalExtrudedMm).toBe(2)
    const long = `;${'x'.repeat(70_000)}\r`
    for (const size of [1000, 65_536, Infinity]) {
      expect(scan(`G1 X1 E1 F60\r${long}G1 X2 E2\r\nG1 X3 E3\n`, {}, size), `${size}`).toMatchObject({
        totalExtrudedMm: 3,
        lines: 4,
      })
      expect(scan(`${long}G1 X1 E1 F60\n`, {}, size), `${size}`).toMatchObject({ totalExtrudedMm: 0, lines: 1 })
    }
  })
  test('3 comments: the first to open wins, brackets count as blanks', () => {
    expect(extruded('G1 (half ; E9) X1 F60 E2 ; (E5\n')).toBe(2)
    expect(extruded('G1 X1 F60 E2 (open to the end E5\n')).toBe(2)
    expect(extruded('G1 X(here)1 F60 E2\n')).toBe(2)
  })
  test('4 checksums', () => {
    expect(problems('N1 G1 X1 E1 F60*0\n')).toEqual([{ line: 1, kind: 'bad-checksum' }])
    expect(extruded('N1 G1 X1 E1 F60*0\n')).toBe(1)
    const line = 'N1 G1 X1 E1 F60'
    const xor = [...line].reduce((x, c) => x ^ c.charCodeAt(0), 0)
    expect(only(`${line}*${xor}\n`)).toEqual([])
    expect(only(`${line}* ${xor} ; note\n`)).toEqual([])
    expect(only(`${line}*${xor}x\n`)).toEqual(['bad-checksum'])
    expect(only(`${line}*\n`)).toEqual(['bad-checksum'])
    expect(only('G1 X1,0*1\n').sort()).toEqual(['bad-checksum', 'bad-number'])
  })
  test('5, 6 words and numbers', () => {
    expect(extruded('g1x10y10e.5f+3.0\n')).toBe(0.5)
    expect(extruded(`G1 X1 F60 E${'0'.repeat(50)}2.${'0'.repeat(60)}\n`)).toBe(2)
    for (const bad of ['G1 X1.2.3', 'G1 X', 'G1 X-', 'G1 X.', 'G1 X1,5', 'G1 X--1', 'G1 X1-2', 'G1 X Y2', 'G1 X1#'])
      expect(only(bad), bad).toEqual(['bad-number'])
    for (const bad of [
      'G1 5',
      '# hello',
      'hello',
      'G1 )',
      'GX1',
      'G',
      'G1. .',
      'N G1 X1',
      'Nx',
      'N5',
      'T-1',
      'T1.5',
      'X1 G1',
    ])
      expect(only(bad), bad).toEqual(['unknown-word'])
  })
  test('6 a number beyond 10¹² is malformed, however long; one under 10⁻¹² is 0', () => {
    for (const bad of [
      `G1 X1 F60 E${'9'.repeat(5_000_000)}`,
      'G1 X1000000000000.1',
      'G1 X-9999999999999',
      'G1 E1234567890123 F5',
      'M104 S1000000000001',
    ])
      expect(only(bad), bad.slice(0, 30)).toEqual(['bad-number'])
    expect(only(`G${'1'.repeat(400)} X1`)).toEqual(['unknown-word'])
    expect(extruded('G1 X1 F60 E1000000000000\n')).toBe(1e12)
    expect(scan('G1 F0.000000000000001 X1 E1\n').moveSeconds).toBe(0)
  })
  test('6 whatever numbers a file holds, every result is finite', () => {
    const number = fc.oneof(
      fc.double({ min: -1e12, max: 1e12, noNaN: true }),
      fc.constantFrom(0, 1e-12, -1e-12, 1e12, -1e12, 1e300, 1e-300, 5),
    )
    const word = fc
      .tuple(fc.constantFrom('X', 'Y', 'Z', 'E', 'F', 'S', 'D', 'I', 'J', 'R', 'P'), number)
      .map(([l, n]) => l + n.toFixed(20).replace(/e.*/, ''))
    const line = fc
      .tuple(
        fc.constantFrom(
          'G0',
          'G1',
          'G1',
          'G1',
          'G2',
          'G3',
          'G20',
          'G91',
          'G92',
          'M83',
          'M104',
          'M106',
          'M200',
          'M221',
          'T1',
        ),
        fc.uniqueArray(word, { maxLength: 5, selector: w => w[0] }),
      )
      .map(([c, w]) => [c, ...w].join(' '))
    fc.assert(
      fc.property(fc.array(line, { maxLength: 60 }), lines => {
        const walk = (v: unknown, path: string): void => {
          if (typeof v === 'number') expect(Number.isFinite(v), path).toBe(true)
          else if (v && typeof v === 'object') for (const [k, x] of Object.entries(v)) walk(x, `${path}.${k}`)
        }
        walk(scan(lines.join('\n'), { totalBytes: 1000 }), '')
      }),
      { numRuns: 300 },
    )
  })
  test('7 E after a number starts an E word, unless it reads as exponent notation after a blank', () => {
    expect(extruded('G1 X10Y5E.5 F60\n')).toBe(0.5)
    expect(extruded('G1E2F1800\n')).toBe(2)
    expect(extruded('g1x10y10e2f1200\n')).toBe(2)
    expect(only('G1 X1e-2\n')).toEqual(['bad-number'])
    expect(only('G1 X1 F2E3 ; note\n')).toEqual(['bad-number'])
    expect(extruded('G1 X1E2F60\n')).toBe(2)
    expect(extruded('G1 X1E2.0 F60\n')).toBe(2)
    expect(extruded('G1E2 F60\n')).toBe(2)
  })
  test('16 a 65th tool, and one numbered beyond any, changes nothing and is said', () => {
    const tools = Array.from({ length: 300 }, (_, i) => `T${i}\nG1 X${i + 1} E1 F60\n`).join('')
    const r = scan(`M83\n${tools}`)
    expect(r.tools).toHaveLength(MOST_TOOLS)
    expect(r.totalExtrudedMm).toBe(300)
    expect(r.problems.filter(p => p.kind === 'too-many-tools')).toHaveLength(300 - MOST_TOOLS)
    expect(only('T5000000\n')).toEqual(['too-many-tools'])
    expect(scan('M104 T5000000 S200\nM104 T1 S200\n').maxSetpointC.tools).toEqual({ 1: 200 })
  })
  test('27 flows of many tools are those of each tool alone', () => {
    const alone = scan('M83\nG1 X1 E1 F60\nG1 X2 E3\nG1 X5 E1\n').flow
    const r = scan('M83\nT3\nG1 X-1 E9 F600\nT0\nG1 X0 F60\nG1 X1 E1 F60\nG1 X2 E3\nT1\nT0\nG1 X5 E1\n')
    expect(r.toolFlow.map(t => [t.index, t.peak])).toEqual([
      [0, alone.peak],
      [1, null],
      [3, r.flow.peak],
    ])
    expect(r.toolFlow[0]).toMatchObject(alone)
  })
  test('8, 9 commands', () => {
    expect(scan('G01 X1 E1 F60\nG28 X Y\nM117 any text (E5) #\nG38.2 Z#\nM117 b\n')).toMatchObject({
      problems: [],
      totalExtrudedMm: 1,
      ignored: { 'G28': 1, 'M117': 2, 'G38.2': 1 },
    })
  })
  test('10, 11 the first fault decides and the line changes nothing', () => {
    expect(only('G1 X1 X2\n')).toEqual(['bad-number'])
    expect(only('G1 X1 M5 Y,\n')).toEqual(['unknown-word'])
    expect(only('G1 Y, M5\n')).toEqual(['bad-number'])
    expect(only('M104 S200 T1.5\n')).toEqual(['bad-number'])
    expect(only('G10 P-1 S200\n')).toEqual(['bad-number'])
    expect(only('G1 T1.5 X1 F60\n')).toEqual([])
    expect(scan('G1 F6000 X1,5\nG1 X1 E1\n')).toMatchObject({
      moveSeconds: 0,
      problems: [
        { line: 1, kind: 'bad-number' },
        { line: 2, kind: 'no-feedrate' },
      ],
    })
  })
})

describe('modes and material', () => {
  test('13 inches, except the filament of M200', () => {
    expect(extruded('G20\nG1 X1 E1 F10\n')).toBeCloseTo(25.4, 12)
    expect(scan('G20\nG1 X1 F1\n').moveSeconds).toBeCloseTo(60, 12)
    expect(extruded('M200 D1.75\nG20\nG1 X1 E2.405281875 F10\n')).toBeCloseTo(1, 6)
  })
  test('14 both readings of E in one pass', () => {
    const text = 'M83\nG90\nG1 X1 E1 F60\nG91\nG1 Z1\nG90\nG1 X2 E1\nG1 X3 E1\n'
    const independent = scan(text)
    const following = scan(text, { dialect: 'eFollowsPositioning' })
    expect(independent.totalExtrudedMm).toBe(3)
    expect(following.totalExtrudedMm).toBe(1)
    expect(independent.otherReading).toEqual({ dialect: 'eFollowsPositioning', totalExtrudedMm: 1, difference: 2 / 3 })
    expect(following.otherReading!.totalExtrudedMm).toBe(3)
    expect(scan('G90\nM83\nG1 X1 E1 F60\n').otherReading).toBeNull()
  })
  test('15 G92 moves nothing and keeps what is retracted', () => {
    expect(extruded('G1 X1 E5 F60\nG1 E3\nG92 E0\nG1 E2\nG1 X2 E3\n')).toBe(6)
    expect(scan('G1 X9 F60\nG92\nG1 X3\n').moveSeconds).toBeCloseTo(12, 12)
  })
  test('16, 18 tools have their own E and multiplier', () => {
    expect(scan('G1 X1 E5 F60\nT2\nG1 X2 E1\nM221 S50\nG1 X3 E2\nT0\nG1 X4 E6\n').tools).toEqual([
      { index: 0, extrudedMm: 6, offPartMm: 0, printingMm: 6 },
      { index: 2, extrudedMm: 1.5, offPartMm: 0, printingMm: 1.5 },
    ])
    expect(scan('M221 S50 T3\nG1 X1 E1 F60\n').tools.map(t => t.index)).toEqual([0])
  })
  test('20 retraction and return add nothing, over-prime adds the excess', () => {
    expect(scan('M83\nG1 X1 E2 F60\nG1 E-1\nG1 E1.25\nG1 X2 E1\n').tools[0]).toEqual({
      index: 0,
      extrudedMm: 3.25,
      offPartMm: 0.25,
      printingMm: 3,
    })
  })
  test('property: with relative E the total is the high-water mark of the sum', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -200, max: 300 }), { maxLength: 60 }), steps => {
        let at = 0,
          mark = 0
        for (const s of steps) {
          at += s / 100
          mark = Math.max(mark, at)
        }
        const text = `M83\nG1 F600\n${steps.map((s, i) => `G1 X${i % 2} E${(s / 100).toFixed(2)}`).join('\n')}\n`
        expect(extruded(text)).toBeCloseTo(mark, 9)
      }),
    )
  })
  test('property: chunking and blanks do not matter (short cut and full reader agree)', () => {
    const number = fc.integer({ min: -99999, max: 99999 }).map(v => (v / 1000).toString())
    const line = fc
      .tuple(
        fc.constantFrom('G1', 'G0'),
        fc.subarray(['X', 'Y', 'Z', 'E', 'F']),
        fc.array(number, { minLength: 5, maxLength: 5 }),
      )
      .map(([g, letters, n]) => ({
        spaced: `${g} ${letters.map((l, i) => l + n[i]).join(' ')}`,
        full: `\t${g} ${letters.map((l, i) => `${l}\t${n[i]!}`).join('\t')}`,
      }))
    fc.assert(
      fc.property(fc.array(line, { maxLength: 30 }), fc.integer({ min: 1, max: 40 }), (lines, size) => {
        const a = scan(lines.map(l => l.spaced).join('\n') + '\n')
        const b = scan(lines.map(l => l.full).join('\n') + '\n')
        const c = scan(lines.map(l => l.spaced).join('\n') + '\n', {}, size)
        expect(a).toEqual(b)
        expect(a).toEqual(c)
      }),
    )
  })
})

describe('moves, heat and fan', () => {
  test('23, 24 arcs that are none', () => {
    for (const bad of ['G2 X1 Y1', 'G2 X0 Y0 R5', 'G2 X1 I0 J0', 'G3 X10 R4.99', 'G2'])
      expect(only(`G1 F60\n${bad}\n`), bad).toEqual(['bad-number'])
    expect(scan('G1 F60\nG2 X10 R4.9995\n').moveSeconds).toBeCloseTo(4.9995 * Math.PI, 9)
    expect(scan('G1 F60\nG3 X10 R-5.5\n').moveSeconds! + scan('G1 F60\nG3 X10 R5.5\n').moveSeconds!).toBeCloseTo(
      11 * Math.PI,
      9,
    )
  })
  test('25, 27 time and flow', () => {
    const r = scan('G1 E1\nG1 X10 E2 F600\n')
    expect(r.problems).toEqual([{ line: 1, kind: 'no-feedrate' }])
    expect(r.flow.peak).toBeCloseTo((Math.PI / 4) * 1.75 ** 2, 12)
    expect(scan('G1 X1 F60\n').flow).toEqual({ peak: null, p50: null, p95: null })
    expect(movesH(r)).toBeCloseTo(1 / 3600, 12)
    // nothing was timed: no hours, and not 0, which every spool outlasts
    expect(movesH(scan('G1 X10 E1\n'))).toBe(null)
  })
  test('28, 29 heat and fan', () => {
    const r = scan(
      'M104 S200\nM109 R210 T1\nG10 P2 S250\nG10\nM190 S90\nM140 S0\nM141 S70\nM106 P1 S255\nM106 S300\nM107 ' +
        'P2\nG1 X1 E1 F60\nM107\nG1 X2 E2\n',
    )
    expect(r.maxSetpointC).toEqual({ tools: { 0: 200, 1: 210, 2: 250 }, bed: 90, chamber: 70 })
    expect(r.fan).toEqual({ max: 1, mean: 0.5 })
  })
  test('no extrusion is said last', () => {
    expect(scan('G1 X,\nG28\n').problems).toEqual([
      { line: 1, kind: 'bad-number' },
      { line: null, kind: 'no-extrusion' },
    ])
  })
})

describe('beyond the samples', () => {
  test('over two million moves the quantiles come from bins, within 0.1 %', () => {
    const s = new Scan()
    s.push(new TextEncoder().encode('M83\nG1 F600\n'))
    const n = EXACT_MOVES + 1000
    const block = 1000
    const flows: number[] = []
    for (let k = 0; k < n; k += block) {
      let text = ''
      for (let i = 0; i < block; i++) {
        const e = (0.02 + 0.3 * (((k + i) * 0.618034) % 1)).toFixed(4)
        flows.push(Number(e))
        text += `G1 X${i % 2 === 0 ? 1 : 0} E${e}\n`
      }
      s.push(new TextEncoder().encode(text))
    }
    const r = s.finish()
    expect(r.flowBinned).toBe(true)
    flows.sort((a, b) => a - b)
    const total = flows.reduce((a, b) => a + b, 0)
    let sum = 0
    const at = [0.5, 0.95].map(p => {
      sum = 0
      return ((flows.find(f => (sum += f) >= p * total)! * Math.PI) / 4) * 1.75 ** 2 * 10
    })
    expect(Math.abs(r.flow.p50! / at[0]! - 1)).toBeLessThan(1e-3)
    expect(Math.abs(r.flow.p95! / at[1]! - 1)).toBeLessThan(1e-3)
  }, 60_000)
  test('a line of 4 MB is read without trouble', () => {
    expect(extruded(`G1 X1 F60 E1 ;${'x'.repeat(4_000_000)}\nG1 X2 E2\n`)).toBe(2)
  })
  test('10 000 problems are listed, the rest are counted', () => {
    const r = scan('hello\n'.repeat(10_005))
    expect(r.problems).toHaveLength(10_001)
    expect(r.problemsNotListed).toBe(5)
  })
  test('what a failed job had extruded, by percent and by height', () => {
    let text = 'M83\nG1 F600\n'
    for (let layer = 1; layer <= 100; layer++) text += `G1 Z${(layer * 0.2).toFixed(1)}\nG1 X${(layer % 2) * 10} E1.0\n`
    const r = scan(text, { totalBytes: text.length })
    expect(r.profile).toHaveLength(101)
    const profiled = { tools: r.tools, profile: r.profile! }
    expect(stoppedAt(profiled, { percent: 100 }).tools[0]!.extrudedMm).toBe(100)
    expect(stoppedAt(profiled, { percent: 50 }).tools[0]!.extrudedMm).toBeCloseTo(50, -0.5)
    expect(stoppedAt(profiled, { heightMm: 10 }).tools[0]!.extrudedMm).toBeCloseTo(50, -0.5)
    expect(stoppedAt(profiled, { heightMm: 0 }).percent).toBeLessThan(3)
    expect(() => stoppedAt(profiled, { percent: 101 })).toThrow(InputError)
    expect(scan(text).profile).toBeNull()
  })
  test('flow per tool', () => {
    const r = scan('G1 X10 E1 F600\nT1\nG1 X20 E2\n')
    expect(r.toolFlow.map(t => t.peak! / ((Math.PI / 4) * 1.75 ** 2))).toEqual([
      expect.closeTo(1, 9),
      expect.closeTo(2, 9),
    ])
    expect(r.toolFlow[1]!.histogramMm3.reduce((a, b) => a + b, 0)).toBeCloseTo(((2 * Math.PI) / 4) * 1.75 ** 2, 9)
  })
  test('options out of range name the field', () => {
    expect(() => new Scan({ filamentDiameterMm: 0 })).toThrow(InputError)
    expect(() => new Scan({ dialect: 'x' as never })).toThrow(/dialect/)
  })
})
