import { existsSync } from 'node:fs'
import { expect, test } from 'vitest'
import { specsFor } from '../../scripts/lib/changed.mjs'

const names = (paths: string[]) => specsFor(paths)?.map(p => p.replace(/^tests\/e2e\/|\.spec\.ts$/g, '')) ?? null

test('a change runs the end-to-end tests of what it is part of', () => {
  expect(names(['app/components/prepare/DryPlan.vue', 'core/drying/plan.ts'])).toEqual(['prepare'])
  expect(names(['core/limits/stack.ts', 'app/strip/run.ts'])).toEqual(['equip', 'keyboard'])
  expect(names(['tests/e2e/fuzz.spec.ts'])).toEqual(['fuzz'])
  expect(names(['README.md', 'tests/unit/words.test.ts', 'bench/wear.ts'])).toEqual([])
})
test('what is part of every screen runs all of them', () => {
  expect(names(['app/components/prepare/DryPlan.vue', 'core/words/numbers.ts'])).toBeNull()
  expect(names(['server/db/schema.ts'])).toBeNull()
})
test('each spec that is named is there', () => {
  const some = ['app/pages/run.vue', 'app/state/outbox.ts', 'app/strip/run.ts', 'server/api/x.ts', 'scripts/start.mjs']
  for (const path of [...some, 'app/pages/prepare/soak.vue', 'app/pages/equip/buy.vue'])
    for (const spec of specsFor([path])!) expect(existsSync(spec), spec).toBe(true)
})
