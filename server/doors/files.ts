/** The doors of files: whole ones, and those that are written as they are read. */
import { once } from 'node:events'
import { defineEventHandler, setResponseHeader, type H3Event } from 'h3'
import { FILES } from '#shared/api'
import { database } from '../db/database'
import type { Database } from '../db/client'
import { admit, guarded } from './doors'
import { faultId, faultLine } from './fault'

/** A file: one by the hash of its bytes never changes and may be kept, any other is read anew each time. */
export function serving(
  path: keyof typeof FILES,
  read: (db: Database, event: H3Event) => Promise<{ type: string; bytes: Buffer }>,
) {
  return defineEventHandler(event =>
    guarded(event, async () => {
      admit(FILES[path].who)
      const { type, bytes } = await read(await database(), event)
      setResponseHeader(event, 'content-type', type)
      setResponseHeader(event, 'x-content-type-options', 'nosniff')
      setResponseHeader(event, 'content-disposition', 'inline')
      setResponseHeader(event, 'cache-control', FILES[path].keeps ? 'private, max-age=31536000, immutable' : 'no-store')
      return bytes
    }),
  )
}

/**
 * A file that is written as it is read, however long: what is wrong is said before it begins, and one that breaks off
 * in the middle is broken off for the asker too.
 */
export function pouring(
  path: keyof typeof FILES,
  open: (event: H3Event) => {
    type: string
    name: string
    write: (out: (piece: string | Uint8Array) => Promise<void>) => Promise<void>
  },
) {
  return defineEventHandler(event =>
    guarded(event, async () => {
      admit(FILES[path].who)
      const { type, name, write } = open(event)
      const { res } = event.node
      const out = async (piece: string | Uint8Array) => {
        if (res.destroyed) throw new Error('Nobody reads it any more')
        if (!res.headersSent) begin()
        if (!res.write(piece)) await Promise.race([once(res, 'drain'), once(res, 'close')])
      }
      const begin = () => {
        setResponseHeader(event, 'content-type', type)
        setResponseHeader(event, 'x-content-type-options', 'nosniff')
        setResponseHeader(event, 'content-disposition', `attachment; filename="${name}"`)
        setResponseHeader(event, 'cache-control', 'no-store')
      }
      try {
        await write(out)
      } catch (error) {
        if (!res.headersSent) throw error
        if (!res.destroyed) console.error(faultLine(faultId(), error))
        res.destroy()
        return
      }
      res.end()
    }),
  )
}
