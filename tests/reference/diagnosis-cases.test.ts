/** The written cases hold together: each cause is answered at least once, and none contradicts itself. */
import { expect, test } from 'vitest'
import { CASES, CAUSES } from './diagnosis-cases'

test('at least thirty cases, each by a name of its own, and an answer for every cause', () => {
  expect(CASES.length).toBeGreaterThanOrEqual(30)
  expect(new Set(CASES.map(c => c.name)).size).toBe(CASES.length)
  for (const cause of CAUSES) expect(CASES.filter(c => c.answer === cause).length, cause).toBeGreaterThan(0)
  expect(CASES.filter(c => c.answer === null).length).toBeGreaterThan(2)
})

test('nothing is both seen and looked for in vain, and no answer stands beside itself', () => {
  for (const c of CASES) {
    expect(
      c.seen.filter(s => c.not?.includes(s)),
      c.name,
    ).toEqual([])
    expect(c.or?.includes(c.answer!) ?? false, c.name).toBe(false)
  }
})
