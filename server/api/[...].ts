import type { Problem } from '#shared/problem'

/** Every address under /api that no other file answers. */
export default defineEventHandler(event => {
  setResponseStatus(event, 404)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  return {
    type: 'about:blank',
    status: 404,
    title: `Nothing answers to ${event.method} at this address; /api/openapi lists what does`,
  } satisfies Problem
})
