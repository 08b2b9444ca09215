/**
 * The strip's small language: one line in, what was understood out, or the exact word that could not be read.
 *
 *   N-014 bore 0.43-0.44 · N-014 bore 0.434±0.005 · N-014 tip 12.47 · N-014 oval
 *   Ribble +312g PA6-CF20 9.5h · Ribble +104m S-07
 *   fit N-014 Ribble · remove N-014 · retire N-014 worn oval
 *   spool S-07 out · spool S-07 in · spool S-07 weighed 812g · spool S-07 dried 12h 70C
 *   N-014 (opens its page)
 */
import type { EntryPath } from '#shared/api'
import type { Shop } from '#shared/answers/shop'
import { SPOOL_KINDS } from '#shared/entries/spools'
import { SHAPES } from '#shared/entries/nozzles'

export type StripShop = Pick<Shop, 'printers' | 'nozzles' | 'spools' | 'materials'>

export type Understood =
  | { kind: 'empty' }
  | { kind: 'entry'; says: string; route: EntryPath; body: Record<string, unknown> }
  | { kind: 'open'; says: string; path: string }
  /** Fine so far, but something is still needed. */
  | { kind: 'more'; says: string }
  /** `word` could not be read; it stands at `from` in the line. */
  | { kind: 'unread'; word: string; from: number; why: string }

interface Word {
  text: string
  from: number
}

const number = (t: string) => Number(t.replace(',', '.'))
const N = '(\\d+(?:[.,]\\d+)?)'
const PINS = new RegExp(`^${N}[-\u2013]${N}$`)
const VALUE = new RegExp(`^${N}(?:\u00b1|\\+-|\\+/-)${N}$`)
const GO = new RegExp(`^>${N}$`)
const NO_GO = new RegExp(`^<${N}$`)
const PLAIN = new RegExp(`^${N}(?:mm)?$`)
const AMOUNT = new RegExp(`^\\+?${N}(g|kg|m)$`, 'i')
const HOURS = new RegExp(`^${N}h$`, 'i')
const CELSIUS = new RegExp(`^${N}(?:c|\u00b0c)$`, 'i')
/** The kinds of what happens to a spool as words of the strip. */
const SPOOL_WORDS = SPOOL_KINDS.map(k => k.replaceAll(' ', '-'))

const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase()
const unread = (w: Word, why: string): Understood => ({ kind: 'unread', word: w.text, from: w.from, why })

export function understand(line: string, shop: StripShop, nowIso: string): Understood {
  const words: Word[] = [...line.matchAll(/\S+/g)].map(m => ({ text: m[0], from: m.index }))
  const first = words[0]
  if (!first) return { kind: 'empty' }
  const rest = words.slice(1)
  switch (first.text.toLowerCase()) {
    case 'fit':
      return fit(rest, shop, nowIso)
    case 'remove':
      return leave('remove', rest, shop, nowIso)
    case 'retire':
      return leave('retire', rest, shop, nowIso)
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
  const printer = shop.printers.find(p => same(p.name, first.text))
  if (printer)
    return rest.length === 0
      ? { kind: 'more', says: `${printer.name}: what went through? For example +312g PA6-CF20 9.5h` }
      : run(printer, rest, shop, nowIso)
  return unread(first, 'not a nozzle, spool, printer or word the strip knows')
}

function whereIs(n: StripShop['nozzles'][number]): string {
  if (n.place) return `fitted to ${n.place}`
  return n.retired ? 'retired' : 'on the shelf'
}

function gauge(nozzle: StripShop['nozzles'][number], words: Word[], at: string): Understood {
  const body: Record<string, unknown> = { nozzleId: nozzle.id, occurredAt: at }
  const says: string[] = []
  const shape: string[] = []
  for (let i = 0; i < words.length; i++) {
    const w = words[i]!
    const shapeWord = SHAPES.find(s => same(s, w.text) || same(s.replace(' ', '-'), w.text))
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
        noGo = NO_GO.exec(v.text)
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
      } else if (PLAIN.test(v.text))
        return unread(v, `one number is not enough: two pins (${v.text}-0.44) or how sure you are (${v.text}±0.005)`)
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

function run(printer: StripShop['printers'][number], words: Word[], shop: StripShop, at: string): Understood {
  let amount: { kind: 'grams'; grams: number } | { kind: 'metres'; metres: number } | null = null
  let hours: number | null = null
  let setC: number | null = null
  let spoolFound: StripShop['spools'][number] | null = null
  let material: StripShop['materials'][number] | null = null
  let head = printer.heads.length === 1 ? printer.heads[0]! : null
  let failed = false
  for (const w of words) {
    const a = AMOUNT.exec(w.text),
      h = HOURS.exec(w.text),
      c = CELSIUS.exec(w.text)
    const byHead = printer.heads.find(
      x =>
        same(x.name, w.text) ||
        same(x.name.replaceAll(' ', '-'), w.text) ||
        (x.nozzle !== null && same(x.nozzle, w.text)),
    )
    if (a)
      amount =
        a[2]!.toLowerCase() === 'm'
          ? { kind: 'metres', metres: number(a[1]!) }
          : { kind: 'grams', grams: number(a[1]!) * (a[2]!.toLowerCase() === 'kg' ? 1000 : 1) }
    else if (h) hours = number(h[1]!)
    else if (c) setC = number(c[1]!)
    else if (byHead) head = byHead
    else if (same(w.text, 'failed')) failed = true
    else {
      const s = shop.spools.find(x => same(x.tag, w.text))
      const m = shop.materials.find(x => same(x.name, w.text) || same(x.name.replaceAll(' ', '-'), w.text))
      if (s) spoolFound = s
      else if (m) material = m
      else return unread(w, 'not an amount (+312g, +104m), spool, material, head, time (9.5h) or temperature (280C)')
    }
  }
  if (!head)
    return {
      kind: 'more',
      says:
        `${printer.name} has several heads: add ` +
        `${printer.heads.map(x => x.name.replaceAll(' ', '-')).join(' or ')}`,
    }
  if (!head.nozzle)
    return { kind: 'more', says: `No nozzle is fitted to ${printer.name}: fit one first (fit N-001 ${printer.name})` }
  if (!amount) return { kind: 'more', says: `${printer.name}: how much? For example +312g or +104m` }
  if (!spoolFound && !material)
    return { kind: 'more', says: 'Of what? Add the spool (S-07) or the material (PA6-CF20)' }
  const what = amount.kind === 'grams' ? `${amount.grams} g` : `${amount.metres} m`
  const name = material?.name ?? spoolFound!.material
  const more = [
    spoolFound ? ` from ${spoolFound.tag}` : '',
    hours === null ? '' : `, ${hours} h`,
    setC === null ? '' : `, ${setC} °C`,
    failed ? ', failed' : '',
  ]
  return {
    kind: 'entry',
    route: '/api/runs',
    says: `Log a run on ${printer.name}, ${head.nozzle}: ${what} ${name}${more.join('')}`,
    body: {
      printerId: printer.id,
      name: `${name} by hand`,
      endedAt: at,
      hours,
      outcome: failed ? 'failed' : 'finished',
      tools: [
        {
          tool: 0,
          headId: head.id,
          nozzleId: head.nozzleId,
          spoolId: spoolFound?.id ?? null,
          materialId: material?.id ?? null,
          setC,
          amount,
        },
      ],
    },
  }
}

function fit(words: Word[], shop: StripShop, at: string): Understood {
  const [tag, where, which] = words
  if (!tag) return { kind: 'more', says: 'Fit which nozzle?' }
  const nozzle = shop.nozzles.find(n => same(n.tag, tag.text))
  if (!nozzle) return unread(tag, 'no nozzle has this tag')
  if (!where) return { kind: 'more', says: `Fit ${nozzle.tag} to which printer?` }
  const printer = shop.printers.find(p => same(p.name, where.text))
  if (!printer) return unread(where, 'no printer has this name')
  const only = printer.heads.length === 1 ? printer.heads[0] : undefined
  const head = which ? printer.heads.find(h => same(h.name.replaceAll(' ', '-'), which.text)) : only
  if (which && !head)
    return unread(which, `${printer.name} has ${printer.heads.map(h => h.name.replaceAll(' ', '-')).join(', ')}`)
  if (!head)
    return {
      kind: 'more',
      says:
        `${printer.name} has several heads: add ` +
        `${printer.heads.map(h => h.name.replaceAll(' ', '-')).join(' or ')}`,
    }
  const place = printer.heads.length > 1 ? `${printer.name} (${head.name})` : printer.name
  return {
    kind: 'entry',
    says: `Fit ${nozzle.tag} to ${place}${head.nozzle ? `; ${head.nozzle} comes off` : ''}`,
    route: '/api/fittings',
    body: { kind: 'fit', nozzleId: nozzle.id, headId: head.id, occurredAt: at },
  }
}

function leave(kind: 'remove' | 'retire', words: Word[], shop: StripShop, at: string): Understood {
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

function spool(tag: Word, words: Word[], shop: StripShop, at: string): Understood {
  const found = shop.spools.find(s => same(s.tag, tag.text))
  if (!found) return unread(tag, 'no spool has this tag')
  const [what, weight] = words
  if (!what) return { kind: 'more', says: `${found.tag} (${found.material}): ${SPOOL_WORDS.join(', ')}` }
  const kind = SPOOL_KINDS.find(k => same(k.replaceAll(' ', '-'), what.text))
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
  const a = AMOUNT.exec(weight.text)
  if (!a || a[2]!.toLowerCase() === 'm') return unread(weight, 'not a weight like 812g')
  const grossG = number(a[1]!) * (a[2]!.toLowerCase() === 'kg' ? 1000 : 1)
  return {
    kind: 'entry',
    says: `Spool ${found.tag} weighs ${grossG} g with its spool`,
    route: '/api/spool-events',
    body: { spoolId: found.id, kind, grossG, occurredAt: at },
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

const firstWords = (shop: StripShop) => [
  ...shop.nozzles.map(n => n.tag),
  ...shop.printers.map(p => p.name),
  ...shop.spools.map(s => s.tag),
  'fit',
  'remove',
  'retire',
  'spool',
]
function laterWords(first: string, shop: StripShop): string[] {
  if (shop.nozzles.some(n => same(n.tag, first))) return ['bore', 'tip', ...SHAPES.map(s => s.replace(' ', '-'))]
  if (first === 'spool') return [...shop.spools.map(s => s.tag), ...SPOOL_WORDS]
  if (['fit', 'remove', 'retire'].includes(first))
    return [...shop.nozzles.filter(n => !n.retired).map(n => n.tag), ...shop.printers.map(p => p.name)]
  return [
    ...shop.spools.map(s => s.tag),
    ...shop.materials.map(m => m.name.replaceAll(' ', '-')),
    'failed',
    ...shop.printers.flatMap(p => p.heads.map(h => h.name.replaceAll(' ', '-'))),
  ]
}

/** Completions for the last word, most likely first: tags, names and the words that may stand there. */
export function completions(line: string, shop: StripShop, most = 8): string[] {
  if (/\s$/.test(line) || line === '') return []
  const words = line.split(/\s+/)
  const last = words[words.length - 1]!.toLowerCase()
  const pool = words.length === 1 ? firstWords(shop) : laterWords(words[0]!.toLowerCase(), shop)
  const start = pool.filter(p => p.toLowerCase().startsWith(last) && p.toLowerCase() !== last)
  const inside =
    last.length >= 2 ? pool.filter(p => !p.toLowerCase().startsWith(last) && p.toLowerCase().includes(last)) : []
  return [...new Set([...start, ...inside])].slice(0, most)
}
