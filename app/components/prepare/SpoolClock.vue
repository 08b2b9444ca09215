<script setup lang="ts">
/** One tap each: where the spool goes now. */
import type { SpoolState } from '#shared/answers/spools'
import { SPOOL_HAPPENINGS } from '#shared/choices'
import { computed } from 'vue'
import { useEntryForm } from '~/composables/entry-form'
import { useUi } from '~/state/ui'
import { drynessOf } from '~/words/water'

const props = defineProps<{ spool: SpoolState }>()
const ui = useUi()
const form = useEntryForm('/api/spool-events')
const offers = computed<('out' | 'in' | 'opened')[]>(() => {
  if (props.spool.place === 'sealed') return ['opened']
  if (props.spool.place === 'dry box') return ['out']
  return props.spool.place === 'room' ? ['in'] : ['out', 'in']
})

async function put(kind: 'out' | 'in' | 'opened'): Promise<void> {
  const done = await form.send(
    { spoolId: props.spool.id, kind, occurredAt: new Date().toISOString() },
    `Spool ${props.spool.tag} ${SPOOL_HAPPENINGS[kind].text}`,
  )
  if (done !== null && done !== 'queued') ui.say(`${props.spool.tag} ${SPOOL_HAPPENINGS[kind].text}; its clock runs.`)
}
/** A spool that is too wet, or of which nobody knows, is dried before anything else. */
const dry = computed(
  () => props.spool.drying === null && !!props.spool.water && ['wet', 'unknown'].includes(drynessOf(props.spool)),
)
const error = computed(() => form.problem.value?.title ?? '')
</script>

<template>
  <span class="inline-flex flex-wrap items-center gap-1">
    <NuxtLink v-if="dry" :to="`/prepare/spool/${spool.tag}#plan`" class="button"
      >Dry it<span class="sr-only">: {{ spool.tag }}</span></NuxtLink
    >
    <button v-for="k in offers" :key="k" type="button" class="button" :disabled="form.busy.value" @click="put(k)">
      {{ { out: 'Out', in: 'Into the box', opened: 'Opened' }[k] }}<span class="sr-only"> {{ spool.tag }}</span>
    </button>
    <span v-if="error" class="font-semibold text-stop" role="alert">{{ error }}</span>
  </span>
</template>
