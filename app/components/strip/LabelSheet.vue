<script setup lang="ts">
/** A label read without a scanner: from a photo, or through the camera where the page is secure. */
import { onBeforeUnmount, ref } from 'vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import { canLook, tagIn } from '~/lib/label-reader'

const emit = defineEmits<{ close: []; read: [tag: string] }>()
const fault = ref('')
const busy = ref(false)
const looking = ref(false)
const video = ref<HTMLVideoElement | null>(null)
let stream: MediaStream | null = null
/** Looked at so often, ms. */
const EVERY_MS = 250

async function photo(e: Event): Promise<void> {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  busy.value = true
  fault.value = ''
  try {
    const tag = await tagIn(file)
    if (tag === null) fault.value = 'No code was found in it. Closer, straight from above, without a shadow.'
    else emit('read', tag)
  } catch {
    fault.value = 'This is no picture that the browser can read.'
  } finally {
    busy.value = false
  }
}

async function look(): Promise<void> {
  fault.value = ''
  try {
    stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } })
  } catch {
    fault.value = 'The camera is not allowed, or there is none. A photo does it too.'
    return
  }
  looking.value = true
  await new Promise(requestAnimationFrame)
  const seen = video.value
  if (!seen) return stop()
  seen.srcObject = stream
  await seen.play()
  while (looking.value) {
    const tag = seen.videoWidth > 0 ? await tagIn(seen) : null
    if (tag !== null) {
      stop()
      emit('read', tag)
      return
    }
    await new Promise(done => setTimeout(done, EVERY_MS))
  }
}
function stop(): void {
  looking.value = false
  for (const track of stream?.getTracks() ?? []) track.stop()
  stream = null
}
onBeforeUnmount(stop)
</script>

<template>
  <ModalSheet open title="Read a label" @close="emit('close')">
    <p class="mb-2 text-sm">The picture stays in this browser; only the tag is taken from it.</p>
    <div class="field">
      <label for="label-photo">Photo of the label</label>
      <input id="label-photo" class="input" type="file" accept="image/*" capture="environment" @change="photo" />
    </div>
    <p v-if="busy" class="mt-2" role="status">Looking for the code …</p>
    <p v-if="fault" class="mt-2 font-[650] text-look" role="status">{{ fault }}</p>
    <template v-if="canLook()">
      <button v-if="!looking" type="button" class="button mt-3" @click="look">Look through the camera</button>
      <template v-else>
        <video ref="video" class="mt-3 w-full border border-ink" muted playsinline aria-label="What the camera sees" />
        <button type="button" class="button mt-2" @click="stop">Stop looking</button>
      </template>
    </template>
    <p v-else class="mt-3 text-sm text-ink2">
      Looking through the camera needs a secure address (https); a photo works on any.
    </p>
  </ModalSheet>
</template>
