/**
 * Keys. Station numbers, R, G, D, F, ? and / act when no field has focus, after a short quiet, and can be switched off
 * (WCAG 2.1.4). A scanner types keys under 35 ms apart: such a burst goes to the strip as a whole.
 */
import { onBeforeUnmount, onMounted } from 'vue'
import { leavePageField } from '~/composables/escape'
import { focusFind } from '~/composables/list-keys'
import { useUi } from '~/state/ui'

export const STATIONS = [
  { key: '0', name: 'Floor', path: '/' },
  { key: '1', name: 'Equip', path: '/equip' },
  { key: '2', name: 'Prepare', path: '/prepare' },
  { key: '3', name: 'Run', path: '/run' },
  { key: '4', name: 'Inspect', path: '/inspect' },
  { key: '5', name: 'Change', path: '/change' },
  { key: '6', name: 'Verify', path: '/verify' },
  { key: '7', name: 'Stores', path: '/stores' },
] as const

const BURST_MS = 35
const QUIET_MS = 60

export function useShortcuts(toStrip: (text: string) => void): void {
  const ui = useUi()
  const router = useRouter()
  const route = useRoute()
  let held = ''
  let lastAt = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  function act(key: string): void {
    const station = STATIONS.find(s => s.key === key)
    if (station) void router.push(station.path)
    else if (key === 'd' || key === 'D') void router.push('/due')
    else if (key === '?') ui.keysOpen = true
    else if (key === 'f' || key === 'F') focusFind()
    else if (key === 'r' || key === 'R')
      void router.push(route.params.tag ? `/run?nozzle=${String(route.params.tag)}` : '/run')
    else if (key === 'g' || key === 'G') {
      const tag = (route.params.tag as string | undefined) ?? ui.lastNozzleTag
      void router.push(tag ? `/inspect/${tag}?gauge=1` : '/inspect')
    }
  }

  function onKey(e: KeyboardEvent): void {
    const target = e.target as HTMLElement | null
    const inField = !!target?.closest(
      'input, textarea, select, [contenteditable="true"], [role="dialog"], [role="menu"]',
    )
    if (e.key === 'Escape') leavePageField(target)
    // what is handled where it was pressed (a ring that is moved by keys) is no shortcut and no scan
    if (e.defaultPrevented || inField || e.ctrlKey || e.metaKey || e.altKey || e.key.length !== 1) return
    const now = performance.now()
    if (e.key === '/' && held === '') {
      // no tag begins with it, so it need not wait for the quiet
      if (!ui.shortcuts) return
      e.preventDefault()
      toStrip('')
      return
    }
    if (held !== '' && now - lastAt < BURST_MS) {
      e.preventDefault()
      held += e.key
      clearTimeout(timer)
      timer = setTimeout(() => {
        const text = held
        held = ''
        toStrip(text)
      }, QUIET_MS)
    } else {
      held = e.key
      clearTimeout(timer)
      timer = setTimeout(() => {
        const key = held
        held = ''
        if (ui.shortcuts || key === '?') act(key)
      }, QUIET_MS)
    }
    lastAt = now
  }
  onMounted(() => window.addEventListener('keydown', onKey))
  onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
}
