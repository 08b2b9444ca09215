/**
 * The adapter against the stand-ins over real sockets: read, heated, killed, started again; and lines that make no
 * sense.
 */
import type { Live } from '#shared/answers/live'
import { createServer } from 'node:net'
import { afterAll, describe, expect, test } from 'vitest'
import { askOnce, parseAddress, watch } from '../../server/telemetry/link'
import { Hub, linksFrom } from '../../server/telemetry/hub'
import { readChannels, readReport } from '../../server/telemetry/report'
import { serveBalance } from '../../sim/balance'
import { serveThermometer } from '../../sim/thermometer'
import { answer, servePrinter } from '../../sim/printer'
import { machine, pass } from '../../sim/thermal'

const BUILD = { enclosed: true, active: false, bedShare: 0.55, chamberTauS: 900, heads: 1, roomC: 23 }
const open: (() => void)[] = []
afterAll(() => {
  for (const close of open) close()
})
async function until(what: () => boolean, ms = 8000): Promise<void> {
  const end = Date.now() + ms
  while (!what()) {
    if (Date.now() > end) throw new Error('it did not happen')
    await new Promise(done => setTimeout(done, 20))
  }
}

test(
  'a printer is read, heated through its own port, lost when it is killed, and found again on the ' + 'same port',
  async () => {
    let printer = await servePrinter(machine(BUILD), { speed: 200, everyMs: 50 })
    const hub = new Hub({ Ribble: `127.0.0.1:${printer.port}` }, null, true)
    open.push(() => hub.stop())
    const heard: Live[] = []
    hub.hear(l => heard.push(l))
    hub.start(60)
    await until(() => heard.some(l => l.at !== null))
    expect(hub.all()[0]).toMatchObject({
      printer: 'Ribble',
      lostSince: null,
      heads: [{ nowC: 23 }],
      bed: { nowC: 23 },
      chamber: { nowC: 23 },
    })
    await askOnce(`127.0.0.1:${printer.port}`, ['M140 S100'])
    await until(() => (hub.all()[0]!.bed?.nowC ?? 0) > 60)
    expect(hub.all()[0]!.bed!.setC).toBe(100)
    printer.close()
    await until(() => hub.all()[0]!.lostSince !== null)
    expect(hub.all()[0]).toMatchObject({ heads: [], bed: null, chamber: null }) // no stale number
    printer = await servePrinter(machine(BUILD), { port: printer.port })
    open.push(() => printer.close())
    await until(() => hub.all()[0]!.lostSince === null)
    expect(hub.all()[0]!.bed!.nowC).toBe(23)
  },
)

test('a printer that is silent is lost too, and one that floods is cut off', async () => {
  let mode: 'silent' | 'flood' = 'silent'
  const server = createServer(s => {
    s.on('error', () => {})
    if (mode === 'flood') s.write('x'.repeat(20_000))
  })
  await new Promise<void>(done => {
    server.listen(0, '127.0.0.1', done)
  })
  open.push(() => server.close())
  const address = `127.0.0.1:${(server.address() as { port: number }).port}`
  await expect(askOnce(address, ['M105'], 100)).rejects.toThrow(/lost/)
  mode = 'flood'
  await expect(askOnce(address, ['M105'], 1000)).rejects.toThrow(/lost/)
  let lost = 0
  const w = watch(
    '127.0.0.1:1',
    'M105',
    () => {},
    () => {
      lost++
    },
    { everyMs: 10, mostMs: 20 },
  )
  await until(() => lost >= 3)
  w.stop()
})

test('the balance answers what was put on it', async () => {
  const balance = await serveBalance(0, { noise: () => 0.5 })
  open.push(balance.close)
  expect(await askOnce(`127.0.0.1:${balance.port}`, ['P 812.4', 'S'])).toBe('812.4 g')
  expect(await askOnce(`127.0.0.1:${balance.port}`, ['P much'])).toBe('error')
})

describe('the thermometer', () => {
  test('reads the room until a probe is put somewhere, follows with its lag, and says what is no place', async () => {
    let at = 0
    const t = await serveThermometer(p => (p === 'Wharfe hotend' ? 281 : null), { noise: () => 0.5, now: () => at })
    open.push(t.close)
    const ask = (...lines: string[]) => askOnce(`127.0.0.1:${t.port}`, lines)
    expect(await ask('R')).toBe('1 23.0 2 23.0 3 23.0 4 23.0')
    expect(await ask('A 5 Wharfe hotend')).toBe('error')
    expect(await ask('A 1 Nowhere bed')).toBe('error')
    expect(await ask('A 2 Wharfe hotend')).toBe('ok')
    at = 6000
    // one time constant on: 63 % of the way
    expect(await ask('R')).toBe(`1 23.0 2 ${(281 - 258 / Math.E).toFixed(1)} 3 23.0 4 23.0`)
    at = 120_000
    expect(readChannels(await ask('R'))).toEqual([23, 281, 23, 23])
    expect(await ask('A 2', 'R')).toBe('1 23.0 2 281.0 3 23.0 4 23.0')
  })
  test.each([
    ['1 241.3 2 -- 3 23', [241.3, null, 23]],
    ['1 -999.9', [null]],
    ['1 24.1 2', null],
    ['2 24.1', null],
    ['1 warm', null],
    ['', null],
  ])('"%s"', (line, channels) => {
    expect(readChannels(line)).toEqual(channels)
  })
})

describe('the report', () => {
  test.each([
    [
      'ok T:215.0 /220.0 B:60.1 /60.0 C:35.0 /0.0',
      { heads: [{ nowC: 215, setC: 220 }], bed: { nowC: 60.1, setC: 60 }, chamber: { nowC: 35, setC: 0 } },
    ],
    [
      'ok T:30.0 /0.0 T0:30.0 /0.0 T1:410.2 /410.0 B:150 /150',
      {
        heads: [
          { nowC: 30, setC: 0 },
          { nowC: 410.2, setC: 410 },
        ],
        bed: { nowC: 150, setC: 150 },
        chamber: null,
      },
    ],
    ['T:22.5 B:22', { heads: [{ nowC: 22.5, setC: null }], bed: { nowC: 22, setC: null }, chamber: null }],
    ['ok T:-999.0 /0.0 B:60 /60', { heads: [], bed: { nowC: 60, setC: 60 }, chamber: null }],
  ])('%s', (line, report) => {
    expect(readReport(line)).toEqual(report)
  })
  test.each(['ok', '', 'error: no such command', 'start'])('"%s" is none', line => {
    expect(readReport(line)).toBeNull()
  })
})

test('addresses and links with mistakes are said, and leave that link out', () => {
  expect(parseAddress('192.0.2.7:8899')).toEqual({ host: '192.0.2.7', port: 8899 })
  for (const bad of ['nowhere', 'x:0', 'x:70000', '']) expect(() => parseAddress(bad)).toThrow(/not an address/)
  const said: string[] = []
  expect(
    linksFrom({ PRINTER_LINKS: '{"A":"x:1","B":"nowhere"}', BALANCE_LINK: 'bad', STAND_INS: '1' }, t => said.push(t)),
  ).toEqual({
    links: { A: 'x:1' },
    balance: null,
    fineBalance: null,
    microscope: null,
    thermometer: null,
    standIns: true,
  })
  expect(said).toHaveLength(2)
  expect(linksFrom({ PRINTER_LINKS: 'not json' }, t => said.push(t)).links).toEqual({})
})

describe('the stand-in lives like a printer', () => {
  test('overshoots a little, settles at its setpoint, and its chamber follows the bed by its own share', () => {
    const m = machine(BUILD)
    answer(m, 'M104 S220')
    answer(m, 'M140 S100')
    let highest = 0
    for (let i = 0; i < 1200; i++) {
      pass(m, 1)
      highest = Math.max(highest, m.heads[0]!.readC)
    }
    expect(highest).toBeGreaterThan(221)
    pass(m, 7200)
    expect(m.heads[0]!.readC).toBeCloseTo(220, 0)
    expect(m.bed.readC).toBeCloseTo(100, 0)
    expect(m.chamber.readC).toBeCloseTo(23 + 0.55 * 77, 0)
    answer(m, 'door 1')
    pass(m, 120)
    expect(m.chamber.readC).toBeLessThan(50)
  })
  test('says what it does not know', () => {
    const m = machine(BUILD)
    expect(answer(m, 'M999')).toMatch(/^error/)
    expect(answer(m, 'M104')).toMatch(/no setpoint/)
    expect(answer(m, 'M104 S900')).toMatch(/no setpoint/)
  })
})
