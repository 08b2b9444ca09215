/** Ribble +312g PA6-CF20 9.5h: a run by hand. */
import {
  type StripShop,
  type Word,
  type Understood,
  AMOUNT,
  HOURS,
  CELSIUS,
  same,
  number,
  unread,
  dashed,
} from '~/strip/grammar'

export function run(printer: StripShop['printers'][number], words: Word[], shop: StripShop, at: string): Understood {
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
      x => same(x.name, w.text) || same(dashed(x.name), w.text) || (x.nozzle !== null && same(x.nozzle, w.text)),
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
      const m = shop.materials.find(x => same(x.name, w.text) || same(dashed(x.name), w.text))
      if (s) spoolFound = s
      else if (m) material = m
      else return unread(w, 'not an amount (+312g, +104m), spool, material, head, time (9.5h) or temperature (280C)')
    }
  }
  if (!head)
    return {
      kind: 'more',
      says: `${printer.name} has several heads: add ${printer.heads.map(x => dashed(x.name)).join(' or ')}`,
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
