/** Small facts of the screen: what was used last, what is open, whether keys act. */
import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref } from 'vue'

export const useUi = defineStore('ui', () => {
  const lastPrinterId = useLocalStorage<number | null>('last-printer', null, {
    serializer: { read: v => JSON.parse(v) as number | null, write: v => JSON.stringify(v) },
  })
  const lastNozzleTag = useLocalStorage<string | null>('last-nozzle', null, {
    serializer: { read: v => JSON.parse(v) as string | null, write: v => JSON.stringify(v) },
  })
  const shortcuts = useLocalStorage('shortcuts', true)
  const message = ref<{ text: string; kind: 'fine' | 'look' | 'stop' } | null>(null)
  const keysOpen = ref(false)

  /** The effect of a save, said at once and read out. */
  function say(text: string, kind: 'fine' | 'look' | 'stop' = 'fine'): void {
    message.value = { text, kind }
  }
  return { lastPrinterId, lastNozzleTag, shortcuts, message, keysOpen, say }
})
