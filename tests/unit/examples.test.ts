/**
 * The core explains itself: every function and every value that a folder offers has a sentence of its own, and each
 * folder's main entry a worked example in its docstring, which is run here. An example's last line reads
 * `expression // answer`; a number is compared to as many places as are written.
 */
import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import ts from 'typescript'
import { describe, expect, test } from 'vitest'

const core = join(import.meta.dirname, '../../core')
const folders = readdirSync(core, { withFileTypes: true })
  .filter(f => f.isDirectory())
  .map(f => f.name)
  .sort()
const program = ts.createProgram(
  folders.map(f => join(core, f, 'index.ts')),
  { target: ts.ScriptTarget.ESNext, module: ts.ModuleKind.ESNext, moduleResolution: ts.ModuleResolutionKind.Bundler },
)
const checker = program.getTypeChecker()

interface Offered {
  name: string
  says: string
  examples: string[]
}
const isSaid = (d: ts.Declaration) =>
  ts.isFunctionDeclaration(d) || ts.isClassDeclaration(d) || ts.isVariableDeclaration(d)
/** The functions, classes and values that a folder offers, with what their docstrings say. */
function offered(folder: string): Offered[] {
  const index = checker.getSymbolAtLocation(program.getSourceFile(join(core, folder, 'index.ts'))!)!
  return checker
    .getExportsOfModule(index)
    .map(s => [s.name, s.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(s) : s] as const)
    .filter(([, s]) => s.declarations?.some(isSaid))
    .map(([name, s]) => ({
      name,
      says: ts.displayPartsToString(s.getDocumentationComment(checker)),
      examples: s
        .getJsDocTags(checker)
        .filter(t => t.name === 'example')
        .map(t => ts.displayPartsToString(t.text)),
    }))
}
interface Worked {
  code: string
  answer: string
}
/** Statements and the last one's answer; a note in brackets behind the answer is for the reader. */
function worked(example: string): Worked {
  const at = example.lastIndexOf(' // ')
  if (at < 0) throw new Error(`No answer in: ${example}`)
  const lines = example.slice(0, at).trim().split('\n')
  return {
    code: [...lines.slice(0, -1), `return ${lines.at(-1)!}`].join('\n'),
    answer: example
      .slice(at + 4)
      .replace(/\s\(.*\)\s*$/, '')
      .trim(),
  }
}
/** A value as the example writes it: numbers to its places. */
function asWritten(value: unknown, answer: string): string {
  if (typeof value !== 'number') return JSON.stringify(value)
  return value.toFixed(/\.(\d+)$/.exec(answer)?.[1]?.length ?? 0)
}

describe.each(folders)('core/%s', folder => {
  const all = offered(folder)
  test('each function and each value says what it is', () => {
    expect(all.length).toBeGreaterThan(0)
    expect(all.filter(f => !/^[^\n]{10,}/.test(f.says)).map(f => f.name)).toEqual([])
  })
  test('has a worked example, and each example comes true', async () => {
    const examples = all.flatMap(f => f.examples.map(e => ({ name: f.name, ...worked(e) })))
    expect(examples.length).toBeGreaterThan(0)
    const it = (await import(join(core, folder, 'index.ts'))) as Record<string, unknown>
    for (const e of examples) {
      // the example sees what the folder offers, as one who reads it would import it
      const run = new Function(...Object.keys(it), e.code) as (...offered: unknown[]) => unknown
      expect(asWritten(run(...Object.values(it)), e.answer), `${e.name}: ${e.code}`).toBe(e.answer)
    }
  })
})
test('an example that is wrong is found, and one without an answer', () => {
  expect(worked('const a = 2\na * 3 // 6.0 (no unit)')).toEqual({ code: 'const a = 2\nreturn a * 3', answer: '6.0' })
  expect(asWritten(6.04, '6.0')).toBe('6.0')
  expect(asWritten(6.06, '6.0')).not.toBe('6.0')
  expect(() => worked('f(1)')).toThrow('No answer')
})
