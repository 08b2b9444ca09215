/** Crops of pictures: kept once, by the hash of their bytes; what is no picture is refused by its first bytes. */
import { sha256 } from 'hash-wasm'
import { eq } from 'drizzle-orm'
import { CROP_BYTES } from '#shared/choices'
import type { Connection } from '../../db/client'
import { blobs } from '../../db/schema'
import { notFound, refuseField } from '../entry/refusal'

/** Kinds of picture by their first bytes. */
const KINDS: [type: string, is: (b: Buffer) => boolean][] = [
  ['image/jpeg', b => b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff],
  ['image/png', b => b.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]))],
  ['image/webp', b => b.toString('latin1', 0, 4) === 'RIFF' && b.toString('latin1', 8, 12) === 'WEBP'],
]

/** Keeps a crop; answers its hash. */
export async function keepBlob(tx: Connection, field: string, base64: string): Promise<string> {
  const bytes = Buffer.from(base64, 'base64')
  const type = KINDS.find(([, is]) => is(bytes))?.[0]
  if (!type) refuseField(field, 'This is no JPEG, PNG or WebP picture')
  if (bytes.length > CROP_BYTES) refuseField(field, `At most ${CROP_BYTES / 1000} KB`)
  const hash = await sha256(bytes)
  await tx.insert(blobs).values({ sha256: hash, type, bytes }).onConflictDoNothing()
  return hash
}

/** A crop as it was sent. */
export const blobBase64 = async (db: Connection, hash: string): Promise<string> =>
  (await readBlob(db, hash)).bytes.toString('base64')

export async function readBlob(db: Connection, hash: string): Promise<{ type: string; bytes: Buffer }> {
  const [blob] = /^[0-9a-f]{64}$/.test(hash) ? await db.select().from(blobs).where(eq(blobs.sha256, hash)) : []
  return blob ?? notFound('This picture')
}
