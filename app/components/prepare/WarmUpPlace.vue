<script setup lang="ts">
/** Where the probe of an older warm-up was: until somebody tells, the record counts nowhere. */
import { ref } from 'vue'
import { AIR_PLACES, PLACE_WORDS, type AirPlace } from '#core/limits'
import type { WarmUpLine } from '#shared/answers/prepare'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import { useEntryForm } from '~/composables/entry-form'
import { useUi } from '~/state/ui'

const props = defineProps<{ warmUp: WarmUpLine }>()
const ui = useUi()
const form = useEntryForm('/api/warm-up-places')
const place = ref<AirPlace | null>(null)
const options = [
  { value: null as AirPlace | null, text: 'Choose' },
  ...AIR_PLACES.map(value => ({ value: value as AirPlace | null, text: PLACE_WORDS[value] })),
]
async function tell(): Promise<void> {
  const done = await form.send(
    { warmUpId: props.warmUp.id, place: place.value, occurredAt: new Date().toISOString() },
    'Where the probe was',
  )
  if (done !== null && done !== 'queued') ui.say('The warm-up counts there from now on.')
}
</script>

<template>
  <div class="flex flex-wrap items-end gap-2 border-l-4 border-look px-3 py-1">
    <p class="w-full font-semibold text-look">
      Where was its probe? “{{ warmUp.placeText }}” does not tell, so this record counts nowhere yet.
    </p>
    <FieldSelect
      :id="`place-${warmUp.id}`"
      v-model="place"
      label="Probe"
      :options="options"
      :error="form.errors.value.place"
    />
    <button type="button" class="button" :disabled="place === null || form.busy.value" @click="tell()">Tell</button>
  </div>
</template>
