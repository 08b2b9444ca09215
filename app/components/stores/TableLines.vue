<script setup lang="ts">
/** The lines of a pasted table: which column is which, what each line becomes, every cell to be put right in place. */
import { computed, ref } from 'vue'
import type { Column } from '#core/intake'
import { counted } from '#core/words'
import type { ShownLine } from '~/composables/intake'

const props = defineProps<{
  headings: readonly string[]
  keys: readonly (string | null)[]
  /** The units that the headings give themselves. */
  units: readonly (string | null)[]
  columns: readonly Column[]
  lines: readonly ShownLine[]
}>()
const emit = defineEmits<{
  key: [place: number, key: string | null]
  cell: [line: number, place: number, text: string]
  leaveOut: [line: number, out: boolean]
}>()
/** More lines than this are not drawn at once. */
const AT_ONCE = 60
const shown = ref(AT_ONCE)
const onlyOpen = ref(false)
const isOpen = (l: ShownLine) => !l.isLeftOut && (l.state === 'wrong' || l.state === 'asks')
const open = computed(() => props.lines.filter(isOpen).length)
const listed = computed(() => (onlyOpen.value && open.value > 0 ? props.lines.filter(isOpen) : props.lines))
const STATE = { new: 'adds', here: 'is here', asks: 'asks', wrong: 'wrong', reading: '…' } as const
const TONE = {
  new: 'text-ink',
  here: 'text-ink2',
  asks: 'text-look',
  wrong: 'text-stop',
  reading: 'text-ink2',
} as const
const hasTag = computed(() => props.columns.some(c => c.key === 'tag'))
const tagTaken = computed(() => props.keys.includes('tag'))
function isWrong(l: ShownLine, place: number): boolean {
  const key = props.keys[place]
  return key !== null && key !== undefined && l.errors[key] !== undefined
}
/** What a bare number of a place counts in, where its heading does not say. */
function unitOf(place: number): string {
  const unit = props.columns.find(c => c.key === props.keys[place])?.unit
  return unit && !props.units[place] ? `, ${unit}` : ''
}
const isText = (place: number) => props.columns.some(c => c.key === props.keys[place] && c.reads === 'text')
const pick = (place: number, e: Event) => emit('key', place, (e.target as HTMLSelectElement).value || null)
</script>

<template>
  <div>
    <p v-if="open > 0 && lines.length > 8" class="mb-1">
      <label class="inline-flex min-h-[40px] items-center gap-2"
        ><input v-model="onlyOpen" type="checkbox" /> only the {{ counted(open, 'line') }} to be seen to</label
      >
    </p>
    <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Lines of the table, pan sideways">
      <table class="record">
        <thead>
          <tr>
            <th scope="col" class="num">line</th>
            <th scope="col">take</th>
            <th scope="col" class="min-w-[220px]">what it does</th>
            <th v-if="hasTag && !tagTaken" scope="col">tag</th>
            <th v-for="(h, i) in headings" :key="i" scope="col">
              <span class="block" :class="keys[i] === null ? 'text-ink2' : ''"
                >{{ h || `column ${i + 1}` }}{{ unitOf(i) }}</span
              >
              <select
                class="input min-w-[150px] text-sm"
                :aria-label="`What ${h || `column ${i + 1}`} is`"
                @change="pick(i, $event)"
              >
                <option value="" :selected="keys[i] === null">not taken</option>
                <option v-for="c in columns" :key="c.key" :value="c.key" :selected="keys[i] === c.key">
                  {{ c.label }}
                </option>
              </select>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in listed.slice(0, shown)" :key="l.line" :class="l.isLeftOut ? 'opacity-60' : ''">
            <td class="num">{{ l.line }}</td>
            <td>
              <label class="act"
                ><input type="checkbox" :checked="!l.isLeftOut" @change="emit('leaveOut', l.line, !l.isLeftOut)" /><span
                  class="sr-only"
                  >take line {{ l.line }}</span
                ></label
              >
            </td>
            <td :class="TONE[l.state]" class="max-w-[360px]">
              <b v-if="!l.isLeftOut" class="font-semibold">{{ STATE[l.state] }}</b>
              <span class="ml-2">{{ l.state === 'asks' ? 'what stands above' : l.says }}</span>
            </td>
            <td v-if="hasTag && !tagTaken" class="text-ink2">{{ l.tag }}</td>
            <td v-for="(cell, i) in l.cells" :key="i" :class="keys[i] === null ? 'text-ink2' : ''">
              <input
                v-if="keys[i] !== null"
                class="input w-full"
                :class="[isWrong(l, i) ? 'border-stop' : '', isText(i) ? 'min-w-[170px]' : 'min-w-[110px]']"
                type="text"
                :value="cell"
                :placeholder="keys[i] === 'tag' ? (l.tag ?? '') : ''"
                :aria-label="`Line ${l.line}, ${headings[i] || `column ${i + 1}`}`"
                :aria-invalid="isWrong(l, i)"
                @change="emit('cell', l.line, i, ($event.target as HTMLInputElement).value)"
              /><template v-else>{{ cell }}</template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="listed.length > shown" class="mt-2">
      <button type="button" class="button" @click="shown += 200">
        Show {{ Math.min(200, listed.length - shown) }} more of {{ listed.length - shown }}
      </button>
    </p>
  </div>
</template>
