/**
 * The budget of a page: at most 180 KB of script, packed, before it is drawn. By what the built files import; charts
 * and whatever else comes by `import()` are not in it.
 */
import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'

const MOST_BYTES = 180_000
const FOLDER = join(import.meta.dirname, '../../.output/public/_nuxt')

test('no page carries more than 180 KB of script before it is drawn', () => {
  const files = readdirSync(FOLDER).filter(f => f.endsWith('.js'))
  const code = new Map(files.map(f => [f, readFileSync(join(FOLDER, f), 'utf8')]))
  const imports = (f: string) =>
    [...code.get(f)!.matchAll(/(?:from|import)\s*"\.\/([\w-]+\.js)"/g)].map(m => m[1]!).filter(i => code.has(i))
  const withAll = (f: string, seen: Set<string>): Set<string> => {
    if (seen.has(f)) return seen
    seen.add(f)
    for (const i of imports(f)) withAll(i, seen)
    return seen
  }
  // the one that knows where every page is
  const entry = files.find(f => code.get(f)!.includes('path:"/verify/chamber"'))!
  const pages = [
    ...code.get(entry)!.matchAll(/path:"([^"]*)"[^{}]*?component:\(\)=>[^{}]*?import\("\.\/([\w-]+\.js)"\)/g),
  ].map(([, path, file]) => ({ path: path!, file: file! }))
  expect(pages.length).toBeGreaterThan(40)
  const bytesOf = (f: string) =>
    statSync(join(FOLDER, `${f}.br`), { throwIfNoEntry: false })?.size ?? code.get(f)!.length
  const heavy = pages
    .map(p => ({
      path: p.path,
      bytes: [...withAll(p.file, withAll(entry, new Set()))].reduce((s, f) => s + bytesOf(f), 0),
    }))
    .filter(p => p.bytes > MOST_BYTES)
  expect(heavy).toEqual([])
})
