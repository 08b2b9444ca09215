/**
 * npm run --silent scan -- FILE [--diameter 1.75] [--dialect eFollowsPositioning]: prints the scan of a job file as
 * JSON.
 */
import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { parseArgs } from 'node:util'
import { publicResult, Scan, type Dialect } from '#core/gcode'
import { fail } from './lib/command'

async function main(): Promise<void> {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { diameter: { type: 'string', default: '1.75' }, dialect: { type: 'string', default: 'eIndependent' } },
  })
  const [file] = positionals
  if (!file || positionals.length > 1)
    fail('Usage: npm run --silent scan -- FILE [--diameter 1.75] [--dialect eFollowsPositioning]')
  const info = await stat(file).catch(() => null)
  if (!info?.isFile()) fail(`${file}: no such file`)
  const scan = new Scan({
    dialect: values.dialect as Dialect,
    filamentDiameterMm: Number(values.diameter),
    totalBytes: info.size,
  })
  for await (const chunk of createReadStream(file, { highWaterMark: 1 << 18 })) scan.push(chunk as Uint8Array)
  console.log(JSON.stringify(publicResult(scan.finish()), null, 2))
}

main().catch((error: unknown) => fail(error instanceof Error ? error.message : String(error)))
