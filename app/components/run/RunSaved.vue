<script setup lang="ts">
/** A run was saved: what it did, and what is next. The form stays away until another run is asked for. */
import type { RunEffect } from '#shared/answers/runs'
import { computed } from 'vue'
import SavedNote from '~/components/ui/SavedNote.vue'
import { useShop } from '~/state/shop'
import { runEffectWords } from '~/words/effects'

const props = defineProps<{ effect: RunEffect | 'queued'; name: string; next: string | null }>()
defineEmits<{ again: []; strike: [runId: number] }>()
const shop = useShop()
const risk = computed(() => shop.data?.settings.acceptedRisk ?? 0.1)
const due = computed(() =>
  props.effect === 'queued' ? [] : props.effect.nozzles.filter(n => n.pastChance >= risk.value),
)
</script>

<template>
  <SavedNote :of="name" :text="effect === 'queued' ? null : `${runEffectWords(effect)}.`" :look="due.length > 0">
    <NuxtLink v-for="n in due" :key="n.tag" class="button first" :to="`/inspect/${n.tag}?gauge=1`"
      >Gauge {{ n.tag }}</NuxtLink
    >
    <button type="button" class="button" :class="next ? 'first' : ''" @click="$emit('again')">
      {{ next ? `Log ${next}` : 'Log another run' }}
    </button>
    <NuxtLink class="button" :class="due.length === 0 && !next ? 'first' : ''" to="/">To the Floor</NuxtLink>
    <button v-if="effect !== 'queued'" type="button" class="button plain" @click="$emit('strike', effect.runId)">
      Strike it out
    </button>
  </SavedNote>
</template>
