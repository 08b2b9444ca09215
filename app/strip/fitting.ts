/** fit, remove, retire. */
import { type Word, type StripShop, type Understood, same, unread, dashed } from '~/strip/grammar'

export function fit(words: Word[], shop: StripShop, at: string): Understood {
  const [tag, where, which] = words
  if (!tag) return { kind: 'more', says: 'Fit which nozzle?' }
  const nozzle = shop.nozzles.find(n => same(n.tag, tag.text))
  if (!nozzle) return unread(tag, 'no nozzle has this tag')
  if (!where) return { kind: 'more', says: `Fit ${nozzle.tag} to which printer?` }
  const printer = shop.printers.find(p => same(p.name, where.text))
  if (!printer) return unread(where, 'no printer has this name')
  const only = printer.heads.length === 1 ? printer.heads[0] : undefined
  const head = which ? printer.heads.find(h => same(dashed(h.name), which.text)) : only
  if (which && !head) return unread(which, `${printer.name} has ${printer.heads.map(h => dashed(h.name)).join(', ')}`)
  if (!head)
    return {
      kind: 'more',
      says: `${printer.name} has several heads: add ` + `${printer.heads.map(h => dashed(h.name)).join(' or ')}`,
    }
  const place = printer.heads.length > 1 ? `${printer.name} (${head.name})` : printer.name
  return {
    kind: 'entry',
    says:
      `Fit ${nozzle.tag} to ${place}${head.nozzle ? `; ${head.nozzle} comes off` : ''}` +
      `${nozzle.place && head.nozzleId !== nozzle.id ? `; ${nozzle.tag} leaves ${nozzle.place}` : ''}`,
    route: '/api/fittings',
    body: { kind: 'fit', nozzleId: nozzle.id, headId: head.id, occurredAt: at },
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
