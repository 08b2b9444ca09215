/**
 * The budget of a page: at most 180 KB of script, packed, before it is drawn. By what the built files import; charts
 * and whatever else comes by `import()` are not in it.
 */
import { statSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { BUILT, builtScripts } from './support'

const MOST_BYTES = 180_000

test('no page carries more than 180 KB of script before it is drawn', () => {
  const code = builtScripts()
  const imports = new Map(
    [...code].map(([f, text]) => [
      f,
      [...text.matchAll(/(?:from|import)\s*"\.\/([\w-]+\.js)"/g)].map(m => m[1]!).filter(i => code.has(i)),
    ]),
  )
  const withAll = (f: string, seen: Set<string>): Set<string> => {
    if (seen.has(f)) return seen
    seen.add(f)
    for (const i of imports.get(f)!) withAll(i, seen)
    return seen
  }
  // the one that knows where every page is
  const [entry, routes] = [...code].find(([, text]) => text.includes('path:"/verify/chamber"'))!
  const pages = [...routes.matchAll(/path:"([^"]*)"[^{}]*?component:\(\)=>[^{}]*?import\("\.\/([\w-]+\.js)"\)/g)]
  expect(pages.length).toBeGreaterThan(40)
  const bytesOf = (f: string) =>
    statSync(join(BUILT, `${f}.br`), { throwIfNoEntry: false })?.size ?? code.get(f)!.length
  const frame = withAll(entry, new Set())
  const heavy = pages
    .map(([, path, file]) => ({
      path,
      bytes: [...withAll(file!, new Set(frame))].reduce((s, f) => s + bytesOf(f), 0),
    }))
    .filter(p => p.bytes > MOST_BYTES)
  expect(heavy).toEqual([])
})
