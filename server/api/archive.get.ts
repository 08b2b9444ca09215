import { database } from '../db/database'
import { pouring } from '../doors/files'
import { writeArchive } from '../records/out/archive'

export default pouring('/api/archive', () => ({
  type: 'application/zip',
  name: `iron-nozzle-${new Date().toISOString().slice(0, 10)}.zip`,
  write: async out => writeArchive(await database(), out),
}))
