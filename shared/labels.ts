/** What a label's code says: the tag alone, or the tag under the shop's own address, which a phone opens. */
import { z } from 'zod'

/** Hosts that every machine takes for itself: what scans such an address finds nothing, or another shop. */
export const isLoopback = (host: string) =>
  /^(localhost|.*\.localhost|0\.0\.0\.0|127(\.\d{1,3}){3}|\[::1?\]|\[::ffff:7f[0-9a-f]{2}:[0-9a-f]{1,4}\])$/i.test(host)

/** The shop's own address, as labels carry it; empty: labels carry tags alone. */
export const labelAddress = z
  .string()
  .trim()
  .max(120, 'At most 120 characters')
  .superRefine((text, ctx) => {
    if (text === '') return
    const say = (message: string) => ctx.addIssue({ code: 'custom', message })
    const url = URL.canParse(text) ? new URL(text) : null
    if (url === null || !/^https?:$/.test(url.protocol)) say('An address like http://shop.example:3000')
    else if (isLoopback(url.hostname))
      say('This is every machine’s own address: a phone would look for the shop in itself')
    else if (url.pathname.replace(/\/$/, '') !== '' || url.search !== '' || url.hash !== '' || url.username !== '')
      say('The address alone, without what stands behind it')
  })
  .transform(text => text.replace(/\/+$/, ''))

/** What the code of a tag says. */
export const codeOf = (address: string, tag: string): string =>
  address === '' ? tag : `${address}/t/${encodeURIComponent(tag)}`

/** The tag that a code says, whatever address stands before it; a text that is no address is a tag itself. */
export function tagOfCode(text: string): string {
  const line = text.trim()
  const found = /^https?:\/\/[^\s/]+\/t\/([^\s/?#]+)\/?$/i.exec(line)
  if (!found) return line
  try {
    return decodeURIComponent(found[1]!)
  } catch {
    return line
  }
}
