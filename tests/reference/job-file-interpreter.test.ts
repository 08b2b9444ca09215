/**
 * Source: gcode-interpreter 3.0.0, a general-purpose G-code interpreter from the package registry. It hands out the
 * words of each line; lengths and extrusion are summed here in the plainest way, on samples with one tool and no
 * special modes.
 */
import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { Scan } from '#core/gcode'

type Words = Partial<Record<string, number>>
type Interpreter = new (o: { handlers: Record<string, (p: Words) => void>; defaultHandler: () => void }) => {
  loadFromStringSync(text: string): void
}
const Interpreter = createRequire(import.meta.url)('gcode-interpreter') as Interpreter

function totals(text: string) {
  let absolute = true,
    absoluteE = true,
    feed = 0,
    e = 0,
    at = 0,
    mark = 0,
    seconds = 0,
    bed = 0
  const place = { X: 0, Y: 0, Z: 0 }
  const move = (p: Words) => {
    feed = p.F ?? feed
    let square = 0
    for (const axis of ['X', 'Y', 'Z'] as const) {
      const v = p[axis]
      if (v === undefined) continue
      const d = absolute ? v - place[axis] : v
      place[axis] += d
      square += d * d
    }
    let moved = 0
    if (p.E !== undefined) {
      moved = absoluteE ? p.E - e : p.E
      e += moved
      at += moved
      mark = Math.max(mark, at)
    }
    const length = square > 1e-18 ? Math.sqrt(square) : Math.abs(moved)
    if (feed > 0) seconds += (length * 60) / feed
  }
  new Interpreter({
    handlers: {
      G0: move,
      G1: move,
      G90: () => {
        absolute = true
      },
      G91: () => {
        absolute = false
      },
      M82: () => {
        absoluteE = true
      },
      M83: () => {
        absoluteE = false
      },
      G92: p => {
        if (p.E !== undefined) e = p.E
        place.X = p.X ?? place.X
        place.Y = p.Y ?? place.Y
        place.Z = p.Z ?? place.Z
      },
      M140: p => {
        bed = Math.max(bed, p.S ?? 0)
      },
      M190: p => {
        bed = Math.max(bed, p.S ?? 0)
      },
    },
    defaultHandler: () => {},
  }).loadFromStringSync(text)
  return { extruded: mark, seconds, bed }
}

test.each(['absolute-e', 'relative-e', 'hollow-box'])('%s: extrusion, time and bed agree', name => {
  const bytes = readFileSync(new URL(`../samples/gcode/${name}.gcode`, import.meta.url))
  const scan = new Scan()
  scan.push(bytes)
  const got = scan.finish()
  const want = totals(bytes.toString())
  expect(want.extruded).toBeGreaterThan(1)
  expect(got.totalExtrudedMm).toBeCloseTo(want.extruded, 6)
  expect(got.moveSeconds).toBeCloseTo(want.seconds, 6)
  expect(got.maxSetpointC.bed ?? 0).toBe(want.bed)
})
