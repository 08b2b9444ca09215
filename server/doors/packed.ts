/** Long answers go out packed where the asker takes that; one that many get is packed once. */
import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import { getHeader, setResponseHeader, type H3Event } from 'h3'

const pack = promisify(gzip)
/** Shorter ones fit a few packets as they are. */
const WORTH_PACKING = 4000
/** Packing harder costs more time than it saves on a shop's network. */
const LEVEL = 3

export interface Packable {
  text: string
  gzip: () => Promise<Buffer>
}

export function packable(text: string): Packable {
  let made: Promise<Buffer> | null = null
  return { text, gzip: () => (made ??= pack(text, { level: LEVEL })) }
}

export async function packed(event: H3Event, { text, gzip }: Packable): Promise<string | Buffer> {
  setResponseHeader(event, 'vary', 'accept-encoding')
  if (text.length < WORTH_PACKING || !/\bgzip\b/.test(getHeader(event, 'accept-encoding') ?? '')) return text
  setResponseHeader(event, 'content-encoding', 'gzip')
  return await gzip()
}
