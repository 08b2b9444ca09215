/** swap, bench, wrong, fit, remove, retire. */
import { type Word, type StripShop, type Understood, same, unread, dashed } from '~/strip/grammar'

type Printer = StripShop['printers'][number]
interface Head {
  head: Printer['heads'][number]
  place: string
  /** Words of the line that named it. */
  used: number
}

/** The head that a printer's name, and a head's where there are several, stand for; or what is still needed. */
function headOf(printer: Printer, which: Word | undefined): Head | Understood {
  const only = printer.heads.length === 1 ? printer.heads[0] : undefined
  if (only) return { head: only, place: printer.name, used: 1 }
  const names = printer.heads.map(h => dashed(h.name))
  if (!which) return { kind: 'more', says: `${printer.name} has several heads: add ${names.join(' or ')}` }
  const head = printer.heads.find(h => same(dashed(h.name), which.text))
  return head
    ? { head, place: `${printer.name} (${head.name})`, used: 2 }
    : unread(which, `${printer.name} has ${names.join(', ')}`)
}
const isHead = (x: Head | Understood): x is Head => 'head' in x

export function fit(words: Word[], shop: StripShop, at: string): Understood {
  const [tag, where, which] = words
  if (!tag) return { kind: 'more', says: 'Fit which nozzle?' }
  const nozzle = shop.nozzles.find(n => same(n.tag, tag.text))
  if (!nozzle) return unread(tag, 'no nozzle has this tag')
  if (!where) return { kind: 'more', says: `Fit ${nozzle.tag} to which printer?` }
  const printer = shop.printers.find(p => same(p.name, where.text))
  if (!printer) return unread(where, 'no printer has this name')
  const found = headOf(printer, which)
  if (!isHead(found)) return found
  if (which && found.used === 1 && !same(dashed(found.head.name), which.text))
    return unread(which, `${printer.name} has ${dashed(found.head.name)}`)
  const { head, place } = found
  return {
    kind: 'entry',
    says:
      `Fit ${nozzle.tag} to ${place}${head.nozzle ? `; ${head.nozzle} comes off` : ''}` +
      `${nozzle.place && head.nozzleId !== nozzle.id ? `; ${nozzle.tag} leaves ${nozzle.place}` : ''}`,
    route: '/api/fittings',
    body: { kind: 'fit', nozzleId: nozzle.id, headId: head.id, occurredAt: at },
  }
}

/** A page that is opened on a head. */
interface OnHead {
  asks: string
  says: string
  page: string
  needsNozzle: boolean
}
/** Plans a flow bench: `bench Ribble`, `bench Swale hot`, or the nozzle that sits there, `bench N-014`. */
export const bench = (words: Word[], shop: StripShop): Understood =>
  onHead(words, shop, {
    asks: 'Bench on which printer? For example: bench Ribble',
    says: 'Plan a flow bench on',
    page: '/inspect/bench',
    needsNozzle: true,
  })
/** Opens a case: `wrong Ribble`, `wrong Swale hot`, `wrong N-014`. */
export const wrong = (words: Word[], shop: StripShop): Understood =>
  onHead(words, shop, {
    asks: 'Something is wrong on which printer? For example: wrong Ribble',
    says: 'Say what is wrong on',
    page: '/inspect/wrong',
    needsNozzle: false,
  })

function onHead(words: Word[], shop: StripShop, it: OnHead): Understood {
  const [where, which, more] = words
  if (!where) return { kind: 'more', says: it.asks }
  const open = (headId: number, place: string): Understood => ({
    kind: 'open',
    says: `${it.says} ${place}`,
    path: `${it.page}?head=${headId}`,
  })
  const nozzle = shop.nozzles.find(n => same(n.tag, where.text))
  if (nozzle) {
    if (which) return unread(which, 'the nozzle is all it takes')
    return nozzle.headId === null
      ? unread(where, `${nozzle.tag} sits on no printer`)
      : open(nozzle.headId, `${nozzle.place}, ${nozzle.tag}`)
  }
  const printer = shop.printers.find(p => same(p.name, where.text))
  if (!printer) return unread(where, 'no printer and no nozzle has this name')
  const found = headOf(printer, which)
  if (!isHead(found)) return found
  const extra = found.used === 1 ? which : more
  if (extra) return unread(extra, 'the printer is all it takes')
  if (found.head.nozzleId === null && it.needsNozzle) return unread(where, `no nozzle is fitted at ${found.place}`)
  return open(found.head.id, found.head.nozzle === null ? found.place : `${found.place}, ${found.head.nozzle}`)
}

/** Opens it, step by step: `swap Ribble N-032`, of a hotend `swap Ribble H-08`; without a tag it says what to take. */
export function swap(words: Word[], shop: StripShop): Understood {
  const [where, ...rest] = words
  if (!where) return { kind: 'more', says: 'Swap on which printer? For example: swap Ribble N-032' }
  const printer = shop.printers.find(p => same(p.name, where.text))
  if (!printer) return unread(where, 'no printer has this name')
  const found = headOf(printer, rest[0])
  if (!isHead(found)) return found
  const { head, place, used } = found
  const tag = rest[used - 1]
  const hotend = tag && shop.hotends.find(t => same(t.tag, tag.text))
  if (hotend)
    return {
      kind: 'open',
      says:
        `Change the hotend on ${place}, step by step: ${head.hotend ? `${head.hotend} off` : 'none is on'}, ` +
        `${hotend.tag} on`,
      path: `/change/hotend?head=${head.id}&hotend=${hotend.id}`,
    }
  const nozzle = tag && shop.nozzles.find(n => same(n.tag, tag.text))
  if (tag && !nozzle) return unread(tag, 'no nozzle and no hotend has this tag')
  const fresh = nozzle ? `, ${nozzle.tag} in` : ''
  return {
    kind: 'open',
    says: `Swap on ${place}, step by step: ${head.nozzle ? `${head.nozzle} out` : 'no nozzle is in'}${fresh}`,
    path: `/change/swap?head=${head.id}${nozzle ? `&nozzle=${nozzle.id}` : ''}`,
  }
}

export function leave(kind: 'remove' | 'retire', words: Word[], shop: StripShop, at: string): Understood {
  const [tag, ...why] = words
  if (!tag) return { kind: 'more', says: `${kind === 'remove' ? 'Remove' : 'Retire'} which nozzle?` }
  const nozzle = shop.nozzles.find(n => same(n.tag, tag.text))
  if (!nozzle) return unread(tag, 'no nozzle has this tag')
  const reason = why.map(w => w.text).join(' ')
  if (kind === 'retire' && reason.length < 3)
    return { kind: 'more', says: `Why is ${nozzle.tag} retired? For example: retire ${nozzle.tag} worn oval` }
  return {
    kind: 'entry',
    says: `${kind === 'remove' ? 'Remove' : 'Retire'} ${nozzle.tag}${reason ? `: ${reason}` : ''}`,
    route: '/api/fittings',
    body: { kind, nozzleId: nozzle.id, reason, occurredAt: at },
  }
}
