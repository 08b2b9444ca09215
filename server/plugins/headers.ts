/** Headers that every answer carries, files and refusals among them; a page brings a policy of its own. */
import { getRequestPath, setResponseHeader, setResponseHeaders } from 'h3'
import { HEADERS_OF_EVERY_ANSWER, policyFor } from '../doors/strangers'

export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('request', event => {
    setResponseHeaders(event, HEADERS_OF_EVERY_ANSWER)
    setResponseHeader(event, 'content-security-policy', policyFor(getRequestPath(event)))
  })
})
