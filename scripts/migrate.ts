/** Brings DATABASE_URL to the newest schema. */
import { connect } from '../server/db/client'
import { migrationFiles } from '../server/db/files'
import { migrate } from '../server/db/migrate'

const { client } = connect(process.env.DATABASE_URL!, { max: 1 })
try {
  for (const name of await migrate(client, migrationFiles())) console.log(`  ${name}`)
} finally {
  await client.end()
}
