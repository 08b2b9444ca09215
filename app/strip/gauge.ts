/** N-014 bore 0.43-0.44: what a gauge found. */
import { SHAPES } from '#shared/choices'
import {
  type StripShop,
  type Word,
  type Understood,
  same,
  PINS,
  VALUE,
  GO,
  NO_GO,
  number,
  unread,
  PLAIN,
  dashed,
} from '~/strip/grammar'

export function gauge(nozzle: StripShop['nozzles'][number], words: Word[], at: string): Understood {
  const body: Record<string, unknown> = { nozzleId: nozzle.id, occurredAt: at }
  const says: string[] = []
  const shape: string[] = []
  for (let i = 0; i < words.length; i++) {
    const w = words[i]!
    const shapeWord = SHAPES.find(s => same(s, w.text) || same(dashed(s), w.text))
    if (shapeWord) {
      shape.push(shapeWord)
      continue
    }
    if (same(w.text, 'bore')) {
      const v = words[++i]
      if (!v) return { kind: 'more', says: `Bore of ${nozzle.tag}: two pins (0.43-0.44) or a value (0.434±0.005)` }
      const pins = PINS.exec(v.text),
        value = VALUE.exec(v.text),
        go = GO.exec(v.text),
        noGo = NO_GO.exec(v.text),
        plain = PLAIN.exec(v.text)
      if (pins) {
        if (number(pins[1]!) >= number(pins[2]!)) return unread(v, 'the go pin must be smaller than the no-go pin')
        body.goMm = number(pins[1]!)
        body.noGoMm = number(pins[2]!)
        says.push(`${body.goMm as number} goes, ${body.noGoMm as number} does not`)
      } else if (value) {
        body.valueMm = number(value[1]!)
        body.uMm = number(value[2]!)
        says.push(`bore ${body.valueMm as number} ± ${body.uMm as number} mm`)
      } else if (go) {
        body.goMm = number(go[1]!)
        says.push(`${body.goMm as number} goes`)
      } else if (noGo) {
        body.noGoMm = number(noGo[1]!)
        says.push(`${body.noGoMm as number} does not go`)
      } else if (plain) return unread(v, oneIsNotEnough(plain[1]!))
      else return unread(v, 'not a bore: two pins like 0.43-0.44, or a value like 0.434±0.005')
      continue
    }
    if (same(w.text, 'tip')) {
      const v = words[++i]
      if (!v) return { kind: 'more', says: `Tip length of ${nozzle.tag} in mm, for example 12.47` }
      const plain = PLAIN.exec(v.text),
        value = VALUE.exec(v.text)
      if (!plain && !value) return unread(v, 'not a length in mm')
      body.tipMm = number((plain ?? value)![1]!)
      if (value) body.tipUMm = number(value[2]!)
      says.push(`tip ${body.tipMm as number} mm`)
      continue
    }
    return unread(w, 'for a nozzle: bore, tip, or what you saw (oval, flared, chipped, cracked-plating, loose-insert)')
  }
  if (shape.length > 0) {
    body.shape = shape
    says.push(shape.join(', '))
  }
  return { kind: 'entry', says: `Gauge ${nozzle.tag}: ${says.join(', ')}`, route: '/api/gauges', body }
}

/** Pins go by hundredths: the one that does not go is the next. */
function oneIsNotEnough(text: string): string {
  const go = number(text)
  return `one number is not enough: two pins (${go}-${(go + 0.01).toFixed(2)}) or how sure you are (${go}±0.005)`
}
