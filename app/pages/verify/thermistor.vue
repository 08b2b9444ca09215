<script setup lang="ts">
/** A thermistor's curve by beta or by three points, and the table a firmware reads it by. */
import { computed, reactive } from 'vue'
import { InputError } from '#core/numeric'
import { firmwareTable, ntcResolution, ofBeta, steinhartHart, type SteinhartHart } from '#core/thermometry'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import VerifyTabs from '~/components/verify/VerifyTabs.vue'
import { saveFile } from '~/lib/files'

useHead({ title: 'Thermistor table · Iron Nozzle' })
const v = reactive({
  by: 'beta' as 'beta' | 'points',
  r25Ohm: 100_000 as number | null,
  betaK: 3950 as number | null,
  points: [
    { tC: 25, ohm: 100_000 },
    { tC: 150, ohm: 1_770 },
    { tC: 250, ohm: 250 },
  ] as { tC: number | null; ohm: number | null }[],
  pullUpOhm: 4700 as number | null,
  bits: 12 as number | null,
  fromC: 0 as number | null,
  toC: 300 as number | null,
  stepC: 10 as number | null,
})
const given = (n: number | null) => n ?? NaN
const made = computed(() => {
  try {
    const curve: SteinhartHart =
      v.by === 'beta'
        ? ofBeta(given(v.r25Ohm), given(v.betaK))
        : steinhartHart(v.points.map(p => ({ tC: given(p.tC), ohm: given(p.ohm) })))
    const lines = firmwareTable(
      curve,
      { pullUpOhm: given(v.pullUpOhm), bits: given(v.bits) },
      { fromC: given(v.fromC), toC: given(v.toC), stepC: given(v.stepC) },
    )
    return { curve, lines, error: null }
  } catch (e) {
    if (e instanceof InputError) return { curve: null, lines: [], error: e }
    throw e
  }
})
const errorAt = (field: string) => (made.value.error?.field === field ? `Enter ${made.value.error.allowed}` : undefined)
const fields = ['r25Ohm', 'betaK', 'pullUpOhm', 'bits', 'fromC', 'toC', 'stepC']
const elsewhere = computed(() => {
  const e = made.value.error
  return e && !fields.includes(e.field) && !e.field.startsWith('points.') ? `${e.field}: ${e.allowed}` : ''
})
const hottest = computed(() => made.value.lines[0] ?? null)
/** How coarse the reading is where it is used hottest. */
const coarse = computed(() => {
  const d = { pullUpOhm: given(v.pullUpOhm), bits: given(v.bits) }
  if (v.by !== 'beta' || !hottest.value) return ''
  const c = ntcResolution(hottest.value.tC, { r25Ohm: given(v.r25Ohm), betaK: given(v.betaK) }, d)
  return `One count is ${c.toFixed(2)} °C at ${hottest.value.tC} °C.`
})
const COUNT = computed(() => 2 ** (v.bits ?? 0))
const precise = (n: number) => (n >= 100 ? n.toFixed(0) : n.toPrecision(4))
function save(): void {
  const rows = made.value.lines.map(l => `${l.tC},${l.ohm.toFixed(2)},${l.count.toFixed(1)}`)
  const head = `temperature_C,resistance_ohm,count_of_${COUNT.value}`
  saveFile('thermistor-table.csv', 'text/csv', [head, ...rows, ''].join('\n'))
}
const WAYS = [
  { value: 'beta' as const, text: 'R at 25 °C and beta' },
  { value: 'points' as const, text: 'three points (Steinhart–Hart)' },
]
</script>

<template>
  <div>
    <VerifyTabs />
    <p class="mb-3 text-[15px] font-[650]" role="status">
      <template v-if="made.curve"
        >At {{ hottest!.tC }} °C it has {{ precise(hottest!.ohm) }} Ω and reads as {{ hottest!.count.toFixed(0) }} of
        {{ COUNT }}. {{ coarse }}</template
      ><template v-else>Enter the thermistor: its table follows.</template>
    </p>
    <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-[18px] lg:grid-cols-[420px_minmax(0,1fr)]">
      <form class="grid gap-3" @submit.prevent>
        <FieldSelect id="ntc-by" v-model="v.by" label="The thermistor is known by" :options="WAYS" />
        <div v-if="v.by === 'beta'" class="grid grid-cols-2 gap-3">
          <FieldNumber id="ntc-r25" v-model="v.r25Ohm" label="R at 25 °C" unit="Ω" :error="errorAt('r25Ohm')" />
          <FieldNumber id="ntc-beta" v-model="v.betaK" label="Beta" unit="K" :error="errorAt('betaK')" />
        </div>
        <div v-for="(p, i) in v.by === 'points' ? v.points : []" :key="i" class="grid grid-cols-2 gap-3">
          <FieldNumber
            :id="`ntc-t-${i}`"
            v-model="p.tC"
            :label="`${i + 1}: at`"
            unit="°C"
            :error="errorAt(`points.${i}.tC`)"
          />
          <FieldNumber :id="`ntc-r-${i}`" v-model="p.ohm" label="it has" unit="Ω" :error="errorAt(`points.${i}.ohm`)" />
        </div>
        <div class="grid grid-cols-2 gap-3">
          <FieldNumber
            id="ntc-pull"
            v-model="v.pullUpOhm"
            label="Pull-up of the board"
            unit="Ω"
            :error="errorAt('pullUpOhm')"
          />
          <FieldNumber id="ntc-bits" v-model="v.bits" label="Converter" unit="bits" :error="errorAt('bits')" />
          <FieldNumber id="ntc-from" v-model="v.fromC" label="Table from" unit="°C" :error="errorAt('fromC')" />
          <FieldNumber id="ntc-to" v-model="v.toC" label="to" unit="°C" :error="errorAt('toC')" />
          <FieldNumber id="ntc-step" v-model="v.stepC" label="in steps of" unit="°C" :error="errorAt('stepC')" />
        </div>
        <p v-if="elsewhere" class="font-semibold text-stop" role="alert">{{ elsewhere }}</p>
        <p class="text-sm text-ink2">
          A wrong sensor type or table lets the heater run away: prove that runaway protection and an independent
          cut-out trip before it runs unattended. The maker’s data sheet comes first.
        </p>
        <p><button type="button" class="button" :disabled="!made.curve" @click="save">Save as CSV</button></p>
      </form>
      <div class="relative max-h-[70vh] overflow-auto" tabindex="0" role="group" aria-label="Table of the thermistor">
        <table class="record sheet">
          <thead>
            <tr>
              <th scope="col" class="num">°C</th>
              <th scope="col" class="num">Ω</th>
              <th scope="col" class="num">count of {{ COUNT }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="l in made.lines" :key="l.tC">
              <td class="num">{{ l.tC }}</td>
              <td class="num">{{ precise(l.ohm) }}</td>
              <td class="num">{{ l.count.toFixed(1) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
  </div>
</template>
