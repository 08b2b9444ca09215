import { sql } from 'drizzle-orm'

export default answering(async db => {
  await db.execute(sql`select 1`)
  return { status: 'ready' }
})
