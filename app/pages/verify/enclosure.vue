<script setup lang="ts">
/** Enclosure planner: walls, bed, vent and heater against what the parts in its air take, as it is and as planned. */
import { computed, ref, shallowRef, watch } from 'vue'
import { cautionsFor } from '#core/cautions'
import { FIT_WAYS, type FitWay } from '#core/chamber'
import type { PlanLine } from '#shared/answers/chambers'
import type { planSpec } from '#shared/entries/plans'
import CautionList from '~/components/equip/CautionList.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import ChoiceButtons from '~/components/ui/ChoiceButtons.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldText from '~/components/ui/FieldText.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import EnclosureDrawing from '~/components/verify/EnclosureDrawing.vue'
import PlanFields from '~/components/verify/PlanFields.vue'
import PlanResults from '~/components/verify/PlanResults.vue'
import { bodyOf, formOf, newForm, readForm } from '~/components/verify/plan-form'
import VerifyTabs from '~/components/verify/VerifyTabs.vue'
import { useAnswer } from '~/composables/answer'
import { useEntrySheet } from '~/composables/entry-sheet'
import { usePlanOutcome } from '~/composables/plan'
import { usePrinterChoice } from '~/composables/printer-choice'
import { planningOf } from '~/lib/plan'
import { useShop } from '~/state/shop'
import { planSentence } from '~/words/plan'
import { VERDICT_TEXT } from '~/words/verdict'

useHead({ title: 'Enclosure · Iron Nozzle' })
const shop = useShop()
const { data, failure } = useAnswer('/api/chambers')
const { data: equip } = useAnswer('/api/equip')
const ready = computed(() => data.value !== null && equip.value !== null)

const printers = computed(() => (equip.value?.printers ?? []).filter(p => !p.outOfUse))
const printerId = usePrinterChoice(
  () => (ready.value ? printers.value : []),
  id => data.value!.plans.some(p => p.printerId === id),
)
const plans = computed(() => (data.value?.plans ?? []).filter(p => p.printerId === printerId.value))
/** The plan that is open by its name; null: a new one. At once with its printer: a form is opened on both. */
const name = ref<string | null>(null)
watch(printerId, () => (name.value = plans.value[0]?.name ?? null), { immediate: true, flush: 'sync' })
const printer = computed(() => printers.value.find(p => p.id === printerId.value) ?? null)
const chamber = computed(() => data.value?.chambers.find(c => c.printerId === printerId.value) ?? null)
const plan = computed<PlanLine | null>(() => plans.value.find(p => p.name === name.value) ?? null)
const size = computed(
  () => data.value?.surveys.find(s => s.printerId === printerId.value && s.struck === null)?.size ?? null,
)

const sheet = useEntrySheet('/api/plans', {
  on: () => (ready.value && printer.value ? { printer: printer.value, plan: plan.value } : null),
  name: t => `${t.printer.id} ${t.plan?.id ?? 'new'}`,
  start: t => (t.plan ? formOf(t.plan) : newForm(size.value, equip.value!.rules.roomC, chamber.value?.heated ?? false)),
  body: (v, t) => ({ printerId: t.printer.id, ...bodyOf(v), occurredAt: new Date().toISOString() }),
  says: (v, t) => `Plan “${v.name}” of ${t.printer.name}’s enclosure`,
  saved: (_, v, t) => `Plan “${v.name}” of ${t.printer.name}’s enclosure is kept.`,
  close: logged => {
    if (logged) name.value = sheet.v.name
  },
})
/** It comes when the page stands, or the server is back; the outcome waits for it. */
const schema = shallowRef<typeof planSpec | null>(null)
async function fetchSchema(): Promise<void> {
  schema.value ??= await import('#shared/entries/plans').then(
    m => m.planSpec,
    () => null,
  )
}
watch(() => shop.reachable, fetchSchema, { immediate: true })
const typed = computed(() =>
  sheet.open && sheet.v.walls && schema.value !== null ? readForm(sheet.v, schema.value) : null,
)
const errors = computed(() => ({ ...typed.value?.errors, ...sheet.errors }))
const planned = computed(() => {
  const spec = typed.value?.spec
  if (!spec || !printer.value || !equip.value) return null
  const t = sheet.v.targetC
  const targetC = t !== null && !Number.isNaN(t) && t > spec.roomC && t < 300 ? t : null
  return planningOf(spec, targetC, printer.value, chamber.value, equip.value.rules)
})
const { answer, busy } = usePlanOutcome(() =>
  planned.value ? { q: planned.value.q, targetMeanC: planned.value.targetMeanC } : null,
)
const outcome = computed(() => answer.value?.outcome ?? null)
const sentence = computed(() =>
  outcome.value && planned.value ? planSentence(outcome.value, planned.value.unknown) : null,
)
const way = ref<FitWay>('walls')
const which = ref<'now' | 'then'>('then')
const WAY_WORDS: Record<FitWay, string> = { walls: 'if lost through the walls', gaps: 'if lost through gaps' }
const WHICH = [
  { value: 'now' as const, text: 'As it is' },
  { value: 'then' as const, text: 'As planned' },
]
const NEW_PLAN = { value: null, text: 'A new plan' }
const ways = computed(() => (outcome.value ? FIT_WAYS.filter(w => outcome.value!.then.ways[w] !== null) : []))
const drawn = computed(() => {
  if (!outcome.value || !planned.value || !typed.value?.spec) return null
  const of = ways.value.includes(way.value) ? way.value : ways.value[0]
  const state = of && outcome.value[which.value].ways[of]
  return state ? { state, plan: planned.value.q[which.value], size: typed.value.spec.size } : null
})
const problem = computed(() => {
  const n = Object.keys(typed.value?.errors ?? {}).length
  return n > 0 ? `${n === 1 ? 'One field is' : `${n} fields are`} not right yet; the outcome follows.` : ''
})
const cautions = cautionsFor({ action: 'plan an enclosure', roles: ['insulation'], heated: true })
const striking = ref<{ target: 'enclosure plan'; id: number; says: string } | null>(null)
const FIELDS = ['name', 'note', 'occurredAt']
</script>

<template>
  <div>
    <VerifyTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <template v-else-if="printer && sheet.open && sheet.v.walls">
      <p
        class="mb-3 flex min-h-[46px] items-start gap-2 text-[17px] leading-snug font-[680]"
        :class="sentence ? VERDICT_TEXT[sentence.mark] : ''"
        role="status"
        :aria-busy="busy"
      >
        <template v-if="sentence"><VerdictMark :verdict="sentence.mark" class="mt-[3px]" />{{ sentence.text }}</template
        ><template v-else>{{ problem || 'Reckoning…' }}</template>
      </p>
      <div class="no-print mb-3 flex flex-wrap items-center gap-1">
        <ChoiceButtons
          v-model="printerId"
          label="Printer"
          :options="printers.map(p => ({ value: p.id as number | null, text: p.name }))"
        />
        <ChoiceButtons
          :model-value="plan?.name ?? null"
          class="ml-auto"
          label="Plan"
          :options="[...plans.map(p => ({ value: p.name as string | null, text: p.name })), NEW_PLAN]"
          @update:model-value="name = $event"
        />
      </div>
      <div
        class="grid grid-cols-[minmax(0,1fr)] items-start gap-[18px] xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] xl:grid-rows-[auto_1fr]"
      >
        <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
          <template v-if="drawn && outcome">
            <div class="no-print flex flex-wrap gap-1">
              <ChoiceButtons v-model="which" label="Which enclosure" :options="WHICH" />
              <ChoiceButtons
                v-if="ways.length > 1"
                v-model="way"
                class="ml-auto"
                label="How it is lost"
                :options="ways.map(value => ({ value, text: WAY_WORDS[value] }))"
              />
            </div>
            <EnclosureDrawing
              v-bind="drawn"
              :label="`${printer.name}’s enclosure ${which === 'now' ? 'as it is' : 'as planned'}: heat in and out`"
            />
          </template>
        </div>
        <div class="grid grid-cols-[minmax(0,1fr)] gap-3 xl:col-start-2 xl:row-span-2 xl:row-start-1">
          <PlanResults
            v-if="outcome && planned"
            :outcome="outcome"
            :cut-out-c="planned.q.then.cutOutC"
            :power="answer!.power"
            :target-c="sheet.v.targetC"
            :map-from="planned.mapFrom"
            :record-from="planned.recordFrom"
          />
          <CautionList :cautions="cautions" />
        </div>
        <form class="grid grid-cols-[minmax(0,1fr)] gap-3 xl:col-start-1" @submit.prevent="sheet.save()">
          <p v-if="sheet.kept" role="status" class="flex flex-wrap items-center gap-x-3 text-sm">
            What you typed before is still here.
            <button type="button" class="button plain" @click="sheet.again()">Start again</button>
          </p>
          <p v-if="!plan" class="text-sm text-ink2">
            These are start values of a box of panels: put in what is there, then what you would do to it.
          </p>
          <PlanFields v-model="sheet.v" :errors="errors" />
          <div class="grid gap-3 sm:grid-cols-2">
            <FieldText
              id="plan-name"
              v-model="sheet.v.name"
              label="Name of the plan"
              hint="under a name that is there it becomes the newer one"
              :error="errors.name"
            />
            <FieldText id="plan-note" v-model="sheet.v.note" label="Note" :error="errors.note" />
          </div>
          <p
            v-for="[field, e] in Object.entries(sheet.errors).filter(([f]) => !FIELDS.includes(f))"
            :key="field"
            class="text-sm font-semibold text-stop"
            role="alert"
          >
            {{ field.replaceAll('.', ' ') }}: {{ e }}
          </p>
          <QuestionBox :problem="sheet.problem" :busy="sheet.busy" @confirm="sheet.save" @local="sheet.dismiss()" />
          <p class="flex flex-wrap gap-2">
            <button type="submit" class="button first" :disabled="sheet.busy">Keep the plan</button>
            <button
              v-if="plan"
              type="button"
              class="button"
              @click="striking = { target: 'enclosure plan', id: plan.id, says: `Plan “${plan.name}”` }"
            >
              Strike it out
            </button>
          </p>
        </form>
      </div>
      <StrikeSheet :target="striking" @close="striking = null" />
    </template>
  </div>
</template>
