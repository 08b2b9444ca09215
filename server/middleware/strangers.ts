/** Before everything else: strangers are refused. */
import { defineEventHandler, getHeader, setResponseHeader, setResponseStatus } from 'h3'
import type { Problem } from '#shared/problem'
import { ownNames, strangerRefused } from '../doors/strangers'

const NAMES = ownNames(process.env.IRON_NOZZLE_NAMES)

export default defineEventHandler((event): Problem | undefined => {
  const refused = strangerRefused(
    {
      method: event.method,
      host: getHeader(event, 'host'),
      origin: getHeader(event, 'origin'),
      secFetchSite: getHeader(event, 'sec-fetch-site'),
      contentType: getHeader(event, 'content-type'),
    },
    NAMES,
  )
  if (refused === null) return undefined
  setResponseStatus(event, refused.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  setResponseHeader(event, 'cache-control', 'no-store')
  return { type: 'about:blank', ...refused }
})
