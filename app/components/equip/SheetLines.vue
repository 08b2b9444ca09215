<script setup lang="ts">
/** Lines of a data sheet, pasted: what was read, what was not, and what checks still need to know. */
import { computed, ref } from 'vue'
import { readDataSheet, type SheetRead } from '#core/limits'
import { counted } from '#core/words'

defineProps<{
  /** Facts that are still empty, each with the id of its field. */
  asked: readonly (readonly [what: string, id: string, value: unknown])[]
  /** The share of filler is not known yet. */
  wantsShare: boolean
}>()
const emit = defineEmits<{ read: [read: SheetRead] }>()
const pasted = ref('')
const read = ref<SheetRead | null>(null)
function take(): void {
  read.value = readDataSheet(pasted.value)
  emit('read', read.value)
}
const found = computed(() =>
  read.value
    ? Object.keys(read.value.facts).length +
      Object.values({ ...read.value, facts: null, unread: null }).filter(x => x !== null).length
    : 0,
)
const goTo = (id: string) => document.getElementById(id)?.focus()
const LIKE = [
  'Printing temperature: 280-300 °C',
  'Bed: 100-120 °C',
  'Drying: 80 °C, 8 h',
  'Density 1.23 g/cm³',
  'Carbon fibre content: 15 wt%',
  'Moisture for printing: at most 0.05 %',
  'Elongation at break 3 %',
].join('\n')
</script>

<template>
  <div class="grid gap-3 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
    <div class="field">
      <label for="sheet-text">Paste the lines of its data sheet</label
      ><textarea id="sheet-text" v-model="pasted" class="input min-h-[150px] py-2" rows="8" :placeholder="LIKE" />
    </div>
    <div class="text-sm">
      <button type="button" class="button" :disabled="pasted.trim() === ''" @click="take">Read these lines</button>
      <template v-if="read">
        <p class="mt-2 font-semibold" role="status">
          {{ counted(found, 'value') }} read into the fields below.{{
            read.unread.length ? ` ${counted(read.unread.length, 'line')} not read:` : ''
          }}
        </p>
        <ul class="list-disc pl-5">
          <li v-for="u in read.unread" :key="u.line" class="text-look">
            line {{ u.line }}, “{{ u.text }}”: {{ u.why }}
          </li>
        </ul>
        <p v-if="read.waterAt50 !== null && wantsShare" class="font-semibold text-look">
          The sheet’s {{ read.waterAt50 }} wt% of water at 50 % humidity is of the filament: enter the filler’s share,
          and the polymer’s own is worked out.
        </p>
        <div v-if="asked.length" role="group" aria-label="Not in the sheet" class="mt-1 flex flex-wrap gap-x-2">
          <span class="self-center">Still needed; look it up in the sheet, or start from the polymer:</span>
          <button v-for="[what, id] in asked" :key="id" type="button" class="button plain" @click="goTo(id)">
            {{ what }}
          </button>
        </div>
      </template>
    </div>
  </div>
</template>
