/** npm run --silent scale -- FILE --every-mm 0.01 [--tone linear|srgb]: the scale of a PNG picture of a stage scale. */
import { stageScale, type Tone } from '#core/imaging'
import { fail, numberOf } from './lib/command'
import { picture } from './lib/picture'
import { parseArgs } from 'node:util'

const USAGE = 'Usage: npm run --silent scale -- FILE --every-mm 0.01 [--tone linear|srgb]'

async function main(): Promise<void> {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { 'every-mm': { type: 'string' }, 'tone': { type: 'string', default: 'linear' } },
  })
  const [file] = positionals
  if (!file || positionals.length > 1 || values['every-mm'] === undefined) fail(USAGE)
  const found = stageScale(await picture(file), numberOf('--every-mm', values['every-mm']), 0, values.tone as Tone)
  console.log(JSON.stringify(found, null, 2))
}

main().catch((error: unknown) => fail(error instanceof Error ? error.message : String(error)))
