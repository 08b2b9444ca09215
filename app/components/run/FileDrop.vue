<script setup lang="ts">
/** Where job files are dropped or chosen, and how far each has been read. */
import { ref } from 'vue'
import { useScans } from '~/state/scans'

defineProps<{ selected: number | null }>()
const emit = defineEmits<{ select: [id: number] }>()
const scans = useScans()
const over = ref(false)
const input = ref<HTMLInputElement | null>(null)

function take(files: FileList | null | undefined): void {
  if (!files || files.length === 0) return
  const first = scans.add(files)
  if (first !== null) emit('select', first)
}
function choose(e: Event): void {
  const field = e.target as HTMLInputElement
  take(field.files)
  field.value = ''
}
const size = (b: number) => (b > 1e6 ? `${(b / 1e6).toFixed(1)} MB` : `${Math.max(1, Math.round(b / 1e3))} kB`)
function stateWords(r: (typeof scans.reads)[number]): string {
  if (r.logged) return 'logged'
  if (r.state === 'reading') return `${Math.floor(r.share * 100)} %`
  if (r.state === 'cancelled') return 'cancelled'
  return r.state === 'failed' ? 'not read' : size(r.file.size)
}
function dropped(e: DragEvent): void {
  over.value = false
  take(e.dataTransfer?.files)
}
</script>

<template>
  <div>
    <div
      class="sheet grid place-items-center gap-1 border-dashed p-4 text-center"
      :class="over ? '!bg-white outline-3 outline-blue' : ''"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="dropped($event)"
    >
      <p class="font-semibold">Drop job files here</p>
      <p class="text-sm text-ink2">They are read in this browser and stay here.</p>
      <button type="button" class="button" @click="input?.click()">Choose files</button>
      <input ref="input" type="file" multiple class="sr-only" aria-label="Job files" tabindex="-1" @change="choose" />
    </div>
    <ul v-if="scans.reads.length" class="mt-2 grid gap-2">
      <li
        v-for="r in scans.reads"
        :key="r.id"
        class="sheet flex flex-wrap items-center gap-2 px-3 py-1"
        :class="r.id === selected ? '!bg-white border-l-[6px]' : ''"
      >
        <button
          type="button"
          class="min-w-0 flex-1 text-left font-semibold"
          :aria-pressed="r.id === selected"
          @click="emit('select', r.id)"
        >
          <span class="block truncate">{{ r.file.name }}</span>
        </button>
        <span class="text-sm text-ink2">{{ stateWords(r) }}</span>
        <progress
          v-if="r.state === 'reading'"
          class="h-2 w-full"
          :value="r.share"
          max="1"
          :aria-label="`Reading ${r.file.name}`"
        />
        <button v-if="r.state === 'reading'" type="button" class="button" @click="scans.cancel(r.id)">Cancel</button>
        <button v-else-if="r.state !== 'read'" type="button" class="button" @click="scans.again(r.id, {})">
          Read again
        </button>
        <button v-if="r.state !== 'reading'" type="button" class="button plain" @click="scans.remove(r.id)">
          Put away<span class="sr-only"> {{ r.file.name }}</span>
        </button>
        <p v-if="r.failure" class="w-full text-sm font-semibold text-stop">{{ r.failure }}</p>
      </li>
    </ul>
  </div>
</template>
