<script setup lang="ts">
/** Gauge a nozzle: pins or a value, tip length, what was seen. Emits what is typed so that the chart can show it. */
import type { EnteredOf } from '#shared/answers/again'
import type { GaugeEffect } from '#shared/answers/nozzles'
import { SHAPES } from '#shared/choices'
import { computed, nextTick, reactive, ref, watch } from 'vue'
import type { GaugeEntry } from '#shared/entries/nozzles'
import AgainBox from '~/components/entry/AgainBox.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { inPlaceOf } from '~/composables/again'
import { useEscape } from '~/composables/escape'
import { useEntryForm } from '~/composables/entry-form'
import { usePins } from '~/composables/pins'
import { gaugeEffectWords } from '~/words/effects'
import { useOutbox } from '~/state/outbox'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const props = defineProps<{
  nozzleId: number
  tag: string
  draft: string | null
  /** The gauge that this one takes the place of. */
  again?: EnteredOf<'gauge'> | null
}>()
const emit = defineEmits<{
  saved: [effect: GaugeEffect | 'queued' | null]
  cancel: []
  /** Esc: what is typed is kept. */
  leave: []
  preview: [
    v: { goMm: number | null; noGoMm: number | null; valueMm: number | null; uMm: number | null; tipMm: number | null },
  ]
}>()
const ui = useUi()
useEscape(() => emit('leave'))
const shop = useShop()
const outbox = useOutbox()
const form = useEntryForm('/api/gauges')
const way = ref<'pins' | 'value'>('pins')
const v = reactive({
  goMm: null as number | null,
  noGoMm: null as number | null,
  goPin: '',
  noGoPin: '',
  valueMm: null as number | null,
  uMm: null as number | null,
  tipMm: null as number | null,
  shape: [] as (typeof SHAPES)[number][],
  note: '',
  occurredAt: new Date().toISOString(),
})

/** The picture of an entry that waits here: it goes with its bore, and is left out when another is typed. */
const pictured = ref<Pick<GaugeEntry, 'picture' | 'valueMm' | 'uMm'> | null>(null)
const picture = computed(() => {
  const p = pictured.value
  return p && way.value === 'value' && v.valueMm === p.valueMm && v.uMm === p.uMm ? p.picture! : null
})

/** The gauge that this one takes the place of, and why that is struck out. */
const replaced = ref<number | null>(null)
const reason = ref('')
let filled = false
watch(
  () => [props.draft, props.again, outbox.entries.length],
  () => {
    if (filled) return
    const waiting = outbox.entries.find(e => e.key === props.draft)?.body as GaugeEntry | undefined
    const kept = waiting ?? props.again?.body
    if (!kept) return
    filled = true
    replaced.value = waiting?.replaces?.id ?? props.again?.id ?? null
    reason.value = kept.replaces?.reason ?? ''
    way.value = kept.valueMm != null ? 'value' : 'pins'
    pictured.value = kept.picture ? kept : null
    Object.assign(v, {
      goMm: kept.goMm ?? null,
      noGoMm: kept.noGoMm ?? null,
      goPin: kept.goPin ?? '',
      noGoPin: kept.noGoPin ?? '',
      valueMm: kept.valueMm ?? null,
      uMm: kept.uMm ?? null,
      tipMm: kept.tipMm ?? null,
      shape: kept.shape ?? [],
      note: kept.note ?? '',
      occurredAt: kept.occurredAt,
    })
  },
  { immediate: true },
)

const entered = computed(() =>
  way.value === 'pins'
    ? { goMm: v.goMm, noGoMm: v.noGoMm, valueMm: null, uMm: null }
    : { goMm: null, noGoMm: null, valueMm: v.valueMm, uMm: v.uMm },
)
const pins = usePins()
const counts = computed(() => ({
  go: pins.certified(v.goPin, v.goMm, v.occurredAt),
  noGo: pins.certified(v.noGoPin, v.noGoMm, v.occurredAt),
}))
/** A pin of the book brings its size along, in place of none or of the one of the mark that stood there before. */
for (const [mark, size] of [
  ['goPin', 'goMm'],
  ['noGoPin', 'noGoMm'],
] as const)
  watch(
    () => pins.nominalOf(v[mark]),
    (is, was) => {
      if (is !== null && (v[size] === null || v[size] === was)) v[size] = is
    },
  )
// the chart shows a gauge as it will count
watch(
  [entered, counts, () => v.tipMm],
  () => {
    const pair = { goMm: counts.value.go ?? entered.value.goMm, noGoMm: counts.value.noGo ?? entered.value.noGoMm }
    emit('preview', { ...entered.value, ...(way.value === 'pins' ? pair : {}), tipMm: v.tipMm })
  },
  { deep: true },
)

/** A click on the chart sets the pins on either side, in steps of 0.01 mm. */
function pick(boreMm: number): void {
  way.value = 'pins'
  v.goMm = Math.floor(boreMm * 100) / 100
  v.noGoMm = Number((v.goMm + 0.01).toFixed(2))
}
defineExpose({ pick })

/** The nozzle that was really in hand, when it was not this one. */
const choosing = ref(false)
const otherId = ref<number | null>(null)
const others = computed(() => [
  { value: null, text: 'Choose the nozzle' },
  ...(shop.data?.nozzles ?? []).filter(n => n.id !== props.nozzleId).map(n => ({ value: n.id, text: n.tag })),
])
const target = computed(
  () =>
    (choosing.value && shop.data?.nozzles.find(n => n.id === otherId.value)) || { id: props.nozzleId, tag: props.tag },
)

/** Answers that change the entry before it is sent again. */
function changeEntry(code: string): void {
  form.reset()
  choosing.value = code.endsWith(':other-nozzle')
  const bore = way.value === 'pins' ? 'go' : 'value'
  void nextTick(() => document.getElementById(choosing.value ? 'other-nozzle' : bore)?.focus())
}

async function save(confirmed: string[] = []): Promise<void> {
  if (choosing.value && otherId.value === null) return
  const done = await form.send(
    {
      nozzleId: target.value.id,
      occurredAt: v.occurredAt,
      ...entered.value,
      tipMm: v.tipMm,
      shape: v.shape,
      picture: picture.value,
      note: v.note,
      replaces: inPlaceOf(replaced.value, reason.value),
      goPin: way.value === 'pins' && v.goMm !== null ? v.goPin || null : null,
      noGoPin: way.value === 'pins' && v.noGoMm !== null ? v.noGoPin || null : null,
    },
    `Gauge ${target.value.tag}`,
    confirmed,
    props.draft,
  )
  if (done === null) return
  const moved = target.value.id === props.nozzleId ? null : target.value.tag
  if (moved && done !== 'queued') ui.say(gaugeEffectWords(done))
  emit('saved', moved ? null : done)
  if (moved) await navigateTo(`/inspect/${moved}`)
}
</script>

<template>
  <form class="sheet grid gap-3 p-3" aria-label="Gauge" @submit.prevent="save()">
    <AgainBox
      v-if="replaced !== null"
      v-model="reason"
      kind="gauge"
      :old="again ?? null"
      can-be-new
      :error="form.errors.value['replaces.reason'] ?? form.errors.value.replaces"
      @new="replaced = null"
    />
    <p class="border-l-4 border-look pl-3 text-sm">
      <b>Clean and cold.</b> Let it cool to touch and clean it; never force a pin. A pin finds the narrowest place, a
      picture the mouth. The maker's manual comes first.
    </p>
    <fieldset class="flex flex-wrap gap-x-4">
      <legend class="label">Bore by</legend>
      <label class="check"><input v-model="way" type="radio" value="pins" name="way" /> go / no-go pins</label>
      <label class="check"><input v-model="way" type="radio" value="value" name="way" /> a value, ± how sure</label>
      <NuxtLink class="button plain" :to="`/inspect/picture?nozzle=${tag}`">by a picture</NuxtLink>
    </fieldset>
    <p v-if="pictured" class="text-sm" role="status">
      {{
        picture
          ? 'The picture it was read from goes with it.'
          : 'This bore is not the one its picture showed: the picture stays out.'
      }}
    </p>
    <div class="grid grid-cols-2 gap-3">
      <template v-if="way === 'pins'">
        <FieldNumber
          id="go"
          v-model="v.goMm"
          label="Goes"
          unit="mm"
          placeholder="0.43"
          :error="form.errors.value.goMm"
        />
        <FieldNumber
          id="nogo"
          v-model="v.noGoMm"
          label="Does not go"
          unit="mm"
          placeholder="0.44"
          :error="form.errors.value.noGoMm"
        />
        <FieldText
          id="go-pin"
          v-model="v.goPin"
          label="Pin mark (go)"
          :list="pins.marks.value"
          :hint="pins.hint(counts.go, v.goMm)"
          :error="form.errors.value.goPin"
        />
        <FieldText
          id="nogo-pin"
          v-model="v.noGoPin"
          label="Pin mark (no-go)"
          :list="pins.marks.value"
          :hint="pins.hint(counts.noGo, v.noGoMm)"
          :error="form.errors.value.noGoPin"
        />
      </template>
      <template v-else>
        <FieldNumber
          id="value"
          v-model="v.valueMm"
          label="Bore"
          unit="mm"
          placeholder="0.434"
          :error="form.errors.value.valueMm"
        />
        <FieldNumber
          id="value-u"
          v-model="v.uMm"
          label="± (one standard uncertainty)"
          unit="mm"
          placeholder="0.005"
          :error="form.errors.value.uMm"
        />
      </template>
    </div>
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldNumber
        id="tip"
        v-model="v.tipMm"
        label="Tip length, over all"
        unit="mm"
        placeholder="if measured"
        :error="form.errors.value.tipMm"
      />
      <FieldWhen
        id="gauge-when"
        v-model="v.occurredAt"
        class="col-span-2"
        label="When"
        :error="form.errors.value.occurredAt"
      />
    </div>
    <fieldset class="flex flex-wrap gap-x-3">
      <legend class="label">Seen</legend>
      <label v-for="s in SHAPES" :key="s" class="check"
        ><input v-model="v.shape" type="checkbox" :value="s" /> {{ s }}</label
      >
    </fieldset>
    <FieldText id="gauge-note" v-model="v.note" label="Note" :error="form.errors.value.note" />
    <FieldSelect
      v-if="choosing"
      id="other-nozzle"
      v-model="otherId"
      label="The nozzle that was in hand"
      :options="others"
    />
    <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" @local="changeEntry" />
    <div class="flex gap-2">
      <button type="submit" class="button first" :disabled="form.busy.value || (choosing && otherId === null)">
        {{ choosing && otherId !== null ? `Save the gauge of ${target.tag}` : 'Save the gauge' }}</button><button
        type="button"
        class="button"
        @click="emit('cancel')"
      >
        Cancel
      </button>
    </div>
  </form>
</template>
