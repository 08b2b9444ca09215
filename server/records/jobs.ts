/** Jobs: what a file holds (scan result, name, content hash); the file itself stays in the browser. */
import { desc, eq } from 'drizzle-orm'
import type { z } from 'zod'
import type { FullScan } from '../../core/gcode'
import type { jobSchema } from '../../shared/entries'
import type { Connection } from '../db/client'
import { jobs } from '../db/schema'

export async function saveJob(tx: Connection, job: z.output<typeof jobSchema>, personId: number): Promise<{ id: number, knownSince: string | null }> {
  const same = await tx.select({ id: jobs.id, name: jobs.name, scan: jobs.scan, recordedAt: jobs.recordedAt }).from(jobs).where(eq(jobs.contentSha256, job.contentSha256)).orderBy(desc(jobs.id))
  const again = same.find(j => j.name === job.name && j.scan.filamentDiameterMm === job.scan.filamentDiameterMm && j.scan.dialect === job.scan.dialect)
  if (again) return { id: again.id, knownSince: again.recordedAt.toISOString() }
  const [saved] = await tx.insert(jobs).values({ ...job, scan: job.scan as unknown as FullScan, personId }).returning({ id: jobs.id })
  return { id: saved!.id, knownSince: null }
}
