/** Reads the archive of its argument into DATABASE_URL, a database that is new; `npm run restore` uses it. */
import { basename } from 'node:path'
import { connect } from '../server/db/client'
import { migrationFiles } from '../server/db/files'
import { ArchiveError, unpack } from '../server/records/out/unpack'

const [file] = process.argv.slice(2)
const { client } = connect(process.env.DATABASE_URL!, { max: 1 })
try {
  const { rows, madeAt } = await unpack(client, file!, migrationFiles())
  console.log(`  ${rows} records of ${madeAt} read; forecasts are worked out afresh when the shop runs`)
} catch (error) {
  if (!(error instanceof ArchiveError)) throw error
  console.error(`${basename(file!)} cannot be read: ${error.message}. Nothing was changed.`)
  process.exitCode = 1
} finally {
  await client.end()
}
