<script setup lang="ts">
/** After the print: how long it is held, how fast let down, when the part comes off; with a timer on the Floor. */
import { computed, reactive, ref, watch } from 'vue'
import { THICKNESS_MM } from '#core/anneal'
import { cautionsFor } from '#core/cautions'
import { BED_C, coolPlan, type CoolPlan } from '#core/cooling'
import { stackOf } from '#core/limits'
import { minutesLeft } from '#core/schedule'
import { duration, leftWords } from '#core/words'
import { coolDownOf } from '#shared/cooling'
import { when } from '#shared/time'
import ChangeTabs from '~/components/change/ChangeTabs.vue'
import CoolDrawing from '~/components/change/CoolDrawing.vue'
import CautionList from '~/components/equip/CautionList.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useEntryForm } from '~/composables/entry-form'
import { useEquip } from '~/composables/equip'
import { usePrepare } from '~/composables/prepare'
import { usePrinterChoice } from '~/composables/printer-choice'
import { useLive } from '~/state/live'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'
import { sent } from '~/words/numbers'

useHead({ title: 'After the print · Iron Nozzle' })
const ui = useUi()
const shop = useShop()
const live = useLive()
const { data, failure } = useEquip()
const { data: floor } = useAnswer('/api/floor')
const { data: prepare, now } = usePrepare()
const printerId = usePrinterChoice(() => data.value?.printers ?? [])
const printer = computed(() => data.value?.printers.find(p => p.id === printerId.value) ?? null)
const v = reactive({
  name: '',
  materialId: null as number | null,
  thicknessMm: null as number | null,
  bedC: null as number | null,
})
/** The last job that was logged there is what stands on the bed, unless somebody says otherwise. */
watch(
  () => [printerId.value, floor.value !== null, data.value !== null].join(),
  () => {
    const last = floor.value?.printers.find(p => p.id === printerId.value)?.last
    v.name = last?.name ?? ''
    v.materialId = data.value?.materials.find(m => m.name === last?.material)?.id ?? null
    v.bedC = last?.bedC ?? null
  },
  { immediate: true },
)
const material = computed(() => data.value?.materials.find(m => m.id === v.materialId) ?? null)
const inRange = (x: number | null, low: number, high: number): x is number =>
  x !== null && !Number.isNaN(x) && x >= low && x <= high
const plan = computed<CoolPlan | null>(() => {
  const [p, m, d] = [printer.value, material.value, data.value]
  if (!p || !m || !d || !inRange(v.thicknessMm, ...THICKNESS_MM) || !inRange(v.bedC, ...BED_C)) return null
  const stack = stackOf(p, p.heads[0]!.id)
  return coolPlan(coolDownOf(stack, m, { thicknessMm: v.thicknessMm, bedC: v.bedC }, d.rules.roomC))
})
const sheet = computed(() => printer.value?.parts.find(p => p.role === 'sheet')?.details.surface ?? null)
const lead = computed(() => {
  const p = plan.value
  if (!p) return 'How thick is its thickest place? That decides how fast it may cool.'
  const hold = p.phases.find(x => x.name === 'hold')
  const off = p.phases.find(x => x.name === 'off')
  const sentences = [
    hold ? `Hold bed and chamber ${duration(hold.minutes * 60)}.` : '',
    p.rateCPerH === null
      ? 'Switch off; it may cool by itself.'
      : `Let the bed down by ${Math.floor(p.rateCPerH)} °C an hour at most, lid shut.`,
    off
      ? `About ${duration(p.minutes * 60)} in all (80 % ${duration((p.minutes - off.minutes + off.low80) * 60)} to ` +
        `${duration((p.minutes - off.minutes + off.high80) * 60)}).`
      : '',
  ]
  return `${sentences.filter(Boolean).join(' ')} Then off: ${p.takeOff.says}.`
})
const cautions = computed(() =>
  cautionsFor({
    action: 'print',
    bedC: v.bedC !== null && !Number.isNaN(v.bedC) ? v.bedC : null,
    surfaces: sheet.value === null ? [] : [sheet.value],
  }).filter(c => ['hot bed', 'glass', 'hot chamber', 'superglue'].includes(c.key)),
)
const form = useEntryForm('/api/cool-downs')
async function start(): Promise<void> {
  const body = {
    printerId: printerId.value,
    materialId: v.materialId,
    name: v.name,
    thicknessMm: sent(v.thicknessMm),
    bedC: sent(v.bedC),
    occurredAt: new Date().toISOString(),
  }
  const done = await form.send(body, `${v.name} cools on ${printer.value!.name}`)
  if (done === null) return
  v.thicknessMm = null
  if (done !== 'queued') ui.say(`${v.name} cools on ${printer.value!.name} until ${when(done.until, shop.zone)}.`)
}
const ending = useEntryForm('/api/endings')
const off = ref<number | null>(null)
async function takenOff(c: { id: number; name: string; printer: string }): Promise<void> {
  off.value = c.id
  const body = { target: 'cool-down', targetId: c.id, occurredAt: new Date().toISOString() }
  const done = await ending.send(body, `${c.name} off ${c.printer}`)
  if (done !== null && done !== 'queued') ui.say(`${c.name} is off ${c.printer}.`)
}
const cooling = computed(() => (prepare.value?.coolDowns ?? []).filter(c => c.to === null))
const past = computed(() => (prepare.value?.coolDowns ?? []).filter(c => c.to !== null).slice(0, 8))
const bedNow = (name: string) => live.of(name, now.value)?.bed?.nowC ?? null
</script>

<template>
  <div>
    <ChangeTabs :failure="failure" />
    <EmptyShop v-if="data && data.printers.length === 0" />
    <template v-else-if="data">
      <section v-if="cooling.length > 0" class="mb-4" aria-labelledby="cooling-title">
        <h2 id="cooling-title" class="mb-1">Cools now</h2>
        <ul class="sheet">
          <li
            v-for="c in cooling"
            :key="c.id"
            class="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule px-3 py-2 first:border-t-0"
            :data-cools="c.name"
          >
            <VerdictMark :verdict="minutesLeft(Date.parse(c.from), c.minutes, now) > 0 ? 'fine' : 'look'" :size="20" />
            <div class="min-w-0">
              <p class="font-[650]">{{ c.printer }}: {{ c.name }}, {{ c.material }}</p>
              <p class="text-sm text-ink2">
                {{ leftWords(minutesLeft(Date.parse(c.from), c.minutes, now)) }}; off
                {{
                  c.takeOff === 'warm' ? `warm, at ${c.takeOffC} °C, in heat gloves` : `cold, below ${c.takeOffC} °C`
                }}
              </p>
            </div>
            <p v-if="bedNow(c.printer) !== null" class="text-[18px] font-[680]">
              the bed shows {{ bedNow(c.printer)!.toFixed(0) }} °C
            </p>
            <button
              type="button"
              class="button ml-auto !min-h-[56px]"
              :disabled="ending.busy.value"
              @click="takenOff(c)"
            >
              It is off<span class="sr-only">: {{ c.name }}</span>
            </button>
            <p v-if="off === c.id && ending.errors.value.targetId" class="w-full font-semibold text-stop" role="alert">
              {{ ending.errors.value.targetId }}
            </p>
          </li>
        </ul>
      </section>
      <p class="mb-3 flex items-start gap-2 text-[17px] leading-snug font-[680]" role="status">
        <VerdictMark
          v-if="plan"
          :verdict="plan.takeOff.how === 'warm' ? 'look' : 'fine'"
          :size="20"
          class="mt-[2px]"
        />{{ lead }}
      </p>
      <p v-if="plan && plan.missing.length > 0" class="mb-2 text-look">Not known: {{ plan.missing.join(' and ') }}.</p>
      <form class="mb-3 grid items-start gap-3 sm:grid-cols-2 lg:grid-cols-5" @submit.prevent="start()">
        <FieldSelect
          id="cool-printer"
          v-model="printerId"
          label="Printer"
          :options="data.printers.map(p => ({ value: p.id as number | null, text: p.name }))"
        />
        <FieldText id="cool-name" v-model="v.name" label="Part" :error="form.errors.value.name" />
        <FieldSelect
          id="cool-material"
          v-model="v.materialId"
          label="Filament"
          :options="[
            { value: null, text: 'choose' },
            ...data.materials.map(m => ({ value: m.id as number | null, text: m.name })),
          ]"
          :error="form.errors.value.materialId"
        />
        <FieldNumber
          id="cool-thickness"
          v-model="v.thicknessMm"
          label="Thickest place"
          unit="mm"
          :error="form.errors.value.thicknessMm"
        />
        <FieldNumber id="cool-bed" v-model="v.bedC" label="Bed, as printed" unit="°C" :error="form.errors.value.bedC" />
        <p v-if="form.errors.value.printerId" class="font-semibold text-stop sm:col-span-full" role="alert">
          {{ form.errors.value.printerId }}
        </p>
        <button
          type="submit"
          class="button first !min-h-[56px] sm:col-span-full lg:max-w-[360px]"
          :disabled="form.busy.value"
        >
          The print is over: start the timer
        </button>
      </form>
      <p class="mb-3 text-sm text-ink2">
        It stands on {{ sheet ?? 'a sheet that is not described' }}. Plans from common practice; how long it takes by
        itself is an estimate, the bed's own reading counts.
      </p>
      <div v-if="plan && v.bedC !== null" class="mb-3 overflow-x-auto">
        <div class="sheet max-w-[760px] p-3">
          <CoolDrawing :plan="plan" :bed-c="v.bedC" :room-c="data.rules.roomC" />
        </div>
      </div>
      <CautionList :cautions="cautions" title="When you take it off" />
      <section v-if="past.length > 0" class="mt-4" aria-labelledby="cooled-title">
        <h2 id="cooled-title" class="border-b-2 border-ink pb-1">Lately</h2>
        <ul>
          <li v-for="c in past" :key="c.id" class="border-b border-rule py-1 text-sm">
            {{ c.printer }}: {{ c.name }}, {{ c.material }}, {{ c.thicknessMm }} mm; off {{ c.takeOff }} after
            {{ duration((Date.parse(c.to!) - Date.parse(c.from)) / 1000) }} ({{ c.person }},
            {{ when(c.from, shop.zone) }})
          </li>
        </ul>
      </section>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading what cools"
    />
  </div>
</template>
