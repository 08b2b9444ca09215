/**
 * The stand-ins of the demo: one printer for each of the demo shop, two balances, a microscope and a thermometer, each
 * on a free port of the loopback.
 * Prints one line of JSON with their addresses, then lives until it is stopped. `--speed N` makes them N times as fast.
 */
import { parseArgs } from 'node:util'
import { serveBalance } from './balance'
import { STAND_IN_HEADS } from './flow-bench'
import { serveMicroscope } from './microscope'
import { servePrinter } from './printer'
import { serveThermometer } from './thermometer'
import { machine, pass, type Build, type Machine } from './thermal'

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

const machines = new Map<string, Machine>()
const printers: Record<string, string> = {}
for (const [name, build, at] of PRINTERS) {
  const m = machine(build)
  machines.set(name, m)
  if (at) {
    m.heads[0]!.setC = at[0]
    m.bed.setC = at[1]
    m.chamber.setC = at[2]
    pass(m, 7200)
  }
  printers[name] = `127.0.0.1:${(await servePrinter(m, { speed })).port}`
}
const balance = `127.0.0.1:${(await serveBalance()).port}`
const fineBalance = `127.0.0.1:${(await serveBalance(0, { stepG: 0.001, heads: STAND_IN_HEADS })).port}`
const microscope = `127.0.0.1:${(await serveMicroscope()).port}`
/** What the sensors of the demo read too low by, °C at what they show; the demo's checks tell of the same. */
const READS_LOW: Record<string, (shownC: number) => number> = {
  'Wharfe hotend': shown => (6.2 * (shown - ROOM)) / (285 - ROOM),
}
/** True air at a place of a chamber, mm from left, front and bed: warmer near the bed, and a little at the back. */
function airAt(m: Machine, [x, y, z]: readonly number[]): number {
  const share = 1 + 0.19 * Math.max(-0.3, Math.min(1, (400 - z!) / 350)) + 0.0001 * (y! - 100) - 0.00005 * x!
  return ROOM + (m.chamber.bodyC - ROOM) * (m.build.enclosed ? share : 1)
}
/** The true temperature at `Wharfe hotend`, `Swale hotend 2`, `Calder bed`, `Ribble chamber`, `Ribble air 120 80 9`. */
function trueAt(place: string): number | null {
  const [, chamber, ...mm] = /^(\S+) air (-?\d+) (-?\d+) (-?\d+)$/.exec(place) ?? []
  const of = chamber === undefined ? undefined : machines.get(chamber)
  if (of) return airAt(of, mm.map(Number))
  const [, name, zone, head = '1'] = /^(\S+) (hotend|bed|chamber)(?: (\d))?$/.exec(place) ?? []
  const m = name === undefined ? undefined : machines.get(name)
  if (!m) return null
  const h = zone === 'hotend' ? m.heads[Number(head) - 1] : m[zone as 'bed' | 'chamber']
  return h ? h.readC + (READS_LOW[place]?.(h.readC) ?? 0) : null
}
const thermometer = `127.0.0.1:${(await serveThermometer(trueAt, { speed, roomC: ROOM })).port}`
process.stdout.write(`${JSON.stringify({ printers, balance, fineBalance, microscope, thermometer })}\n`)
process.stdin.on('end', () => process.exit(0)).resume() // goes when whoever started it goes
