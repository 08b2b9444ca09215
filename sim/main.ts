/**
 * The stand-ins of the demo: one printer for each of the demo shop, a balance and a microscope, each on a free port
 * of the loopback.
 * Prints one line of JSON with their addresses, then lives until it is stopped. `--speed N` makes them N times as fast.
 */
import { parseArgs } from 'node:util'
import { serveBalance } from './balance'
import { serveMicroscope } from './microscope'
import { servePrinter } from './printer'
import { machine, pass, type Build } from './thermal'

const { values } = parseArgs({ options: { speed: { type: 'string', default: process.env.STAND_IN_SPEED ?? '1' } } })
const speed = Number(values.speed)
if (!(speed > 0 && speed <= 1000)) throw new Error(`--speed ${values.speed}: above 0, at most 1000`)

const ROOM = 23
const hot = (heads = 1): Build => ({
  enclosed: true,
  active: true,
  bedShare: 0.4,
  chamberTauS: 700,
  heads,
  roomC: ROOM,
})
const warm = (bedShare: number): Build => ({
  enclosed: true,
  active: false,
  bedShare,
  chamberTauS: 900,
  heads: 1,
  roomC: ROOM,
})
const open: Build = { enclosed: false, active: false, bedShare: 0, chamberTauS: 60, heads: 1, roomC: ROOM }
/** Some print, some stand: nozzle, bed and chamber as found at the start. */
const PRINTERS: [string, Build, [number, number, number] | null][] = [
  ['Calder', hot(), [430, 150, 85]],
  ['Ribble', warm(0.55), null],
  ['Wharfe', warm(0.45), [275, 90, 0]],
  ['Aire', open, null],
  ['Swale', hot(2), null],
  ['Nidd', open, [245, 80, 0]],
]

const printers: Record<string, string> = {}
for (const [name, build, at] of PRINTERS) {
  const m = machine(build)
  if (at) {
    m.heads[0]!.setC = at[0]
    m.bed.setC = at[1]
    m.chamber.setC = at[2]
    pass(m, 7200)
  }
  printers[name] = `127.0.0.1:${(await servePrinter(m, { speed })).port}`
}
const balance = `127.0.0.1:${(await serveBalance()).port}`
const microscope = `127.0.0.1:${(await serveMicroscope()).port}`
process.stdout.write(`${JSON.stringify({ printers, balance, microscope })}\n`)
process.stdin.on('end', () => process.exit(0)).resume() // goes when whoever started it goes
