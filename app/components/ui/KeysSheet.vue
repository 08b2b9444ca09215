<script setup lang="ts">
import ModalSheet from '~/components/ui/ModalSheet.vue'
import { STATIONS } from '~/composables/shortcuts'
import { useUi } from '~/state/ui'

const ui = useUi()
const more = [
  ['/', 'the strip'],
  ['R', 'log a run'],
  ['G', 'gauge the nozzle on screen, or the last one'],
  ['D', 'what is due'],
  ['F', 'find in the list on screen'],
  ['?', 'these keys'],
  ['Esc', 'leave the field, then close the form'],
  ['← → ↑ ↓', 'move in lists; ↓ goes into the list on screen, also from Find'],
] as const
</script>

<template>
  <ModalSheet :open="ui.keysOpen" title="Keys" @close="ui.keysOpen = false">
    <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
      <template v-for="s in STATIONS" :key="s.key"
        ><dt>
          <span class="kbd">{{ s.key }}</span>
        </dt>
        <dd>{{ s.name }}</dd></template
      >
      <template v-for="[k, what] in more" :key="k"
        ><dt>
          <span class="kbd">{{ k }}</span>
        </dt>
        <dd>{{ what }}</dd></template
      >
    </dl>
    <label class="check mt-4"
      ><input v-model="ui.shortcuts" type="checkbox" /> Single keys act when no field has focus</label
    >
    <p class="text-sm text-ink2">
      A scanner types fast: what it types goes to the strip, whatever has focus but a field.
    </p>
    <h2 class="mt-4">The strip reads</h2>
    <ul class="mt-1 grid gap-1 text-[14px]">
      <li><code>N-014 bore 0.43-0.44</code>: 0.43 goes, 0.44 does not</li>
      <li><code>N-014 bore 0.434±0.005 tip 12.47</code></li>
      <li><code>Ribble +312g PA6-CF20 9.5h</code>, or <code>+104m S-07</code></li>
      <li><code>swap Ribble N-032</code> opens it step by step</li>
      <li><code>bench Ribble</code> plans a flow bench there</li>
      <li><code>wrong Ribble</code> says what is wrong with a print there</li>
      <li><code>fit N-014 Ribble</code>, <code>remove N-014</code>, <code>retire N-014 worn oval</code></li>
      <li>
        <code>spool S-07 out</code>, <code>in</code> the dry box, <code>dried 12h 70C</code>, <code>812 g</code> on the
        balance
      </li>
      <li><code>study 0.43-0.44</code>: the next line of a gauge study</li>
    </ul>
  </ModalSheet>
</template>
