/** A screen that fails says so, instead of staying empty; what is stored is not touched by it. */
import { useUi } from '~/state/ui'

export default defineNuxtPlugin(nuxt => {
  nuxt.hook('vue:error', error => {
    console.error(error)
    useUi().say(
      `This screen could not be worked out (${error instanceof Error ? error.message : String(error)}). Nothing ` +
        `stored is lost; go to another station or reload.`,
      'stop',
    )
  })
})
