<script setup lang="ts">
/** The wall: a fixed temperature axis, and a column per printer that pans sideways and can be filtered. */
import type { FloorPrinter } from '#shared/answers/bench'
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import PrinterColumn from '~/components/floor/PrinterColumn.vue'
import { usePaper } from '~/composables/paper'
import { useLive } from '~/state/live'
import { NARROW, rowsOf, spreadOf, TICKS, WALL_HEIGHT, WIDE, y } from '~/components/floor/axis'

const props = defineProps<{
  printers: FloorPrinter[]
  zone: string
  notes: Record<string, { text: string; look: boolean; to: string }[]>
  now: number
}>()
defineEmits<{ fit: [headId: number] }>()
const live = useLive()
const AXIS_PX = 38
/** The narrowest page, upright with its margins. */
const PAPER_PX = 700
const wall = ref<HTMLElement | null>(null)
const { width: wallPx } = useElementSize(wall)
const { onPaper } = usePaper()
const lanes = computed(() => (props.printers.length > 12 ? NARROW : WIDE))
const spread = computed(() => (onPaper.value ? 1 : spreadOf(shown.value, lanes.value, wallPx.value - AXIS_PX)))
/** Paper does not pan: there the printers stand in rows, each with its axis. */
const rows = computed(() => (onPaper.value ? rowsOf(shown.value, lanes.value, PAPER_PX - AXIS_PX) : [shown.value]))
const filter = ref('')
const shown = computed(() => {
  const f = filter.value.trim().toLowerCase()
  return f === ''
    ? props.printers
    : props.printers.filter(p =>
        [p.name, p.kind, p.last?.material ?? '', ...p.heads.map(h => h.nozzle?.tag ?? '')].some(t =>
          t.toLowerCase().includes(f),
        ),
      )
})
</script>

<template>
  <div class="sheet">
    <svg width="0" height="0" class="absolute" aria-hidden="true">
      <defs>
        <pattern id="wall-hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="7" height="7" fill="var(--color-sheet)" />
          <path d="M0 0V7" stroke="var(--color-slate)" stroke-width="0.9" />
        </pattern>
      </defs>
    </svg>
    <div v-if="printers.length > 8" class="no-print flex items-center gap-3 border-b border-rule p-2">
      <div class="field w-64">
        <label for="wall-filter">Show printers with</label
        ><input id="wall-filter" v-model="filter" class="input" type="search" placeholder="name, material or nozzle" />
      </div>
      <p class="pt-4 text-sm text-ink2">{{ shown.length }} of {{ printers.length }} printers</p>
    </div>
    <div ref="wall">
      <div
        v-for="(row, i) in rows"
        :key="i"
        class="relative flex overflow-x-auto break-inside-avoid"
        tabindex="0"
        role="group"
        aria-label="Heat wall, pans sideways"
      >
        <div class="sticky left-0 z-20 w-[38px] shrink-0 border-r border-rule bg-sheet pt-[62px]" aria-hidden="true">
          <svg width="37" :height="WALL_HEIGHT">
            <text x="31" y="10" text-anchor="end" class="tick">°C</text>
            <g v-for="t in TICKS" :key="t">
              <path :d="`M32 ${y(t)}h5`" stroke="var(--color-ink2)" />
              <text x="29" :y="y(t) + 4" text-anchor="end" class="tick">{{ t }}</text>
            </g>
          </svg>
        </div>
        <PrinterColumn
          v-for="p in row"
          :key="p.id"
          :printer="p"
          :zone="zone"
          :lanes="lanes"
          :spread="spread"
          :live="live.of(p.name, now)"
          :lost="live.lost(p.name)"
          :notes="notes[p.name] ?? []"
          @fit="id => $emit('fit', id)"
        />
        <p v-if="shown.length === 0" class="p-6">No printer matches “{{ filter }}”.</p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.tick {
  font-size: 12px;
  fill: var(--color-ink2);
}
</style>
