<script setup lang="ts">
/** Verify: every sensor of the shop on one scale of errors, what its checks found, and what is due. */
import { computed, nextTick, ref, watch } from 'vue'
import type { VerdictClass } from '#core/limits'
import type { ReferenceLine, SensorLine } from '#shared/answers/sensors'
import { stateOf } from '#shared/sensor-state'
import ListLinks from '~/components/ui/ListLinks.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import ChoiceButtons from '~/components/ui/ChoiceButtons.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import ClassMark from '~/components/ui/ClassMark.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import CheckSheet from '~/components/verify/CheckSheet.vue'
import ErrorScale from '~/components/verify/ErrorScale.vue'
import ReferenceSheet from '~/components/verify/ReferenceSheet.vue'
import SensorRecord from '~/components/verify/SensorRecord.vue'
import VerifyTabs from '~/components/verify/VerifyTabs.vue'
import { againAt, useAgain } from '~/composables/again'
import { useAnswer } from '~/composables/answer'
import { useShop } from '~/state/shop'
import { farthestC, referenceWords, sensorKey, sensorName, shopWords, standing } from '~/words/sensor'
import { VERDICT_TEXT } from '~/words/verdict'

useHead({ title: 'Verify · Iron Nozzle' })
const route = useRoute()
const shop = useShop()
const { data, failure } = useAnswer('/api/verify')

const printers = computed(() => [...new Set((data.value?.sensors ?? []).map(s => s.printer))])
const printer = ref<string | null>(null)
const chosen = ref<string | null>(null)
watch(
  () => [data.value !== null, route.query.printer] as const,
  ([ready, asked]) => {
    if (ready && typeof asked === 'string' && printers.value.includes(asked)) printer.value = asked
  },
  { immediate: true },
)
const states = computed(() => (data.value?.sensors ?? []).map(s => ({ s, state: stateOf(s) })))
const rows = computed(() =>
  states.value
    .filter(({ s }) => printer.value === null || s.printer === printer.value)
    .map(({ s, state }) => ({ s, key: sensorKey(s), ...standing(s, state), result: state.check?.result ?? null })),
)
/** One scale for all rows, °C either way. */
const reachC = computed(() => {
  const most = Math.max(6, farthestC(rows.value.flatMap(r => r.result ?? []))) * 1.1
  return Math.min(40, Math.ceil(most / 2) * 2)
})
const ORDER = ['cannot', 'just', 'runs', 'changes', 'cannot tell'] as const satisfies readonly VerdictClass[]
/** Asked for, or the one that needs a person most; those that nobody has checked last. */
const sensor = computed<SensorLine | null>(() => {
  const asked = rows.value.find(r => r.key === chosen.value)
  if (asked) return asked.s
  return [...rows.value].sort((a, b) => ORDER.indexOf(a.mark) - ORDER.indexOf(b.mark))[0]?.s ?? null
})
const record = ref<HTMLElement | null>(null)
/** Where the record stands under the list it is brought into sight. */
async function choose(key: string): Promise<void> {
  chosen.value = key
  await nextTick()
  if (record.value && record.value.getBoundingClientRect().top > window.innerHeight) record.value.scrollIntoView()
}
const sentence = computed(() => (data.value ? shopWords(states.value) : null))
const usable = computed(() => (data.value?.references ?? []).filter(r => !r.withdrawn))
const checking = ref<SensorLine | null>(null)
const reference = ref<{ of: ReferenceLine | null } | null>(null)
const striking = ref<{ target: 'sensor check'; id: number; says: string; again: string } | null>(null)
const { old: before, leave: leaveBefore, failure: noEntry } = useAgain('sensor check')
/** The sensor that an old check was of. */
const checkedBefore = computed(() => {
  const b = before.value?.body
  const is = (s: SensorLine) => s.printerId === b?.printerId && s.zone === b.zone && s.headId === b.headId
  return (b && data.value?.sensors.find(is)) ?? null
})
</script>

<template>
  <div>
    <VerifyTabs :failure="failure" />
    <p v-if="noEntry" class="mb-2 font-semibold text-stop" role="alert">{{ noEntry }}</p>
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <template v-else-if="data && sentence">
      <!-- more than a sensor may be off by -->
      <svg width="0" height="0" class="absolute" aria-hidden="true">
        <pattern id="too-far" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V7" stroke="var(--color-rule)" stroke-width="2.4" />
        </pattern>
      </svg>
      <p
        class="mb-3 flex items-start gap-2 text-[17px] leading-snug font-[680]"
        :class="VERDICT_TEXT[sentence.verdict]"
        role="status"
      >
        <VerdictMark :verdict="sentence.verdict" class="mt-[3px]" />{{ sentence.text }}
      </p>
      <p v-if="usable.length === 0" class="mb-3 flex flex-wrap items-center gap-3">
        First say what you hold against them: a thermocouple, a platinum sensor or a calibrated probe.
        <button type="button" class="button first" @click="reference = { of: null }">Add a reference</button>
      </p>
      <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-[18px] xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <section aria-label="Sensors">
          <ChoiceButtons
            v-model="printer"
            class="mb-2"
            label="Printer"
            :options="[null, ...printers].map(p => ({ value: p, text: p ?? 'All' }))"
          />
          <div class="mb-1 grid grid-cols-[minmax(0,1fr)] gap-x-3 text-xs text-ink2 sm:grid-cols-[210px_minmax(0,1fr)]">
            <span class="hidden sm:block">sensor</span>
            <span class="flex max-w-[560px] justify-between" aria-hidden="true"
              ><span>reads {{ reachC }} °C low</span><span>true</span><span>{{ reachC }} °C high</span></span
            >
          </div>
          <ul data-list>
            <li v-for="r in rows" :key="r.key" class="border-t border-rule">
              <button
                type="button"
                class="grid min-h-[44px] w-full grid-cols-[minmax(0,1fr)] items-center gap-x-3 py-1 text-left sm:grid-cols-[210px_minmax(0,1fr)]"
                :class="sensor && r.key === sensorKey(sensor) ? 'bg-sheet outline-2 outline-ink' : ''"
                :aria-pressed="sensor !== null && r.key === sensorKey(sensor)"
                @click="choose(r.key)"
              >
                <span class="flex items-start gap-2 px-1"
                  ><ClassMark :verdict="r.mark" :size="16" class="mt-[2px]" /><span
                    ><b>{{ sensorName(r.s) }}</b
                    ><span class="block text-xs text-ink2">{{ r.due }}</span></span
                  ></span
                >
                <span class="px-1"
                  ><ErrorScale v-if="r.result" :result="r.result" :reach-c="reachC" /><span class="text-[13px]">{{
                    r.says
                  }}</span></span
                >
              </button>
            </li>
          </ul>
        </section>
        <div ref="record" class="scroll-mt-3">
          <p class="no-print flex items-baseline justify-end gap-x-3 text-sm">
            All checks <ListLinks list="sensor-checks" />
          </p>
          <SensorRecord
            v-if="sensor"
            :sensor="sensor"
            :can-check="usable.length > 0"
            @check="checking = sensor"
            @strike="
              (id, says) =>
                (striking = { target: 'sensor check', id, says, again: againAt('/verify', 'sensor check', id) })
            "
          />
        </div>
      </div>
      <section class="mt-5" aria-label="References">
        <header class="flex flex-wrap items-center gap-3">
          <h2>References</h2>
          <button type="button" class="button no-print" @click="reference = { of: null }">Add a reference</button>
        </header>
        <ul v-if="data.references.length > 0" class="mt-1">
          <li
            v-for="r in data.references"
            :key="r.id"
            class="flex flex-wrap items-baseline gap-x-3 border-t border-rule"
          >
            <button type="button" class="button plain" @click="reference = { of: r }">
              {{ r.name }}<span class="sr-only">, edit</span>
            </button>
            <span class="text-sm">{{ referenceWords(r.is) }}</span>
            <span class="text-sm text-ink2">{{
              [
                r.dueOn ? `certificate to ${r.dueOn}` : '',
                `${r.checks} ${r.checks === 1 ? 'check' : 'checks'}`,
                r.withdrawn ? 'no longer in use' : '',
              ]
                .filter(Boolean)
                .join('; ')
            }}</span>
          </li>
        </ul>
      </section>
      <CheckSheet v-if="checking" :sensor="checking" :references="data.references" @close="checking = null" />
      <CheckSheet
        v-if="checkedBefore"
        :key="`again ${before!.id}`"
        :sensor="checkedBefore"
        :references="data.references"
        :again="before"
        @close="leaveBefore"
      />
      <ReferenceSheet :open="reference !== null" :reference="reference?.of ?? null" @close="reference = null" />
      <StrikeSheet :target="striking" @close="striking = null" />
    </template>
  </div>
</template>
