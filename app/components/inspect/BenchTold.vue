<script setup lang="ts">
/** What a bench tells besides its drawing: what holds the head back, what its level asks, how other nozzles did. */
import { computed } from 'vue'
import type { BenchPage } from '#shared/answers/flow'
import { day } from '#shared/time'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useShop } from '~/state/shop'
import { comparedWords, droppedWords, levelWords, limitWords, shareWords } from '~/words/flow'

const props = defineProps<{ bench: BenchPage }>()
const emit = defineEmits<{ measure: [kind: 'callipers' | 'mark'] }>()
const shop = useShop()
const limit = computed(() => limitWords(props.bench))
const level = computed(() => levelWords(props.bench))
const asks = computed(() => props.bench.level?.asks.kind ?? 'fine')
const levelMark = computed(() => (['fine', 'no level'].includes(asks.value) ? 'fine' : 'look'))
const limitMark = computed(() => {
  const l = props.bench.limit?.limit
  return l === 'nothing falls short' || l === 'melting' ? 'fine' : 'look'
})
const scatter = computed(() => {
  const { scatter: s, degrees } = props.bench
  return degrees === 0
    ? `No blob was repeated: they are taken to scatter by ${shareWords(s)}.`
    : `Blobs of one cell scatter by ${shareWords(s)} beyond the balance.`
})
</script>

<template>
  <section class="grid gap-3" aria-label="What it tells">
    <div v-if="bench.dropped?.compared.dropped" class="flex items-start gap-2">
      <VerdictMark verdict="look" :size="16" class="mt-[3px]" />
      <p>
        {{ droppedWords(bench.dropped.compared) }}
        <NuxtLink :to="`/inspect/bench?bench=${bench.dropped.id}`" class="act"
          >The bench of {{ day(bench.dropped.at, shop.zone) }}</NuxtLink
        >
      </p>
    </div>
    <div v-if="limit" class="flex items-start gap-2">
      <VerdictMark :verdict="limitMark" :size="16" class="mt-[3px]" />
      <p>
        <b>{{ limit.says }}</b> {{ limit.next }}
      </p>
    </div>
    <div v-if="level" class="flex items-start gap-2">
      <VerdictMark :verdict="levelMark" :size="16" class="mt-[3px]" />
      <p>
        <b>{{ level.says }}</b> {{ level.fix }}
        <button
          v-if="asks === 'calliper' || asks === 'mark'"
          type="button"
          class="button plain no-print"
          @click="emit('measure', asks === 'mark' ? 'mark' : 'callipers')"
        >
          {{ asks === 'mark' ? 'Enter the length mark' : 'Enter the callipers' }}
        </button>
        <NuxtLink
          v-else-if="asks === 'diameter' || asks === 'density'"
          class="act no-print"
          :to="`/prepare/spool/${bench.spool}`"
          >Open {{ bench.spool }}</NuxtLink
        >
      </p>
    </div>
    <ul v-if="bench.beside.length > 0" class="grid gap-1">
      <li v-for="o in bench.beside" :key="o.id">
        <NuxtLink :to="`/inspect/bench?bench=${o.id}`" class="act">{{ o.nozzle }}, {{ day(o.at, shop.zone) }}</NuxtLink
        >: {{ o.compared ? comparedWords(o.nozzle, o.compared) : 'no flow and temperature in common.' }}
      </li>
    </ul>
    <p v-if="bench.result" class="text-sm text-ink2">{{ scatter }}</p>
  </section>
</template>
