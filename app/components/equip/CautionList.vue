<script setup lang="ts">
/** The hazards of a step, where the step is done. */
import { FIRST, type Caution } from '#core/cautions'
import VerdictMark from '~/components/ui/VerdictMark.vue'

defineProps<{ cautions: readonly Pick<Caution, 'key' | 'hazard' | 'what'>[]; title?: string }>()
</script>

<template>
  <section
    v-if="cautions.length > 0"
    class="border-l-4 border-look bg-sheet px-3 py-2"
    :aria-label="title ?? 'Cautions'"
  >
    <p class="flex items-center gap-2 font-[650] text-look">
      <VerdictMark verdict="look" :size="16" />{{ title ?? 'Before you start' }}
    </p>
    <ul class="mt-1 grid gap-x-6 gap-y-1" :class="cautions.length > 1 ? 'lg:grid-cols-2' : ''">
      <li v-for="c in cautions" :key="c.key" class="text-[13px]">
        <b>{{ c.hazard }}</b> {{ c.what }}
      </li>
    </ul>
    <p class="mt-1 text-xs text-ink2">{{ FIRST }}</p>
  </section>
</template>
