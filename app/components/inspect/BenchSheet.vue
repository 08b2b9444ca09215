<script setup lang="ts">
/** Plan a flow bench: which head, which spool, how hot, how fast. Says at once what it takes and what it may not. */
import { computed, ref, watch } from 'vue'
import {
  ACCEPTED_SHARE,
  balanceFor,
  BENCH_FLOW_MM3S,
  BLOB_MM,
  cellRefusal,
  HOTTER_C,
  MOST_BALANCE_SHARE,
  planBench,
  USUAL_MOST,
  usualBench,
} from '#core/flow'
import { InputError } from '#core/numeric'
import { celsius, counted, duration, grams } from '#core/words'
import type { BenchPlanFacts } from '#shared/answers/flow'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { ProblemError, read } from '~/lib/api'
import { errorUnder } from '~/lib/field-errors'
import { useLive } from '~/state/live'
import { useShop } from '~/state/shop'
import { typedNumbers } from '~/words/flow'

const props = defineProps<{ open: boolean; headId: number | null; spoolId: number | null }>()
const emit = defineEmits<{ close: [begun: number | null] }>()
const shop = useShop()
const live = useLive()
let begun: number | null = null
const heads = computed(() =>
  (shop.data?.printers ?? []).flatMap(p =>
    p.heads.flatMap(h =>
      h.nozzleId === null
        ? []
        : [{ value: h.id, text: `${p.heads.length > 1 ? `${p.name} · ${h.name}` : p.name}, ${h.nozzle}` }],
    ),
  ),
)
const sheet = useEntrySheet('/api/benches', {
  on: () => (props.open ? {} : null),
  name: () => 'new',
  start: () => ({
    headId: props.headId ?? heads.value[0]?.value ?? null,
    spoolId: props.spoolId,
    temperatures: '',
    flows: '',
    repeats: 2 as number | null,
    lengthMm: BLOB_MM[0] as number | null,
    balanceStepG: (live.links.fineBalance ? 0.001 : 0.01) as number | null,
    accepted: (ACCEPTED_SHARE * 100) as number | null,
    xMm: 20 as number | null,
    yMm: 20 as number | null,
    zMm: 60 as number | null,
    note: '',
  }),
  body: v => ({
    headId: v.headId,
    spoolId: v.spoolId,
    temperaturesC: typedNumbers(v.temperatures),
    flowsMm3S: typedNumbers(v.flows),
    repeats: v.repeats,
    lengthMm: v.lengthMm,
    balanceStepG: v.balanceStepG,
    accepted: v.accepted === null ? null : v.accepted / 100,
    stand: { xMm: v.xMm, yMm: v.yMm, zMm: v.zMm },
    note: v.note,
    occurredAt: new Date().toISOString(),
  }),
  says: () => `Begin a flow bench on ${on.value?.place ?? 'a head'}`,
  saved: done => {
    begun = done.id
    return 'The bench is planned. Save its job file and run it; then weigh each blob.'
  },
  close: () => {
    emit('close', begun)
    begun = null
  },
})
const on = ref<BenchPlanFacts | null>(null)
const failure = ref('')
watch(
  // what is connected is told a moment after the page stands
  () => live.links.fineBalance,
  has => {
    if (has && sheet.v.balanceStepG === 0.01) sheet.v.balanceStepG = 0.001
  },
)
/** The spool that was found on the head: with another head it is looked for anew, one that a person chose stays. */
const found = ref<number | null>(null)
watch(
  () => sheet.v.headId,
  () => {
    if (found.value !== null && sheet.v.spoolId === found.value) sheet.v.spoolId = null
  },
)
let round = 0
watch(
  [() => sheet.open, () => sheet.v.headId, () => sheet.v.spoolId],
  async ([open, headId, spoolId]) => {
    const mine = ++round
    failure.value = ''
    if (!open || headId === null) {
      on.value = null
      return
    }
    try {
      const query: Record<string, string> = spoolId === null ? {} : { spool: String(spoolId) }
      const facts = await read('/api/bench-plans/{id}', { id: headId }, query)
      if (mine !== round) return
      sheet.v.spoolId = facts.spoolId
      if (spoolId === null) found.value = facts.spoolId
      on.value = facts
      propose(facts)
    } catch (e) {
      if (mine === round) failure.value = e instanceof ProblemError ? e.problem.title : 'The server does not answer.'
    }
  },
  { immediate: true },
)
/** What was proposed last: what a person typed over it stays. */
const proposed = ref({ temperatures: '', flows: '', repeats: 2 as number | null })
function propose(f: BenchPlanFacts): void {
  const { densityGCm3, diameterMm } = f.filament
  if (densityGCm3 === null || f.usualC === null) return
  const set = usualBench(f.highestMm3S, Math.round(f.usualC), diameterMm, densityGCm3)
  const next = { temperatures: set.temperaturesC.join(', '), flows: set.flowsMm3S.join(', '), repeats: set.repeats }
  for (const k of ['temperatures', 'flows'] as const)
    if (sheet.v[k] === '' || sheet.v[k] === proposed.value[k]) sheet.v[k] = next[k]
  if (sheet.v.repeats === proposed.value.repeats) sheet.v.repeats = next.repeats
  proposed.value = next
}
const temperatures = computed(() => typedNumbers(sheet.v.temperatures))
const plan = computed(() => {
  const { densityGCm3, diameterMm } = on.value?.filament ?? { densityGCm3: null, diameterMm: 0 }
  const { repeats, lengthMm } = sheet.v
  if (densityGCm3 === null || repeats === null || lengthMm === null) return null
  try {
    const flowsMm3S = typedNumbers(sheet.v.flows)
    return planBench({ temperaturesC: temperatures.value, flowsMm3S, repeats, lengthMm, diameterMm, densityGCm3 })
  } catch (e) {
    if (e instanceof InputError) return null
    throw e
  }
})
/** What the field itself would be refused for, while it is typed. */
const tooHot = computed(() => {
  const limits = on.value?.limits
  if (!limits) return ''
  for (const c of temperatures.value) {
    try {
      const says = cellRefusal(c, limits)
      if (says) return says
    } catch (e) {
      if (!(e instanceof InputError)) throw e
    }
  }
  return ''
})
const balance = computed(() => {
  const [step, p] = [sheet.v.balanceStepG, plan.value]
  if (step === null || !(step > 0) || step > 10 || p === null) return null
  const b = balanceFor(step, p.blobG)
  return { ...b, percent: (b.share * 100).toFixed(b.share < 0.001 ? 2 : 1) }
})
/** What the spool lacks for it, g. */
const shortG = computed(() => {
  const s = shop.data?.spools.find(x => x.id === sheet.v.spoolId)
  return s && plan.value ? Math.max(0, plan.value.grams - s.leftG) : 0
})
const over = computed(
  () => plan.value !== null && (plan.value.minutes > USUAL_MOST.minutes || plan.value.grams > USUAL_MOST.grams),
)
const hotter = computed(() => {
  const most = Math.max(...temperatures.value.filter(Number.isFinite))
  const to = most + HOTTER_C
  return on.value?.hottestC && Number.isFinite(to) && to <= on.value.hottestC ? to : null
})
/** Without a density a length has no mass: said as soon as the spool is chosen. */
const massless = computed(() =>
  on.value && on.value.filament.densityGCm3 === null
    ? `A blob has no mass to be held against: enter the density of ${on.value.limits.material} in Stores first`
    : '',
)
const errorOf = (field: string) => errorUnder(sheet.errors, field)
const FIELDS = ['headId', 'spoolId', 'temperaturesC', 'flowsMm3S', 'repeats', 'lengthMm', 'balanceStepG', 'accepted']
const shown = computed(() =>
  Object.keys(sheet.errors).filter(f => [...FIELDS, 'stand', 'note'].includes(f.split('.')[0]!)),
)
const spools = computed(() =>
  (shop.data?.spools ?? [])
    .filter(s => s.inUse || s.id === sheet.v.spoolId)
    .map(s => ({ value: s.id, text: `${s.tag} ${s.material}, ${grams(s.leftG)} left` })),
)
</script>

<template>
  <EntrySheet :sheet="sheet" title="Plan a flow bench" action="Plan it" :shown="shown" wide>
    <p v-if="on?.notReady" class="font-semibold text-stop" role="alert">{{ on.notReady }}</p>
    <p v-if="failure" class="font-semibold text-look" role="status">{{ failure }}</p>
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldSelect
        id="bench-head"
        v-model="sheet.v.headId"
        label="Head and nozzle"
        :options="heads"
        :error="errorOf('headId')"
      />
      <FieldSelect
        id="bench-spool"
        v-model="sheet.v.spoolId"
        label="Spool, one lot for all blobs"
        :options="[{ value: null, text: 'Choose the spool' }, ...spools]"
        :hint="massless"
        :error="errorOf('spoolId')"
      />
      <FieldText
        id="bench-temperatures"
        v-model="sheet.v.temperatures"
        label="Temperatures, °C"
        placeholder="265, 285"
        :hint="on?.hottestC ? `up to ${celsius(on.hottestC)} by hotend, nozzle and filament` : ''"
        :error="tooHot || errorOf('temperaturesC')"
      />
      <FieldText
        id="bench-flows"
        v-model="sheet.v.flows"
        label="Flows, mm³/s"
        placeholder="8, 10, 12, 14, 16"
        :hint="
          on?.highestMm3S
            ? `printed here up to ${on.highestMm3S.toFixed(1)} mm³/s`
            : `${BENCH_FLOW_MM3S[0]} to ${BENCH_FLOW_MM3S[1]}, three or more`
        "
        :error="errorOf('flowsMm3S')"
      />
    </div>
    <p v-if="hotter !== null" class="-mt-1">
      <button type="button" class="button plain" @click="sheet.v.temperatures = `${sheet.v.temperatures}, ${hotter}`">
        Add {{ celsius(hotter) }}: tells melting from grip
      </button>
    </p>
    <div class="grid grid-cols-2 gap-3 sm:grid-cols-4">
      <FieldNumber id="bench-repeats" v-model="sheet.v.repeats" label="Blobs of each" :error="errorOf('repeats')" />
      <FieldNumber
        id="bench-length"
        v-model="sheet.v.lengthMm"
        label="Length of each"
        unit="mm"
        :error="errorOf('lengthMm')"
      />
      <FieldNumber
        id="bench-step"
        v-model="sheet.v.balanceStepG"
        label="Balance reads to"
        unit="g"
        :error="errorOf('balanceStepG')"
      />
      <FieldNumber
        id="bench-accepted"
        v-model="sheet.v.accepted"
        label="Delivered enough"
        unit="%"
        :error="errorOf('accepted')"
      />
    </div>
    <fieldset class="grid gap-1">
      <legend class="label">Where the head stands, from the printer’s own zero</legend>
      <div class="grid grid-cols-3 gap-3">
        <FieldNumber id="stand-x" v-model="sheet.v.xMm" label="X" unit="mm" :error="errorOf('stand.xMm')" />
        <FieldNumber id="stand-y" v-model="sheet.v.yMm" label="Y" unit="mm" :error="errorOf('stand.yMm')" />
        <FieldNumber id="stand-z" v-model="sheet.v.zMm" label="Z, up first" unit="mm" :error="errorOf('stand.zMm')" />
      </div>
    </fieldset>
    <FieldText id="bench-note" v-model="sheet.v.note" label="Note" :error="errorOf('note')" />
    <div v-if="plan" role="status" class="grid gap-1">
      <p class="font-semibold" :class="over ? 'text-look' : ''">
        {{ counted(plan.lines.length, 'blob') }} of {{ grams(plan.blobG) }}: about {{ duration(plan.minutes * 60) }} and
        {{ grams(plan.grams)
        }}{{ over ? `, more than the usual ${USUAL_MOST.minutes} min or ${USUAL_MOST.grams} g` : '' }}.
      </p>
      <p v-if="shortG > 0" class="font-semibold text-look">The spool is {{ grams(shortG) }} short of it.</p>
      <p class="text-sm text-ink2">
        Coolest first; flows rise in the first round and fall in the next, so that what drifts weighs on slow and fast
        alike.
      </p>
      <p v-if="balance" class="text-sm" :class="balance.isFine ? 'text-ink2' : 'font-semibold text-look'">
        This balance leaves {{ balance.percent }} % of a blob open{{
          balance.isFine ? '.' : `; half a percent is wanted. Take a finer one, or blobs of ${grams(balance.neededG)}.`
        }}
        <span class="sr-only">Wanted: {{ MOST_BALANCE_SHARE * 100 }} %</span>
      </p>
    </div>
    <CautionList v-if="on" :cautions="on.cautions" title="While it runs" />
  </EntrySheet>
</template>
