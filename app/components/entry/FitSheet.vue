<script setup lang="ts">
/** Fit a nozzle to a head: from the printer's column on the Floor, or from Stores. */
import { computed, ref, watch } from 'vue'
import { cautionsFor } from '#core/cautions'
import CautionList from '~/components/equip/CautionList.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { useEntryForm } from '~/composables/entry-form'
import { kg } from '#core/words'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const props = defineProps<{ headId: number | null; nozzleId?: number | null }>()
const emit = defineEmits<{ close: [] }>()
const shop = useShop()
const ui = useUi()
const form = useEntryForm('/api/fittings')
const chosenNozzle = ref<number | null>(null)
const chosenHead = ref<number | null>(null)
const at = ref('')
/** A nozzle is turned hot: 220 °C at the least. */
const CAUTIONS = cautionsFor({ action: 'swap a nozzle', nozzleC: 220 })
const open = computed(() => props.headId !== null || (props.nozzleId ?? null) !== null)

watch(
  open,
  now => {
    if (!now) return
    chosenNozzle.value = props.nozzleId ?? null
    chosenHead.value = props.headId
    at.value = new Date().toISOString()
    form.reset()
  },
  { immediate: true },
)

const heads = computed(() =>
  (shop.data?.printers ?? []).flatMap(p =>
    p.heads.map(h => ({
      value: h.id as number | null,
      text: `${p.name}${p.heads.length > 1 ? ` · ${h.name}` : ''}${h.nozzle ? `, now ${h.nozzle}` : ''}`,
    })),
  ),
)
const nozzleWords = (n: { tag: string; typeName: string; place: string | null; leftKg: number | null }) =>
  `${n.tag}, ${n.typeName}, on ${n.place ?? 'the shelf'}${n.leftKg === null ? '' : `, ${kg(n.leftKg)} left`}`
const nozzles = computed(() => [
  { value: null as number | null, text: 'Choose a nozzle' },
  ...(shop.data?.nozzles ?? [])
    .filter(n => !n.retired)
    .sort((a, b) => Number(!!a.place) - Number(!!b.place) || a.tag.localeCompare(b.tag))
    .map(n => ({
      value: n.id as number | null,
      text: nozzleWords(n),
    })),
])

async function save(confirmed: string[] = []): Promise<void> {
  const head = heads.value.find(h => h.value === chosenHead.value)
  const tag = shop.data?.nozzles.find(n => n.id === chosenNozzle.value)?.tag ?? 'nozzle'
  const done = await form.send(
    { kind: 'fit', nozzleId: chosenNozzle.value, headId: chosenHead.value, occurredAt: at.value },
    `Fit ${tag} to ${head?.text.split(',')[0] ?? ''}`,
    confirmed,
  )
  if (done === null) return
  if (done !== 'queued') {
    const off = done.removed ? `; ${done.removed} came off` : ''
    ui.say(`${done.tag} is fitted to ${head?.text.split(',')[0] ?? ''}${off}. Re-set Z before the next job.`)
  }
  emit('close')
}
</script>

<template>
  <ModalSheet :open="open" title="Fit a nozzle" @close="emit('close')">
    <form class="grid gap-3" @submit.prevent="save()">
      <CautionList :cautions="CAUTIONS" title="While you do it" />
      <p class="text-sm">A longer nozzle can hit the bed: raise Z before homing.</p>
      <FieldSelect
        id="fit-head"
        v-model="chosenHead"
        label="Head"
        :options="[{ value: null, text: 'Choose a head' }, ...heads]"
        :error="form.errors.value.headId"
      />
      <FieldSelect
        id="fit-nozzle"
        v-model="chosenNozzle"
        label="Nozzle"
        :options="nozzles"
        :error="form.errors.value.nozzleId"
      />
      <FieldWhen id="fit-when" v-model="at" label="When" :error="form.errors.value.occurredAt" />
      <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" />
      <div class="flex gap-2">
        <button type="submit" class="button first" :disabled="form.busy.value">Fit</button
        ><button type="button" class="button" @click="emit('close')">Cancel</button>
      </div>
    </form>
  </ModalSheet>
</template>
