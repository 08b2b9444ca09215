<script setup lang="ts">
/**
 * The heater that a step waits for, as the printer reports it. The app never heats, and what is read never says that
 * something may be touched. Without a connection a person reads it at the printer.
 */
import { refThrottled } from '@vueuse/core'
import { computed } from 'vue'
import { NEAR_C, typedState, waitWords, type Wait, type WaitState } from '#core/procedures'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { temper } from '~/words/numbers'
import { useLive } from '~/state/live'

const props = defineProps<{ printer: string; wait: Wait; state: WaitState; error?: string }>()
/** What a person reads there, °C. */
const typedC = defineModel<number | null>({ required: true })
const live = useLive()
const linked = computed(() => live.links.printers.includes(props.printer))
const words = computed(() => waitWords(props.wait, props.state))
const nowC = computed(() => (props.state.kind === 'not known' ? null : props.state.nowC))
const typedSays = computed(() => {
  const typed = typedState(props.wait, typedC.value)
  return typed.kind === 'not known' || typed.kind === 'there' ? '' : waitWords(props.wait, typed)
})
/** Read out in tens, and not more than every ten seconds: a number that ticks is no news. */
const tens = computed(() => {
  if (props.state.kind !== 'cold') return words.value
  return `wait: about ${Math.round(props.state.nowC / 10) * 10} of ${props.wait.setC} °C`
})
const spoken = refThrottled(tens, 10_000)
const scaleC = computed(() => Math.max(props.wait.setC * 1.15, nowC.value ?? 0))
const at = (c: number) => `${Math.max(0, Math.min(100, (c / scaleC.value) * 100))}%`
</script>

<template>
  <section class="border-2 border-ink bg-white p-3" aria-label="The heater that it waits for">
    <div aria-hidden="true">
      <p class="flex items-center gap-2 text-[24px] leading-tight font-[680] md:text-[28px]">
        <VerdictMark :verdict="state.kind === 'there' ? 'fine' : 'look'" :size="24" />{{ words }}
      </p>
      <div v-if="nowC !== null" class="relative mt-2 h-[22px] border border-ink bg-paper">
        <span class="absolute inset-y-0 left-0" :style="{ width: at(nowC), background: temper(nowC) }" />
        <span
          class="absolute inset-y-[-4px] border-x-2 border-ink"
          :style="{ left: at(wait.setC - NEAR_C), right: `calc(100% - ${at(wait.setC + NEAR_C)})` }"
        />
      </div>
    </div>
    <p class="sr-only" role="status" aria-live="polite">{{ spoken }}</p>
    <p v-if="linked && state.kind === 'not known'" class="mt-1 text-look">
      Nothing heard in the last 10 s: an old value is no reading. Read it at the printer, or wait for the connection.
    </p>
    <FieldNumber
      v-if="state.kind === 'not known'"
      id="wait-typed"
      v-model="typedC"
      class="mt-2 max-w-[280px]"
      label="The printer shows"
      unit="°C"
      :error="error || typedSays"
    />
    <p v-else-if="error" class="mt-1 font-semibold text-stop" role="alert">{{ error }}</p>
  </section>
</template>
