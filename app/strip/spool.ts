/** spool S-07 out: what happened to a spool. */
import { SPOOL_KINDS } from '#shared/choices'
import {
  type Word,
  type StripShop,
  type Understood,
  same,
  unread,
  SPOOL_WORDS,
  AMOUNT,
  number,
  HOURS,
  CELSIUS,
  dashed,
} from '~/strip/grammar'

export function spool(tag: Word, words: Word[], shop: StripShop, at: string): Understood {
  const found = shop.spools.find(s => same(s.tag, tag.text))
  if (!found) return unread(tag, 'no spool has this tag')
  const [what, weight] = words
  if (!what) return { kind: 'more', says: `${found.tag} (${found.material}): ${SPOOL_WORDS.join(', ')}` }
  const kind = SPOOL_KINDS.find(k => same(dashed(k), what.text))
  const alone = AMOUNT.exec(what.text)
  if (alone && what.text.startsWith('+')) return onWhich(found, what, shop)
  if (alone && !weight) return weighed(found, what, at)
  if (!kind) return unread(what, `for a spool: ${SPOOL_WORDS.join(', ')}`)
  if (kind === 'dried') return dried(found, words.slice(1), at)
  if (kind !== 'weighed')
    return weight
      ? unread(weight, 'nothing more is needed here')
      : {
          kind: 'entry',
          says: `Spool ${found.tag} (${found.material}): ${kind}`,
          route: '/api/spool-events',
          body: { spoolId: found.id, kind, occurredAt: at },
        }
  if (!weight) return { kind: 'more', says: `${found.tag} with its spool weighs how many g?` }
  return weighed(found, weight, at)
}

function weighed(found: StripShop['spools'][number], weight: Word, at: string): Understood {
  const a = AMOUNT.exec(weight.text)
  if (!a || a[2]!.toLowerCase() === 'm' || weight.text.startsWith('+')) return unread(weight, 'not a weight like 812g')
  const grossG = number(a[1]!) * (a[2]!.toLowerCase() === 'kg' ? 1000 : 1)
  return {
    kind: 'entry',
    says: `Spool ${found.tag} weighs ${grossG} g with its spool`,
    route: '/api/spool-events',
    body: { spoolId: found.id, kind: 'weighed', grossG, occurredAt: at },
  }
}
/** "S-07 +40 g" is a run: it needs its printer. */
function onWhich(found: StripShop['spools'][number], amount: Word, shop: StripShop): Understood {
  const first = shop.printers[0]?.name ?? 'the printer'
  return {
    kind: 'more',
    says: `${amount.text} of ${found.tag} on which printer? For example ${first} ${amount.text} ${found.tag}`,
  }
}

/** A drying that the app did not time: hours and temperature, in any order, as far as they are known. */
function dried(found: StripShop['spools'][number], words: Word[], at: string): Understood {
  const body: Record<string, unknown> = { spoolId: found.id, kind: 'dried', occurredAt: at }
  for (const w of words) {
    const h = HOURS.exec(w.text),
      c = CELSIUS.exec(w.text)
    if (h) body.hours = number(h[1]!)
    else if (c) body.atC = number(c[1]!)
    else return unread(w, 'after dried: how long (12h) and how hot (70C)')
  }
  const how = [
    body.hours === undefined ? '' : `for ${body.hours as number} h`,
    body.atC === undefined ? '' : `at ${body.atC as number} °C`,
  ]
    .filter(Boolean)
    .join(' ')
  return {
    kind: 'entry',
    says: `Spool ${found.tag} (${found.material}): dried ${how || 'as usual'}, until now`,
    route: '/api/spool-events',
    body,
  }
}
