/** Writes DATABASE_URL as an archive to the file of its argument; `npm run archive` uses it. */
import { once } from 'node:events'
import { createWriteStream, renameSync, rmSync } from 'node:fs'
import { connect } from '../server/db/client'
import { writeArchive } from '../server/records/out/archive'

const [file] = process.argv.slice(2)
const { client, db } = connect(process.env.DATABASE_URL!, { max: 2 })
// half an archive never has that name
const half = `${file!}.part`
const to = createWriteStream(half, { mode: 0o600 })
try {
  await writeArchive(db, async bytes => {
    if (!to.write(bytes)) await once(to, 'drain')
  })
  to.end()
  await once(to, 'close')
  renameSync(half, file!)
} catch (error) {
  rmSync(half, { force: true })
  throw error
} finally {
  await client.end()
}
