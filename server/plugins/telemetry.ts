/** Listens to the printers from the start, and keeps readings while they soak. */
import { keepReadings, stopHub, theHub } from '../telemetry/telemetry'

const EVERY_MS = 5000

export default defineNitroPlugin(nitro => {
  theHub()
  const timer = setInterval(
    () =>
      void keepReadings().catch(() => {
        /* the database is away; the next round tries again */
      }),
    EVERY_MS,
  )
  nitro.hooks.hook('close', async () => {
    clearInterval(timer)
    await stopHub()
  })
})
