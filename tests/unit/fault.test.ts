/** A fault of the server is one line, with an id, and holds nothing of what was typed. */
import { expect, test } from 'vitest'
import { faultId, faultLine } from '../../server/doors/fault'

test('of a query that failed: why, and not the query with its parameters', () => {
  const why = Object.assign(new Error('could not serialize access\nsecond line'), { code: '40001' })
  why.name = 'PostgresError'
  const failed = new Error('Failed query: select * from people where name = $1\nparams: a secret', { cause: why })
  const line = faultLine('0a1b2c3d', failed)
  expect(line).toMatch(/^fault 0a1b2c3d: PostgresError 40001: could not serialize access \(.*fault\.test\.ts:\d+\)$/)
  expect(line).not.toContain('secret')
  expect(line).not.toContain('\n')
})

test('a long message is cut, what is no error is said, and causes that go in a circle end', () => {
  expect(faultLine('1', new Error('x'.repeat(1000))).length).toBeLessThan(350)
  expect(faultLine('1', 'plainly wrong\nmore')).toBe('fault 1: plainly wrong')
  const circle = new Error('round')
  circle.cause = circle
  expect(faultLine('1', circle)).toMatch(/^fault 1: Error: round/)
})

test('ids differ', () => {
  const ids = Array.from({ length: 100 }, faultId)
  expect(new Set(ids).size).toBe(100)
  for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}$/)
})
