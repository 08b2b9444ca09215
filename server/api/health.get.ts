import { sql } from 'drizzle-orm'
import { answering } from '../doors/doors'

export default answering(async db => {
  await db.execute(sql`select 1`)
  return { status: 'ready' }
})
