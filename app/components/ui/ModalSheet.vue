<script setup lang="ts">
/**
 * A sheet laid over the drawing; Back, a click outside and Esc close it (in a field Esc leaves the field first), focus
 * starts at its first field, stays inside and returns afterwards.
 */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { onBeforeUnmount, ref, watch, type ComponentPublicInstance } from 'vue'
import { leaveField } from '~/composables/escape'
import { GIVEN_BACK_MS } from '~/lib/free-focus'
import { sheetOpened } from '~/lib/sheet-history'

const props = withDefaults(defineProps<{ open: boolean; title: string; wide?: boolean }>(), { wide: false })
const emit = defineEmits<{ close: [] }>()
let closed: (() => void) | null = null
/** Nothing had focus when it opened: nothing gets it back, or single keys would go to whatever had it before that. */
let fromNowhere = false
/** What had focus when it opened: it gets it back also from a sheet that is taken away rather than shut. */
let from: Element | null = null
function isOpen(open: boolean): void {
  closed?.()
  closed = open ? sheetOpened(() => emit('close')) : null
  if (open) {
    from = document.activeElement
    fromNowhere = from === document.body
  } else if (fromNowhere)
    setTimeout(() => {
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
    })
  else if (from) setTimeout(giveBack, GIVEN_BACK_MS)
}
function giveBack(): void {
  const lost = document.activeElement === null || document.activeElement === document.body
  if (lost && from instanceof HTMLElement && from.isConnected) from.focus({ preventScroll: true })
  from = null
}
watch(() => props.open, isOpen, { immediate: true })
onBeforeUnmount(() => isOpen(false))

/** Not where that would bring up a keyboard over what there is to read first. */
const first = ref<HTMLElement | null>(null)
function findFirst(body: Element | ComponentPublicInstance | null): void {
  const touch = window.matchMedia('(pointer: coarse)').matches
  first.value = body instanceof Element && !touch ? body.querySelector<HTMLElement>('input, select, textarea') : null
}
</script>

<template>
  <Dialog :open="open" :initial-focus="first" class="fixed inset-0 z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/45" aria-hidden="true" />
    <div class="fixed inset-0 overflow-y-auto p-2 sm:p-8">
      <DialogPanel
        class="sheet mx-auto p-4 sm:p-5"
        :class="wide ? 'max-w-[860px]' : 'max-w-[560px]'"
        tabindex="-1"
        @keydown.esc="leaveField"
      >
        <div class="mb-3 flex items-start gap-3">
          <DialogTitle as="h2" class="flex-1 pt-2">{{ title }}</DialogTitle><button
            type="button"
            class="button plain"
            @click="emit('close')"
          >
            Close
          </button>
        </div>
        <div :ref="findFirst"><slot /></div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
