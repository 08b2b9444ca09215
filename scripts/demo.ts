/** Loads the demo into DATABASE_URL, once. Used by the start command; `--anchor ISO` fixes the day for tests. */
import { parseArgs } from 'node:util'
import { loadDemo } from '../demo/load'
import { connect } from '../server/db/client'
import { migrationFiles } from '../server/db/files'
import { migrate } from '../server/db/migrate'

const { values } = parseArgs({ options: { anchor: { type: 'string' } } })
const { client, db } = connect(process.env.DATABASE_URL!, { max: 2 })
try {
  await migrate(client, migrationFiles())
  const loaded = await loadDemo(db, values.anchor ? new Date(values.anchor) : new Date(), text =>
    console.log(`  ${text}`),
  )
  if (loaded) await client`analyze` // until the server knows how much there is, it reads the floor a second at a time
  console.log(loaded ? '  demo data loaded' : '  demo data is there already')
} finally {
  await client.end()
}
