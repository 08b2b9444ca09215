/** The one-way imports are really refused: planted imports must be found by the project's own lint rules. */
import { ESLint } from 'eslint'
import { expect, test } from 'vitest'

const eslint = new ESLint({ cwd: new URL('../..', import.meta.url).pathname })
const rulesFor = async (file: string, code: string) =>
  (await eslint.lintText(code, { filePath: file }))[0]!.messages.map(m => m.ruleId)

test.each([
  ['core/wear/planted.ts', "import { x } from 'vue'\n\nexport const y = x\n"],
  ['core/wear/planted.ts', "import { x } from '../../server/db/client'\n\nexport const y = x\n"],
  ['core/wear/planted.ts', "import { x } from 'node:fs'\n\nexport const y = x\n"],
  ['shared/planted.ts', "import { x } from '../server/records/runs'\n\nexport const y = x\n"],
  ['server/records/planted.ts', "import { x } from '~/words/numbers'\n\nexport const y = x\n"],
  ['app/planted.ts', "import type { X } from '../server/records/runs/runs'\n\nexport type Y = X\n"],
  ['app/planted.ts', "import { saveRun } from '../server/records/runs'\n\nexport const y = saveRun\n"],
  ['app/planted.ts', "import { ENTRIES } from '#shared/api'\n\nexport const y = ENTRIES\n"],
  ['app/planted.ts', "import { gaugeSchema } from '#shared/entries/nozzles'\n\nexport const y = gaugeSchema\n"],
])(
  '%s',
  async (file, code) => {
    expect(await rulesFor(file, code)).toEqual(
      expect.arrayContaining([expect.stringMatching(/no-restricted-imports$/)]),
    )
  },
  60_000,
)

test('what is allowed is allowed', async () => {
  const numeric = "import { normalCdf } from '../numeric'\n\nexport const y = normalCdf\n"
  expect(await rulesFor('core/wear/planted.ts', numeric)).toEqual([])
  const answer = "import type { Floor } from '#shared/answers/bench'\n\nexport type Y = Floor\n"
  expect(await rulesFor('app/planted.ts', answer)).toEqual([])
}, 60_000)
