/**
 * Job-file scan: speed against a bare loop that counts newlines over the same chunks, and against a general G-code
 * interpreter; resident memory while reading 1 GB. Prints ratios of one run. Budgets: 0.25 of the bare loop (aim 0.40),
 * 20 times the interpreter, under 150 MB above the start.
 */
import { createRequire } from 'node:module'
import { Scan } from '#core/gcode'
import { mulberry32 } from '#core/numeric'

const Interpreter = createRequire(import.meta.url)('gcode-interpreter') as new (o: object) => {
  loadFromStringSync: (s: string) => void
}
const CHUNK = 1 << 18

/** A print like a slicer's: layers of perimeters and infill, absolute or relative E, comments, retractions. */
function* job(bytes: number, seed = 7): Generator<Uint8Array> {
  const random = mulberry32(seed)
  const encoder = new TextEncoder()
  let made = 0
  let text = 'G21\nG90\nM83\nM104 S280\nM140 S100\nM109 S280\nG1 Z0.3 F900\n'
  let layer = 0
  while (made < bytes) {
    text += `;LAYER:${layer++}\nG1 Z${(0.3 + layer * 0.2).toFixed(2)} F900\n;TYPE:wall\n`
    for (let i = 0; i < 900; i++) {
      const x = (60 + 100 * random()).toFixed(3),
        y = (60 + 100 * random()).toFixed(3)
      if (i % 40 === 0) text += `G1 E-0.8 F2100\nG0 X${x} Y${y} F9000\nG1 E0.8 F2100\nG1 F2400\n`
      else text += `G1 X${x} Y${y} E${(0.02 + random()).toFixed(5)}\n`
    }
    if (text.length >= CHUNK) {
      const b = encoder.encode(text)
      made += b.length
      text = ''
      for (let i = 0; i < b.length; i += CHUNK) yield b.subarray(i, i + CHUNK)
    }
  }
}

function seconds(work: () => void): number {
  const t = performance.now()
  work()
  return (performance.now() - t) / 1000
}

const small = process.argv.includes('--quick')
const chunks = [...job(small ? 40e6 : 200e6)]
const bytes = chunks.reduce((s, c) => s + c.length, 0)
const part = chunks.slice(0, 30)
const partBytes = part.reduce((s, c) => s + c.length, 0)
const text = Buffer.concat(part).toString()
let newlines = 0,
  lines = 0,
  commands = 0
let bare = Infinity,
  scan = Infinity,
  interpreter = Infinity
for (let round = 0; round < 7; round++) {
  // in turns, so that a slow moment of the machine meets all three; the best of each counts
  bare = Math.min(
    bare,
    seconds(() => {
      newlines = 0
      for (const c of chunks) for (let i = 0; i < c.length; i++) if (c[i] === 10) newlines++
    }),
  )
  scan = Math.min(
    scan,
    seconds(() => {
      const s = new Scan({ totalBytes: bytes })
      for (const c of chunks) s.push(c)
      lines = s.finish().lines!
    }),
  )
  if (round < 3)
    interpreter = Math.min(
      interpreter,
      seconds(() => {
        commands = 0
        const count = () => {
          commands++
        }
        new Interpreter({ handlers: { G0: count, G1: count }, defaultHandler: count }).loadFromStringSync(text)
      }),
    )
}
if (lines !== newlines) throw new Error(`read ${lines} lines of ${newlines}`)
const speed = bytes / scan
console.log(
  `file ${(bytes / 1e6).toFixed(0)} MB, ${lines} lines; bare newline loop ${(bytes / bare / 1e6).toFixed(0)} ` +
    `MB/s; scan ${(speed / 1e6).toFixed(0)} MB/s; interpreter ${(partBytes / interpreter / 1e6).toFixed(1)} ` +
    `MB/s (${commands} commands)`,
)
console.log(`scan / bare newline loop: ${(bare / scan).toFixed(3)} (budget 0.25, aim 0.40)`)
console.log(`scan / general interpreter: ${(speed / (partBytes / interpreter)).toFixed(1)} (budget 20)`)

chunks.length = 0
global.gc?.()
const start = process.memoryUsage().rss
let peak = 0
const big = new Scan({ totalBytes: 1e9 })
let n = 0
for (const c of job(small ? 100e6 : 1e9)) {
  big.push(c)
  if (++n % 200 === 0) peak = Math.max(peak, process.memoryUsage().rss)
}
const r = big.finish()
peak = Math.max(peak, process.memoryUsage().rss)
console.log(
  `1 GB (${r.printingMoves} printing moves): resident ${((peak - start) / 1e6).toFixed(0)} MB above the start ` +
    `(budget 150)`,
)
