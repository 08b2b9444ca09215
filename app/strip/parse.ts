/**
 * The strip's small language: one line in, what was understood out, or the exact word that could not be read.
 *
 *   N-014 bore 0.43-0.44 · N-014 bore 0.434±0.005 · N-014 tip 12.47 · N-014 oval
 *   Ribble +312g PA6-CF20 9.5h · Ribble +104m S-07
 *   swap Ribble N-032, swap Ribble H-08 (opens it, step by step)
 *   bench Ribble, bench N-014 (plans a flow bench)
 *   wrong Ribble (opens a case of what is wrong with a print)
 *   fit N-014 Ribble · remove N-014 · retire N-014 worn oval
 *   spool S-07 out · spool S-07 in · S-07 812 g · spool S-07 weighed 812g · spool S-07 dried 12h 70C
 *   study 0.43-0.44 · study N-014 0.43-0.44
 *   N-014 (opens its page), the address of a label (the tag in it)
 */
import { whereIs } from '~/words/nozzle'
import { tagOfCode } from '#shared/labels'
import type { Checks } from '~/lib/checks'
import { type StripShop, type Understood, same, unread, wordsOf } from '~/strip/grammar'
import { bench, fit, leave, swap, wrong } from '~/strip/fitting'
import { spool } from '~/strip/spool'
import { study } from '~/strip/study'
import { gauge } from '~/strip/gauge'
import { run } from '~/strip/run'

/** What a line says, or what keeps it from being an entry. */
export function understand(line: string, shop: StripShop, nowIso: string, checks: Checks | null): Understood {
  const u = readLine(line, shop, nowIso)
  if (u.kind !== 'entry') return u
  // nothing that the door would refuse is offered or queued, nor what could not be checked yet
  if (checks === null) return { kind: 'more', says: u.says }
  const [wrong] = checks.entry(u.route, u.body)
  return wrong === undefined ? u : { kind: 'more', says: `${u.says}: ${wrong.message}` }
}

/** Of what was retired or used up long ago the tag is known, and its page. */
function goneOf(text: string, shop: StripShop): Extract<Understood, { kind: 'open' }> | null {
  const nozzle = shop.known.nozzles.find(tag => same(tag, text))
  if (nozzle) return { kind: 'open', says: `Open ${nozzle}: retired`, path: `/inspect/${nozzle}` }
  const used = shop.known.spools.find(tag => same(tag, text))
  return used ? { kind: 'open', says: `Open ${used}: used up`, path: `/prepare/spool/${used}` } : null
}

/** A hand scanner types what the code of a label says: an address with the tag at its end. */
const withTags = (line: string) => line.replace(/^\s*https?:\/\/\S+/i, tagOfCode)

function readLine(line: string, shop: StripShop, nowIso: string): Understood {
  const words = wordsOf(withTags(line))
  const first = words[0]
  if (!first) return { kind: 'empty' }
  const rest = words.slice(1)
  switch (first.text.toLowerCase()) {
    case 'swap':
      return swap(rest, shop)
    case 'bench':
      return bench(rest, shop)
    case 'wrong':
      return wrong(rest, shop)
    case 'fit':
      return fit(rest, shop, nowIso)
    case 'remove':
      return leave('remove', rest, shop, nowIso)
    case 'retire':
      return leave('retire', rest, shop, nowIso)
    case 'study':
      return study(rest, shop, nowIso)
    case 'spool':
      return rest[0] ? spool(rest[0], rest.slice(1), shop, nowIso) : { kind: 'more', says: 'Which spool?' }
  }
  const nozzle = shop.nozzles.find(n => same(n.tag, first.text))
  if (nozzle)
    return rest.length === 0
      ? {
          kind: 'open',
          says: `Open ${nozzle.tag}: ${nozzle.typeName}, ${whereIs(nozzle)}`,
          path: `/inspect/${nozzle.tag}`,
        }
      : gauge(nozzle, rest, nowIso)
  if (shop.spools.some(s => same(s.tag, first.text))) return spool(first, rest, shop, nowIso)
  const gone = goneOf(first.text, shop)
  if (gone) return rest.length === 0 ? gone : { kind: 'more', says: `${gone.says}; what happened to it stands there` }
  const hotend = shop.hotends.find(h => same(h.tag, first.text))
  if (hotend && rest.length === 0)
    return { kind: 'open', says: `Open ${hotend.tag} on its shelf`, path: '/stores?tab=Hotends' }
  const pin = shop.known.pins.find(mark => same(mark, first.text))
  if (pin !== undefined && rest.length === 0)
    return { kind: 'open', says: `Open pin ${pin}`, path: `/stores/pins?show=${encodeURIComponent(pin)}` }
  const printer = shop.printers.find(p => same(p.name, first.text))
  if (printer)
    return rest.length === 0
      ? { kind: 'more', says: `${printer.name}: what went through? For example +312g PA6-CF20 9.5h` }
      : run(printer, rest, shop, nowIso)
  return unread(first, 'not a nozzle, spool, printer or word the strip knows')
}
