/**
 * Who may speak to the app before there are accounts: people on this machine or on the shop's network, by the app's own
 * pages. A page of a stranger that is open in the same browser may not, neither by its own address (it is another
 * origin) nor by a name that it points here (DNS rebinding).
 * Source: Fetch standard (Origin, CORS-safelisted content types) and Fetch Metadata (Sec-Fetch-Site), W3C.
 */
import { isIP } from 'node:net'

/** What tells a request of ours from a stranger's. */
export interface Asker {
  method: string
  /** With its port, as the browser names it. */
  host: string | undefined
  origin: string | undefined
  secFetchSite: string | undefined
  contentType: string | undefined
}
export interface Refused {
  status: number
  title: string
}

const READS: readonly string[] = ['GET', 'HEAD']

/** The name in a Host header, without its port; null for what is none. */
export function nameOfHost(host: string): string | null {
  const ipv6 = /^\[([0-9a-f:.]+)\](?::\d{1,5})?$/i.exec(host)
  if (ipv6) return isIP(ipv6[1]!) === 6 ? ipv6[1]!.toLowerCase() : null
  const named = /^([a-z0-9_.-]+)(?::\d{1,5})?$/i.exec(host)
  return named ? named[1]!.toLowerCase().replace(/\.$/, '') : null
}

/** Names that the app answers to besides localhost and addresses: IRON_NOZZLE_NAMES, with commas between. */
export const ownNames = (text: string | undefined): string[] =>
  (text ?? '')
    .split(',')
    .map(n => n.trim().toLowerCase())
    .filter(n => n !== '')

/** Why a request is refused; null when it may come in. */
export function strangerRefused(a: Asker, names: readonly string[]): Refused | null {
  const name = a.host === undefined ? null : nameOfHost(a.host)
  if (name === null) return { status: 400, title: 'The request does not say which host it is for' }
  if (name !== 'localhost' && isIP(name) === 0 && !names.includes(name))
    return {
      status: 421,
      title:
        `Iron Nozzle does not answer to the name ${name}. Open it by its address, or start it with ` +
        `IRON_NOZZLE_NAMES=${name}`,
    }
  if (a.secFetchSite === 'cross-site' && !READS.includes(a.method)) return FOREIGN
  if (a.origin !== undefined && !READS.includes(a.method) && hostOfOrigin(a.origin) !== a.host!.toLowerCase())
    return FOREIGN
  if (!READS.includes(a.method) && !/^application\/json\s*(;|$)/i.test(a.contentType ?? ''))
    return { status: 415, title: 'What is sent here is JSON: Content-Type: application/json' }
  return null
}
const FOREIGN: Refused = { status: 403, title: 'A page of another address may not enter anything here' }

/** Host and port of an origin, the port left out where it is the scheme's own; null for `null` and for what is none. */
function hostOfOrigin(origin: string): string | null {
  try {
    const url = new URL(origin)
    return url.protocol === 'http:' || url.protocol === 'https:' ? url.host : null
  } catch {
    return null
  }
}

/** What every answer carries, whoever asks: nobody frames it, reads it from elsewhere, or gets at its window. */
export const HEADERS_OF_EVERY_ANSWER = {
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'no-referrer',
} as const
/** An answer of the API is data: whatever opens it runs nothing. Pages and scripts carry the app's own policy. */
export const POLICY_OF_DATA = "default-src 'none'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'"
export const POLICY_OF_FILES =
  "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; " +
  "img-src 'self' data: blob:; worker-src 'self' blob:; object-src 'none'; base-uri 'self'; form-action 'self'; " +
  "frame-ancestors 'none'"
export const policyFor = (path: string): string => (path.startsWith('/api/') ? POLICY_OF_DATA : POLICY_OF_FILES)
