<script setup lang="ts">
/** Nozzle, block and heat break in section, for the steps at it: which way, what is held, where the gap is. */
import { computed } from 'vue'
import { JOINT_STEPS } from '~/components/change/joint-steps'

const props = defineProps<{ step: string }>()
const turns = computed(
  () => ({ out: 'anticlockwise', in: 'clockwise', tight: 'clockwise', resnug: 'clockwise' })[props.step],
)
const held = computed(() => ['out', 'tight', 'resnug'].includes(props.step))
const gap = computed(() => ['in', 'tight', 'resnug', 'leaks'].includes(props.step))
/** While it is out, or half way. */
const down = computed(() => ({ 'out': 40, 'look in': 400 })[props.step] ?? 0)
const says = computed(() =>
  [
    held.value ? 'the block is held' : '',
    turns.value ? `the nozzle turns ${turns.value}, seen from below` : '',
    gap.value ? 'it seats on the heat break, a gap stays under the block' : '',
  ]
    .filter(Boolean)
    .join('; '),
)
</script>

<template>
  <svg
    v-if="JOINT_STEPS.includes(step)"
    viewBox="0 0 370 300"
    class="mx-auto w-full max-w-[260px] min-w-[250px] md:max-w-[360px]"
    role="img"
    :aria-label="`Nozzle, block and heat break in section: ${says}`"
  >
    <defs>
      <pattern id="joint-block" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V8" stroke="var(--color-ink2)" stroke-width="1.4" />
      </pattern>
      <pattern id="joint-nozzle" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <path d="M0 0V6" stroke="var(--color-bronze)" stroke-width="1.6" />
      </pattern>
      <marker
        id="joint-arrow"
        viewBox="0 0 8 8"
        refX="7"
        refY="4"
        markerWidth="8"
        markerHeight="8"
        orient="auto-start-reverse"
      >
        <path d="M0 0L8 4L0 8z" fill="var(--color-ink)" />
      </marker>
    </defs>
    <g stroke="var(--color-ink)" stroke-width="1.6">
      <!-- heat break: fins above, its thread in the block -->
      <path d="M166 10h28v96h-28z" fill="var(--color-white)" />
      <path d="M140 16h80M140 28h80M140 40h80" stroke-width="3" />
      <!-- block, with the bore through it -->
      <path d="M80 62h80v92H80zM200 62h80v92h-80z" fill="url(#joint-block)" />
      <path d="M160 62h6v44h-6zM194 62h6v44h-6z" fill="var(--color-white)" stroke-width="1" />
      <!-- the nozzle: thread, flange, cone; its channel runs on from the break's -->
      <g :transform="`translate(0 ${down})`">
        <path
          d="M160 107h14v78l-3 34h-6l-19-34v-25h14zM200 107h-14v78l3 34h6l19-34v-25h-14z"
          fill="url(#joint-nozzle)"
        />
        <path d="M146 160h28M186 160h28" stroke-width="2.4" />
      </g>
      <path d="M174 10v96M186 10v96" stroke-width="1" />
    </g>
    <g v-if="gap" font-size="13" fill="var(--color-ink)" stroke="var(--color-ink)">
      <path d="M222 154h84M222 160h84" />
      <path d="M296 134v18" marker-end="url(#joint-arrow)" />
      <path d="M296 182v-20" marker-end="url(#joint-arrow)" />
      <text x="306" y="176" font-weight="650" stroke="none">a gap</text>
      <text x="306" y="190" font-weight="650" stroke="none">stays</text>
      <path d="M204 107h92" />
      <text x="300" y="104" stroke="none">it seats</text>
      <text x="300" y="118" stroke="none">here</text>
    </g>
    <g v-if="held" font-size="13">
      <path d="M20 84h60v48H20" fill="none" stroke="var(--color-ink)" stroke-width="5" />
      <text x="4" y="158" fill="var(--color-ink)" font-weight="650">held</text>
    </g>
    <!-- the nozzle from below: its flats, its bore, and which way it is turned -->
    <g v-if="turns" font-size="13" fill="var(--color-ink)">
      <path
        d="M166 262l7 -12h14l7 12l-7 12h-14z"
        fill="url(#joint-nozzle)"
        stroke="var(--color-ink)"
        stroke-width="1.4"
      />
      <circle cx="180" cy="262" r="2.4" />
      <path
        :d="turns === 'clockwise' ? 'M156 262A24 24 0 1 1 180 286' : 'M204 262A24 24 0 1 0 180 286'"
        fill="none"
        stroke="var(--color-ink)"
        stroke-width="2.4"
        marker-end="url(#joint-arrow)"
      />
      <text x="216" y="258" font-weight="650">{{ turns }},</text>
      <text x="216" y="274" font-weight="650">seen from below</text>
    </g>
  </svg>
</template>
