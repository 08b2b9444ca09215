/** study 0.43-0.44: the line of a gauge study whose turn it is; a tag before it says which nozzle is in hand. */
import { PINS, PLAIN, number, same, unread, type StripShop, type Understood, type Word } from '~/strip/grammar'

export function study(words: Word[], shop: StripShop, at: string): Understood {
  const turn = shop.studyTurn
  if (!turn) return { kind: 'more', says: 'No gauge study is being read; begin one in Inspect, Study' }
  const place = `${turn.name}, line ${turn.line + 1} of ${turn.lines}: ${turn.person} gauges ${turn.tag}`
  const rest = [...words]
  const nozzle = rest[0] && shop.nozzles.find(n => same(n.tag, rest[0]!.text))
  if (nozzle) {
    if (nozzle.id !== turn.nozzleId) return unread(rest[0]!, `it is the turn of ${turn.tag}`)
    rest.shift()
  }
  const w = rest[0]
  if (!w)
    return turn.method === 'pins'
      ? { kind: 'more', says: `${place}: which goes and which does not? For example 0.43-0.44` }
      : { kind: 'more', says: `${place}: how wide is it in the picture, mm? For example 0.4312` }
  if (rest[1]) return unread(rest[1], 'one reading is all a line takes')
  const body: Record<string, unknown> = { studyId: turn.studyId, line: turn.line, occurredAt: at }
  const pins = PINS.exec(w.text)
  const plain = PLAIN.exec(w.text)
  const entry = (says: string): Understood => ({
    kind: 'entry',
    says: `${place}: ${says}`,
    route: '/api/study-readings',
    body,
  })
  if (turn.method === 'pins') {
    if (!pins) return unread(w, 'not two pins: the one that goes and the one that does not, like 0.43-0.44')
    const [goMm, noGoMm] = [number(pins[1]!), number(pins[2]!)]
    if (goMm >= noGoMm) return unread(w, 'the go pin must be smaller than the no-go pin')
    Object.assign(body, { goMm, noGoMm })
    return entry(`${goMm} goes, ${noGoMm} does not`)
  }
  if (!plain) return unread(w, 'not a bore in mm, like 0.4312')
  body.valueMm = number(plain[1]!)
  return entry(`${body.valueMm as number} mm`)
}
