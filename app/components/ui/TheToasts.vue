<script setup lang="ts">
/** What saves say, at the foot of the screen: above the stations on a phone, never over what is typed. */
import { markRaw, watch } from 'vue'
import { toast, Toaster } from 'vue-sonner'
import ToastLine from '~/components/ui/ToastLine.vue'
import { useUi } from '~/state/ui'

/** Long enough to read two lines twice. */
const SHOWN_MS = 12_000
const ui = useUi()
watch(
  () => ui.message,
  message => {
    if (message) toast.custom(markRaw(ToastLine), { componentProps: message, duration: SHOWN_MS })
  },
  // one may have been said before this was there
  { immediate: true },
)
</script>

<template>
  <Toaster
    class="no-print"
    position="bottom-right"
    container-aria-label="What was saved"
    :visible-toasts="3"
    expand
    :offset="16"
    :mobile-offset="{ bottom: 72, left: 12, right: 12 }"
  />
</template>
