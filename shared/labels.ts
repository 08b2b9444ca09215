/** What a label's code says: the tag alone, or the tag under the shop's own address, which a phone opens. */

/** Hosts that every machine takes for itself: what scans such an address finds nothing, or another shop. */
export const isLoopback = (host: string) =>
  /^(localhost|.*\.localhost|0\.0\.0\.0|127(\.\d{1,3}){3}|\[::1?\]|\[::ffff:7f[0-9a-f]{2}:[0-9a-f]{1,4}\])$/i.test(host)

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
