/** Gives the pool the thread's program, which is bundled into the server when it is built. */
import threadCode from '#thread-code'
import { stopThread, useThread } from '../threads/pool'

export default defineNitroPlugin(nitro => {
  useThread(threadCode)
  nitro.hooks.hook('close', stopThread)
})
