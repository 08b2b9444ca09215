/** Source: the job-file samples with exact results worked out beside the reader's rules (docs/job-file-reader.md). */
import { execFile } from 'node:child_process'
import { readdirSync, readFileSync } from 'node:fs'
import { promisify } from 'node:util'
import { describe, expect, test } from 'vitest'
import { publicResult, Scan, type Dialect, type ScanResult } from '#core/gcode'

const folder = new URL('../samples/gcode/', import.meta.url)
const cases = readdirSync(folder)
  .filter(f => f.endsWith('.expected.json'))
  .map(f => {
    const expected = JSON.parse(readFileSync(new URL(f, folder), 'utf8')) as ScanResult
    return {
      name: f.replace('.expected.json', ''),
      file: f.replace(/(\.eFollowsPositioning)?\.expected\.json$/, '.gcode'),
      expected,
    }
  })

/** Numbers agree to 1e-9 · max(1, |want|), everything else exactly, in the same order of fields. */
function expectSame(got: unknown, want: unknown, at = ''): void {
  if (typeof want === 'number') {
    expect(typeof got, at).toBe('number')
    expect(Math.abs((got as number) - want), `${at}: got ${String(got)}, want ${want}`).toBeLessThanOrEqual(
      1e-9 * Math.max(1, Math.abs(want)),
    )
  } else if (want !== null && typeof want === 'object') {
    expect(Object.keys(got as object), at).toEqual(Object.keys(want))
    for (const [k, v] of Object.entries(want)) expectSame((got as Record<string, unknown>)[k], v, `${at}.${k}`)
  } else expect(got, at).toBe(want)
}

describe.each(cases)('$name', ({ file, expected }) => {
  const bytes = readFileSync(new URL(file, folder))
  test.each([1, 7, 4096, 1 << 20])('in chunks of %i bytes', size => {
    const scan = new Scan({ dialect: expected.dialect, filamentDiameterMm: expected.filamentDiameterMm })
    for (let i = 0; i < bytes.length; i += size) scan.push(bytes.subarray(i, i + size))
    expectSame(publicResult(scan.finish()), expected)
  })
})

test('there are samples, in both dialects', () => {
  expect(cases.length).toBeGreaterThanOrEqual(9)
  expect(new Set(cases.map(c => c.expected.dialect satisfies Dialect)).size).toBe(2)
})

test('the command line prints the same fields', async () => {
  const one = cases.find(c => c.expected.dialect === 'eFollowsPositioning')!
  const file = new URL(one.file, folder).pathname
  const { stdout } = await promisify(execFile)('npm', [
    'run',
    '--silent',
    'scan',
    '--',
    file,
    '--diameter',
    String(one.expected.filamentDiameterMm),
    '--dialect',
    'eFollowsPositioning',
  ])
  expectSame(JSON.parse(stdout), one.expected)
})
