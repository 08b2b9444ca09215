/**
 * npm run --silent bore -- FILE --um-per-px 2.3 [--u-scale 0] [--tone linear|srgb]: the bore in a PNG picture of a
 * nozzle's mouth, as JSON. Stored values count as linear unless a tone is stated.
 */
import { measureBore, type Tone } from '#core/imaging'
import { fail, numberOf } from './lib/command'
import { picture } from './lib/picture'
import { parseArgs } from 'node:util'

const USAGE = 'Usage: npm run --silent bore -- FILE --um-per-px 2.3 [--u-scale 0] [--tone linear|srgb]'

async function main(): Promise<void> {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      'um-per-px': { type: 'string' },
      'u-scale': { type: 'string', default: '0' },
      'tone': { type: 'string', default: 'linear' },
    },
  })
  const [file] = positionals
  if (!file || positionals.length > 1 || values['um-per-px'] === undefined) fail(USAGE)
  const found = measureBore(await picture(file), {
    umPerPx: numberOf('--um-per-px', values['um-per-px']),
    uUmPerPx: numberOf('--u-scale', values['u-scale']),
    tone: values.tone as Tone,
    isToneStated: true,
  })
  if ('refused' in found) {
    console.log(JSON.stringify(found))
    return
  }
  const { boreMm, uMm, largestMm, smallestMm, longDeg, chips, flareMm, edgeShare, warnings, budget } = found
  console.log(
    JSON.stringify(
      { boreMm, uMm, largestMm, smallestMm, longDeg, chips, flareMm, edgeShare, warnings, budget },
      null,
      2,
    ),
  )
}

main().catch((error: unknown) => fail(error instanceof Error ? error.message : String(error)))
