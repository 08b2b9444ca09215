/** Jobs: what a file holds (scan result, name, content hash); the file itself stays in the browser. */
import type { JobLine, JobPage } from '#shared/answers/runs'
import { desc, eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { FullScan } from '#core/gcode'
import type { jobSchema } from '#shared/entries/runs'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { jobs } from '../../db/schema'
import { notFound } from '../entry/refusal'

export async function saveJob(
  tx: Connection,
  job: z.output<typeof jobSchema>,
  personId: number,
): Promise<{ id: number; knownSince: string | null }> {
  const same = await tx
    .select({ id: jobs.id, name: jobs.name, scan: jobs.scan, recordedAt: jobs.recordedAt })
    .from(jobs)
    .where(eq(jobs.contentSha256, job.contentSha256))
    .orderBy(desc(jobs.id))
  const again = same.find(
    j =>
      j.name === job.name &&
      j.scan.filamentDiameterMm === job.scan.filamentDiameterMm &&
      j.scan.dialect === job.scan.dialect,
  )
  if (again) return { id: again.id, knownSince: again.recordedAt.toISOString() }
  const [saved] = await tx
    .insert(jobs)
    .values({ ...job, scan: job.scan as unknown as FullScan, personId })
    .returning({ id: jobs.id })
  return { id: saved!.id, knownSince: null }
}

/** Jobs the shop has, the latest scan of each content, newest first. */
export async function listJobs(db: Connection): Promise<JobLine[]> {
  return await db.execute<JobLine & Record<string, unknown>>(
    sql`select id::int, name, ${iso('recorded_at')} "recordedAt"
      from (select distinct on (content_sha256) id, name, recorded_at from jobs
      order by content_sha256, id desc) j order by id desc limit 100`,
  )
}

/** A stored job with its scan. */
export async function jobPage(db: Connection, id: number): Promise<JobPage> {
  const [job] = await db.select().from(jobs).where(eq(jobs.id, id))
  return job ? pageOf(job) : notFound('This job')
}
/** The latest scan of a file's content; null when the shop never had it. */
export async function jobOfContent(db: Connection, sha256: string): Promise<JobPage | null> {
  const [job] = await db.select().from(jobs).where(eq(jobs.contentSha256, sha256)).orderBy(desc(jobs.id)).limit(1)
  return job ? pageOf(job) : null
}
const pageOf = (j: typeof jobs.$inferSelect): JobPage => ({ ...j, recordedAt: j.recordedAt.toISOString() })
