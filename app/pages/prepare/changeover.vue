<script setup lang="ts">
/* eslint-disable max-lines -- one screen: plan, purge and log */
/** From one filament to another on the same head: how hot, how much, through what. */
import type { MaterialRow } from '#shared/answers/materials'
import { computed, reactive, ref, watch } from 'vue'
import { cautionsFor } from '#core/cautions'
import { purgeOn, SLOWNESS, START_MELT_MM3, washout, type Flowing } from '#core/changeover'
import { heatAt, makesSays, sensorsOf } from '#core/limits'
import { massG } from '#core/materials'
import CautionList from '~/components/equip/CautionList.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import PrepareTabs from '~/components/prepare/PrepareTabs.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useEntryForm } from '~/composables/entry-form'
import { usePrepare } from '~/composables/prepare'
import { useAnswer } from '~/composables/answer'
import { when } from '#shared/time'
import { listed } from '#core/words'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'
import { VERDICT_TEXT } from '~/words/verdict'

useHead({ title: 'Change filament · Iron Nozzle' })
const shop = useShop()
const ui = useUi()
const { data, failure } = usePrepare()
const { data: equip } = useAnswer('/api/equip')
const route = useRoute()
const form = useEntryForm('/api/changeovers')
const v = reactive({
  headId: null as number | null,
  fromId: null as number | null,
  toId: null as number | null,
  meltMm3: START_MELT_MM3.standard as number | null,
  slowness: SLOWNESS as number | null,
  clean: true,
  note: '',
})

const heads = computed(() =>
  (shop.data?.printers ?? []).flatMap(p =>
    p.heads
      .filter(h => h.nozzleId !== null)
      .map(h => ({
        ...h,
        printer: p,
        label: p.heads.length > 1 ? `${p.name}, ${h.name}: ${h.nozzle}` : `${p.name}: ${h.nozzle}`,
      })),
  ),
)
const head = computed(() => heads.value.find(h => h.id === v.headId) ?? null)
const last = computed(() => data.value?.through.find(t => t.nozzleId === head.value?.nozzleId) ?? null)
watch(
  () => heads.value.length > 0 && data.value !== null,
  ready => {
    if (!ready || v.headId !== null) return
    const asked = heads.value.find(h => h.printer.name === route.query.printer)
    v.headId = (asked ?? heads.value.find(h => h.printer.id === ui.lastPrinterId) ?? heads.value[0])!.id
    if (route.query.to !== undefined)
      v.toId = shop.data?.materials.find(m => m.id === Number(route.query.to))?.id ?? null
  },
  { immediate: true },
)
/** What stands in the nozzle by the log, filled in; news of it leaves what a person has chosen since. */
let filledIn: number | null = null
function fillIn(): void {
  v.fromId = filledIn = last.value?.lastId ?? null
}
watch(
  () => v.headId,
  () => {
    fillIn()
    v.meltMm3 = head.value && /high flow/i.test(head.value.name) ? START_MELT_MM3['high flow'] : START_MELT_MM3.standard
  },
  { immediate: true },
)
watch(
  () => last.value?.lastId,
  () => {
    if (v.fromId === filledIn) fillIn()
  },
)

const materials = computed(() => equip.value?.materials ?? [])
const flowing = (m: MaterialRow): Flowing => ({
  name: m.name,
  lowestFlowC: m.values.find(x => x.key === 'lowestFlowC')?.value ?? null,
  shortMaxC: m.values.find(x => x.key === 'shortMaxC')?.value ?? null,
  atHand: (shop.data?.spools ?? []).some(s => s.inUse && s.materialId === m.id),
})
const from = computed(() => materials.value.find(m => m.id === v.fromId) ?? null)
const to = computed(() => materials.value.find(m => m.id === v.toId) ?? null)
const ceiling = computed(
  () => head.value?.printer.limits.find(l => l.zone === 'hotend' && l.headId === head.value!.id) ?? null,
)
const sensor = computed(() => {
  const stack = equip.value?.printers.find(p => p.id === head.value?.printer.id)
  return stack && head.value ? sensorsOf(stack, head.value.id).hotend : null
})
const result = computed(() =>
  from.value && to.value && from.value.id !== to.value.id
    ? purgeOn(
        sensor.value,
        ceiling.value?.limitC ?? null,
        flowing(from.value),
        flowing(to.value),
        materials.value.filter(m => m.filler === 'none').map(flowing),
      )
    : null,
)
const volume = computed(() => {
  try {
    return v.meltMm3 !== null && v.slowness !== null ? washout(v.meltMm3, 1.75, 0.01, v.slowness) : null
  } catch {
    return null
  }
})
const grams = computed(() =>
  volume.value && to.value?.densityGCm3 ? massG(volume.value.lengthMm, 1.75, to.value.densityGCm3) : null,
)
const atC = computed(() =>
  result.value && 'steps' in result.value ? Math.max(...result.value.steps.map(s => s.atC)) : null,
)
const sentence = computed(() => {
  const r = result.value
  if (!from.value && head.value)
    return { verdict: 'look' as const, text: 'Nothing is logged through this nozzle; say what was in it last.' }
  if (!to.value)
    return {
      verdict: 'look' as const,
      text:
        `${from.value?.name ?? 'The last filament'} stands in ${head.value?.nozzle ?? 'the nozzle'}. Choose ` +
        `what comes next.`,
    }
  if (!r) return { verdict: 'fine' as const, text: 'The same filament: nothing to purge.' }
  if (r.kind === 'direct')
    return {
      verdict: 'fine' as const,
      text: `Purge at ${r.steps[0]!.atC} °C: there both ${from.value!.name} and ${to.value.name} flow.`,
    }
  if (r.kind === 'through')
    return {
      verdict: 'look' as const,
      text:
        `Their windows do not meet. Go through ${listed(r.via, 'and')}: ` +
        `${r.steps.map(s => `${s.to} at ${s.atC} °C`).join(', then ')}.`,
    }
  if (r.kind === 'cannot tell') return { verdict: 'look' as const, text: `Cannot tell: ${r.missing} is not entered.` }
  return {
    verdict: 'stop' as const,
    text:
      r.why === 'ceiling'
        ? `${from.value!.name} needs ${r.neededC} °C to come out and ${ceiling.value?.part ?? 'this hotend'} ` +
          `stops at ${r.allowedC} °C. Change the hotend.`
        : `${from.value!.name} needs ${r.neededC} °C and ${to.value.name} stands ${r.allowedC} °C, and nothing ` +
          `in the shop bridges them. Pull cold, or change the hotend.`,
  }
})
const cautions = computed(() =>
  from.value && atC.value !== null
    ? cautionsFor({
        action: 'print',
        polymers: [from.value.polymer, to.value?.polymer ?? ''],
        nozzleC: atC.value,
        roles: (equip.value?.printers.find(p => p.id === head.value?.printer.id)?.parts ?? []).map(p => p.role),
      })
    : [],
)
/** What a setting comes to, where its sensor was found to be off. */
function makes(setC: number): string {
  const says = makesSays(heatAt(sensor.value, setC))
  return says === '' ? '' : ` (${says})`
}
const steps = computed(() => {
  const r = result.value
  if (!r || !('steps' in r) || !volume.value) return []
  const length = `${(volume.value.lengthMm / 1000).toFixed(2)} m`
  return r.steps
    .flatMap(s => [
      `Set the nozzle to ${s.atC} °C${makes(s.atC)} and wait until it holds; hands off the nozzle.`,
      `Take ${s.from} out, push ${s.to} in: about ${length} until 1 % of ${s.from} is left. Look: go on until ` +
        `none is seen, or it clogs.`,
    ])
    .concat([`Set the nozzle to ${to.value!.name}'s own temperature before it stands.`])
})
async function save(confirmed: string[] = []): Promise<void> {
  const done = await form.send(
    {
      headId: v.headId,
      nozzleId: head.value!.nozzleId,
      fromMaterialId: v.fromId,
      toMaterialId: v.toId,
      atC: atC.value,
      volumeMm3: volume.value ? Math.round(volume.value.volumeMm3) : 0,
      clean: v.clean,
      note: v.note,
      occurredAt: new Date().toISOString(),
    },
    `Purge ${head.value!.nozzle} from ${from.value!.name} to ${to.value!.name}`,
    confirmed,
  )
  if (done === null) return
  if (done !== 'queued') {
    const rest = v.clean
      ? '; what went through before no longer decides how hot it is swapped'
      : `, with some ${from.value!.name} left`
    ui.say(`${done.tag} now holds ${to.value!.name}${rest}.`)
  }
  v.toId = null
  v.note = ''
}
const striking = ref<{ target: 'changeover'; id: number; says: string } | null>(null)
const options = computed(() => [
  { value: null as number | null, text: 'Choose' },
  ...materials.value.map(m => ({ value: m.id as number | null, text: m.name })),
])
</script>

<template>
  <div>
    <PrepareTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <p v-else-if="shop.data && heads.length === 0">
      No nozzle is fitted anywhere, so there is nothing to purge. <NuxtLink to="/stores" class="act">Fit one</NuxtLink>
    </p>
    <template v-else-if="data && equip && shop.data">
      <div class="mb-3 grid grid-cols-2 items-start gap-3 md:grid-cols-3 xl:grid-cols-5">
        <FieldSelect
          id="purge-head"
          v-model="v.headId"
          label="Head"
          :options="heads.map(h => ({ value: h.id as number | null, text: h.label }))"
          :error="form.errors.value.nozzleId"
        />
        <FieldSelect
          id="purge-from"
          v-model="v.fromId"
          label="Filament before"
          :options="options"
          :hint="last?.lastId === v.fromId && last ? 'the last that went through' : undefined"
        />
        <FieldSelect id="purge-to" v-model="v.toId" label="Filament after" :options="options" />
        <FieldNumber
          id="purge-melt"
          v-model="v.meltMm3"
          label="Melt in the hotend"
          unit="mm³"
          hint="65 standard, 160 high flow"
        />
        <FieldNumber
          id="purge-slow"
          v-model="v.slowness"
          label="Slower than perfect mixing"
          unit="times"
          hint="3 is the start value"
        />
      </div>
      <p
        class="mb-3 flex items-start gap-2 text-[17px] font-[680] leading-snug"
        role="status"
        :class="VERDICT_TEXT[sentence.verdict]"
      >
        <VerdictMark :verdict="sentence.verdict" :size="20" class="mt-[2px]" />{{ sentence.text }}
      </p>
      <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-2">
        <div v-if="steps.length" class="grid gap-3">
          <ol class="sheet list-decimal py-2 pr-3 pl-8">
            <li v-for="(s, i) in steps" :key="i" class="py-1">{{ s }}</li>
          </ol>
          <p v-if="volume">
            {{ volume.volumeMm3.toFixed(0) }} mm³ a step: {{ (volume.lengthMm / 1000).toFixed(2) }} m of 1.75 mm{{
              grams === null ? '' : `, ${grams.toFixed(1)} g`
            }}. A melt chamber washes out slower than one that is well mixed; {{ v.slowness }} times is assumed.
          </p>
          <form class="grid gap-2" @submit.prevent="save()">
            <label class="check"
              ><input v-model="v.clean" type="checkbox" /> Purged until none of {{ from?.name }} was seen</label
            >
            <FieldText id="purge-note" v-model="v.note" label="Note" :error="form.errors.value.note" />
            <p v-if="form.errors.value.atC || form.errors.value.volumeMm3" class="font-semibold text-stop" role="alert">
              {{ form.errors.value.atC ?? form.errors.value.volumeMm3 }}
            </p>
            <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" />
            <div>
              <button type="submit" class="button first" :disabled="form.busy.value || atC === null">
                Log the purge
              </button>
            </div>
          </form>
        </div>
        <CautionList :cautions="cautions" title="When you purge" />
      </div>
      <section v-if="data.changeovers.length" class="mt-5" aria-labelledby="purges">
        <h2 id="purges">Purges before</h2>
        <ul>
          <li
            v-for="c in data.changeovers.slice(0, 15)"
            :key="c.id"
            class="flex flex-wrap items-center gap-x-3 border-t border-rule"
          >
            <span class="flex-1" :class="c.struck ? 'text-ink2 line-through' : ''"
              >{{ when(c.at, shop.zone) }}: {{ c.nozzle }} on {{ c.printer }} from {{ c.from ?? 'unknown' }} to
              {{ c.to ?? 'nothing' }} at {{ c.atC }} °C, {{ c.volumeMm3 }} mm³{{ c.clean ? ', clear' : ', not clear'
              }}{{ c.note ? `; ${c.note}` : '' }} <span class="text-ink2">{{ c.person }}</span></span
            ><span v-if="c.struck" class="text-ink2">struck out: {{ c.struck }}</span
            ><button
              v-else
              type="button"
              class="button plain"
              @click="striking = { target: 'changeover', id: c.id, says: `Purge of ${c.nozzle}` }"
            >
              Strike out<span class="sr-only"> purge of {{ c.nozzle }}</span>
            </button>
          </li>
        </ul>
      </section>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the shop"
    />
    <StrikeSheet :target="striking" @close="striking = null" />
  </div>
</template>
