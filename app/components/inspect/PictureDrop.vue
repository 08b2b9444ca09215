<script setup lang="ts">
/** Where a picture comes in: dropped, chosen, from the camera, or from the microscope if one is connected. */
import { ref } from 'vue'
import { useLive } from '~/state/live'

const props = defineProps<{
  /** What the stand-in microscope gets under it, as the query of its address; null when nothing is chosen yet. */
  stage: Record<string, string> | null
  stageSays: string
  /** A picture is open: the place to drop the next one takes a line. */
  small?: boolean
}>()
const emit = defineEmits<{ picture: [file: Blob, name: string]; failure: [says: string] }>()
const live = useLive()
const over = ref(false)
const files = ref<HTMLInputElement | null>(null)
const camera = ref<HTMLInputElement | null>(null)
const looking = ref(false)

function choose(e: Event): void {
  const field = e.target as HTMLInputElement
  const file = field.files?.[0]
  if (file) emit('picture', file, file.name)
  field.value = ''
}
function dropped(e: DragEvent): void {
  over.value = false
  const file = e.dataTransfer?.files[0]
  if (file) emit('picture', file, file.name)
}
async function look(): Promise<void> {
  looking.value = true
  try {
    const answer = await fetch(`/api/microscope?${new URLSearchParams(props.stage ?? {})}`)
    if (answer.ok) emit('picture', await answer.blob(), 'from the microscope')
    else emit('failure', ((await answer.json()) as { title: string }).title)
  } catch {
    emit('failure', 'The server does not answer; choose a picture instead.')
  } finally {
    looking.value = false
  }
}
</script>

<template>
  <div
    class="sheet flex flex-wrap items-center justify-center gap-2 border-dashed text-center"
    :class="[over ? '!bg-white outline-3 outline-blue' : '', small ? 'p-1' : 'flex-col p-3']"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="dropped($event)"
  >
    <p v-if="!small" class="text-sm">
      <b>Drop a picture here.</b> It is measured in this browser; only a crop is kept with the gauge.
    </p>
    <div class="flex flex-wrap justify-center gap-2">
      <button type="button" class="button" @click="files?.click()">Choose a picture</button>
      <button type="button" class="button" @click="camera?.click()">Camera</button>
      <button
        v-if="live.links.microscope"
        type="button"
        class="button"
        :disabled="looking || stage === null"
        @click="look"
      >
        Look through the microscope
      </button>
    </div>
    <p v-if="live.links.microscope && !small" class="text-xs text-ink2">{{ stageSays }}</p>
    <input
      ref="files"
      type="file"
      accept="image/*"
      class="sr-only"
      aria-label="Picture"
      tabindex="-1"
      @change="choose"
    />
    <input
      ref="camera"
      type="file"
      accept="image/*"
      capture="environment"
      class="sr-only"
      aria-label="Picture from the camera"
      tabindex="-1"
      @change="choose"
    />
  </div>
</template>
