/**
 * What is not there yet when a screen stands: first what its forms are checked by, then the other stations, so that one
 * gets to them, and enters there, while the server is away. Not before the screen had its time: a tablet has one
 * processor to spare.
 */
import { STATIONS } from '~/composables/shortcuts'
import { checks } from '~/lib/checks'

const SCREEN_FIRST_MS = 3000

export default defineNuxtPlugin(() => {
  onNuxtReady(() => {
    setTimeout(() => {
      void checks().then(async () => {
        // one after the other: whatever is asked for meanwhile does not wait behind them all
        for (const { path } of STATIONS) await preloadRouteComponents(path)
      })
    }, SCREEN_FIRST_MS)
  })
})
