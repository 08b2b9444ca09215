/** Completions of the last word. */
import { SHAPES } from '#shared/choices'
import { type StripShop, same, SPOOL_WORDS, dashed, wordsOf } from '~/strip/grammar'

const firstWords = (shop: StripShop) => [
  ...shop.nozzles.map(n => n.tag),
  ...shop.printers.map(p => p.name),
  ...shop.spools.map(s => s.tag),
  ...shop.known.nozzles,
  ...shop.known.spools,
  'swap',
  'bench',
  'wrong',
  'fit',
  'remove',
  'retire',
  'spool',
  ...(shop.studyTurn ? ['study'] : []),
]
function laterWords(first: string, shop: StripShop): string[] {
  if (shop.nozzles.some(n => same(n.tag, first))) return ['bore', 'tip', ...SHAPES.map(dashed)]
  if (first === 'study') return shop.studyTurn ? [shop.studyTurn.tag] : []
  if (first === 'spool') return [...shop.spools.map(s => s.tag), ...SPOOL_WORDS]
  if (['swap', 'bench', 'wrong', 'fit', 'remove', 'retire'].includes(first))
    return [
      ...shop.nozzles.filter(n => !n.retired).map(n => n.tag),
      ...(first === 'swap' ? shop.hotends.filter(h => h.headId === null).map(h => h.tag) : []),
      ...shop.printers.map(p => p.name),
    ]
  return [
    ...shop.spools.map(s => s.tag),
    ...shop.materials.map(m => dashed(m.name)),
    'failed',
    ...shop.printers.flatMap(p => p.heads.map(h => dashed(h.name))),
  ]
}

/** Completions for the last word, most likely first: tags, names and the words that may stand there. */
export function completions(line: string, shop: StripShop, most = 8): string[] {
  if (/\s$/.test(line) || line === '') return []
  // the words that the line is read by: "2 h" is one, and no start of a head's name
  const words = wordsOf(line).map(w => w.text.toLowerCase())
  const last = words[words.length - 1]!
  const pool = words.length === 1 ? firstWords(shop) : laterWords(words[0]!, shop)
  const start = pool.filter(p => p.toLowerCase().startsWith(last) && p.toLowerCase() !== last)
  const inside =
    last.length >= 2 ? pool.filter(p => !p.toLowerCase().startsWith(last) && p.toLowerCase().includes(last)) : []
  return [...new Set([...start, ...inside])].slice(0, most)
}
