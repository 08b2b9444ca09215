import { sql } from 'drizzle-orm'
import { answering } from '../doors/doors'

export default answering('/api/health', async db => {
  await db.execute(sql`select 1`)
  return { status: 'ready' as const }
})
