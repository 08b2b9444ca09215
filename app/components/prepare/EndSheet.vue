<script setup lang="ts">
/** The end of a drying, a soak or an anneal: when, how hot it really was, and for a spool its weight after. */
import { reactive, watch } from 'vue'
import BalanceField from '~/components/prepare/BalanceField.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { useEntryForm } from '~/composables/entry-form'
import { useUi } from '~/state/ui'

export interface ToEnd {
  target: 'drying' | 'soak' | 'anneal'
  id: number
  says: string
  setC: number | null
  beforeG: number | null
  spoolId: number | null
}
const props = defineProps<{ ending: ToEnd | null }>()
const emit = defineEmits<{ close: [] }>()
const ui = useUi()
const form = useEntryForm('/api/endings')
const v = reactive({
  outcome: 'done' as 'done' | 'stopped early',
  actualC: null as number | null,
  grossG: null as number | null,
  note: '',
  occurredAt: '',
})
watch(
  () => props.ending,
  e => {
    form.reset()
    if (e)
      Object.assign(v, {
        outcome: 'done',
        actualC: e.setC,
        grossG: null,
        note: '',
        occurredAt: new Date().toISOString(),
      })
  },
)

async function save(confirmed: string[] = []): Promise<void> {
  const e = props.ending!
  const done = await form.send({ target: e.target, targetId: e.id, ...v }, `${e.says}: ended`, confirmed)
  if (done === null) return
  const lost =
    e.beforeG !== null && v.grossG !== null
      ? `; it lost ${(e.beforeG - v.grossG).toFixed(1)} g, and the shop's wound-spool factor is fitted anew`
      : ''
  if (done !== 'queued') ui.say(`${e.says}: ended${lost}.`)
  emit('close')
}
</script>

<template>
  <ModalSheet :open="ending !== null" :title="ending ? `End: ${ending.says}` : ''" @close="emit('close')">
    <form v-if="ending" class="grid gap-3" @submit.prevent="save()">
      <div class="grid gap-3 sm:grid-cols-2">
        <FieldWhen id="end-when" v-model="v.occurredAt" label="Ended" :error="form.errors.value.occurredAt" />
        <FieldSelect
          id="end-outcome"
          v-model="v.outcome"
          label="How"
          :options="[
            { value: 'done', text: 'done' },
            { value: 'stopped early', text: 'stopped early' },
          ]"
        />
        <FieldNumber
          v-if="ending.target !== 'soak'"
          id="end-actual"
          v-model="v.actualC"
          label="It really was"
          unit="°C"
          hint="by a thermometer beside it, if there is one"
          :error="form.errors.value.actualC"
        />
        <BalanceField
          v-if="ending.spoolId !== null"
          id="end-gross"
          v-model="v.grossG"
          label="Weighs now, with its spool"
          :spool-id="ending.spoolId"
          :error="form.errors.value.grossG"
          :hint="ending.beforeG === null ? 'it was not weighed before' : `${ending.beforeG} g before`"
        />
      </div>
      <FieldText id="end-note" v-model="v.note" label="Note" :error="form.errors.value.note" />
      <p v-if="form.errors.value.targetId" class="font-semibold text-stop" role="alert">
        {{ form.errors.value.targetId }}
      </p>
      <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" />
      <div class="flex gap-2">
        <button type="submit" class="button first" :disabled="form.busy.value">Log the end</button
        ><button type="button" class="button" @click="emit('close')">Not yet</button>
      </div>
    </form>
  </ModalSheet>
</template>
