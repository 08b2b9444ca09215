<script setup lang="ts">
/** A printer's certificate on one page of A4: stack, limits with their basis, checks, survey, cut-outs, what is due. */
import { computed, ref } from 'vue'
import { GUARDS, type Guard } from '#core/chamber'
import { counted } from '#core/words'
import { day, when } from '#shared/time'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import ChoiceButtons from '~/components/ui/ChoiceButtons.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import CutOutSheet from '~/components/verify/CutOutSheet.vue'
import VerifyTabs from '~/components/verify/VerifyTabs.vue'
import { useAnswer } from '~/composables/answer'
import { useAskedFor } from '~/composables/asked-for'
import { usePrinterChoice } from '~/composables/printer-choice'
import { useNow } from '~/composables/prepare'
import { guardsOf } from '#core/procedures'
import { certificateOf } from '~/lib/certificate'
import { useShop } from '~/state/shop'
import { VERDICT_TEXT } from '~/words/verdict'

/** It is signed: who made it, and when, stands on it. */
definePageMeta({ ownStamp: true })
useHead({ title: 'Certificate · Iron Nozzle' })
const shop = useShop()
const { data: floor, failure } = useAnswer('/api/floor')
const { data: equip } = useAnswer('/api/equip')
const { data: verify } = useAnswer('/api/verify')
const { data: chambers } = useAnswer('/api/chambers')
const now = useNow(60_000)

const printers = computed(() => (equip.value?.printers ?? []).filter(p => !p.outOfUse))
const printerId = usePrinterChoice(() => printers.value)
const printer = computed(() => printers.value.find(p => p.id === printerId.value) ?? null)
const is = computed(() =>
  printer.value && floor.value && verify.value && chambers.value
    ? certificateOf(printer.value, floor.value, verify.value, chambers.value, now.value)
    : null,
)
const sentence = computed(() => {
  const stops = is.value?.due.filter(d => d.mark === 'stop').length ?? 0
  const all = is.value?.due.length ?? 0
  const name = printer.value?.name ?? ''
  if (all === 0) return { mark: 'fine' as const, text: `${name} is checked, surveyed and proved; nothing is due.` }
  if (stops > 0)
    return { mark: 'stop' as const, text: `${name}: ${counted(stops, 'thing')} to put right, ${all - stops} due.` }
  return { mark: 'look' as const, text: `${name}: ${counted(all, 'thing')} due before this certificate is whole.` }
})
/** In the order of the heat, with what each stands and whose word that is. */
const parts = computed(() =>
  (printer.value?.parts ?? []).map(p => ({
    id: p.id,
    name: p.name,
    role: p.role,
    limit: p.limitC === null ? '–' : `${p.limitC} °C`,
    basis: p.limitC === null ? '' : p.basis,
  })),
)
const nozzles = computed(() =>
  (printer.value?.heads ?? []).map(h =>
    h.nozzle ? `${h.nozzle.tag}, ${h.nozzle.boreMm} mm ${h.nozzle.material}` : `${h.name}: none fitted`,
  ),
)
const tests = computed(() => (chambers.value?.cutOutTests ?? []).filter(t => t.printerId === printerId.value))
const person = computed(() => shop.data?.person.name ?? '')
const print = () => window.print()
const GUARD_MARK = {
  'proved': 'fine',
  'failed': 'stop',
  'never tested': 'look',
  'changed since': 'look',
  'due again': 'look',
} as const
/** More would not fit the page. */
const MOST_DUE = 12
/** What may be tested while a test is logged: anything, or what the address asks for; else nothing. */
const testing = ref<readonly Guard[]>([])
const { forget } = useAskedFor(['test'], ({ test }) => (testing.value = GUARDS.filter(g => g === test)))
function endTest(): void {
  testing.value = []
  forget()
}
const striking = ref<{ target: 'cut-out test'; id: number; says: string } | null>(null)
</script>

<template>
  <div>
    <VerifyTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <template v-else-if="printer && is">
      <div class="no-print mb-3 flex flex-wrap items-center gap-1">
        <ChoiceButtons
          v-model="printerId"
          label="Printer"
          :options="printers.map(p => ({ value: p.id as number | null, text: p.name }))"
        />
        <button type="button" class="button ml-auto" @click="testing = guardsOf(printer)">Log a cut-out test</button>
        <button type="button" class="button first" @click="print">Print</button>
      </div>
      <article
        class="certificate sheet max-w-[820px] border-2 border-ink p-4"
        :aria-label="`Certificate of ${printer.name}`"
      >
        <header class="mb-2 flex flex-wrap items-baseline gap-x-3">
          <h2 class="text-[20px]">{{ printer.name }}</h2>
          <span>{{ printer.kind }}</span>
          <span class="ml-auto text-sm">{{ floor!.shopName }}</span>
        </header>
        <p class="flex items-start gap-2 font-[680]" :class="VERDICT_TEXT[sentence.mark]" role="status">
          <VerdictMark :verdict="sentence.mark" class="mt-[2px]" />{{ sentence.text }}
        </p>
        <div class="mt-2 grid grid-cols-1 gap-x-5 gap-y-3 sm:grid-cols-2 print:grid-cols-2">
          <section>
            <h3>May be set to</h3>
            <ul>
              <li v-for="l in is.limits" :key="`${l.what} ${l.by.part}`">
                <b>{{ l.what }} {{ l.mayBe }}</b
                >: {{ l.by.part }}, {{ l.by.basis }}{{ l.by.enteredBy ? ` (${l.by.enteredBy})` : '' }}
              </li>
            </ul>
            <p class="text-xs text-ink2">Guard bands taken off; corrections of checked sensors in it.</p>
          </section>
          <section>
            <h3>Due</h3>
            <p v-if="is.due.length === 0">Nothing.</p>
            <ul v-else>
              <li v-for="d in is.due.slice(0, MOST_DUE)" :key="d.text" class="flex items-start gap-1">
                <VerdictMark :verdict="d.mark" :size="13" class="mt-[3px]" /><span>{{ d.text }}</span>
              </li>
              <li v-if="is.due.length > MOST_DUE">and {{ is.due.length - MOST_DUE }} more.</li>
            </ul>
          </section>
          <section>
            <h3>Sensors</h3>
            <ul>
              <li v-for="s in is.sensors" :key="s.name" class="flex items-start gap-1">
                <VerdictMark :verdict="s.mark" :size="13" class="mt-[3px]" /><span
                  ><b>{{ s.name }}</b
                  >: {{ s.says
                  }}<span v-if="s.checked" class="text-ink2"
                    >; {{ day(s.checked, shop.zone) }}, {{ s.person }}</span
                  ></span
                >
              </li>
            </ul>
          </section>
          <section>
            <h3>Runaway protection and cut-outs</h3>
            <ul>
              <li v-for="g in is.guards" :key="g.guard" class="flex items-start gap-1">
                <VerdictMark :verdict="GUARD_MARK[g.state]" :size="13" class="mt-[3px]" /><span
                  ><b>{{ g.guard }}</b
                  >:
                  <template v-if="g.last"
                    >{{ g.last.tripped ? 'tripped' : 'did not trip'
                    }}{{ g.last.atC === null ? '' : ` at ${g.last.atC} °C` }}, {{ day(g.last.at, shop.zone) }},
                    {{ g.last.person }}{{ g.last.changed ? `; changed since: ${g.last.changed}` : '' }}</template
                  ><template v-else>never tested</template></span
                >
              </li>
            </ul>
          </section>
          <section class="sm:col-span-2 print:col-span-2">
            <h3>Chamber</h3>
            <p v-if="is.survey">
              Surveyed {{ day(is.survey.line.at, shop.zone) }} by {{ is.survey.line.person }}, {{ is.survey.state }}:
              {{ is.survey.places.join('; ') }}.
            </p>
            <p v-else>No survey of it holds as it stands now.</p>
          </section>
          <section class="sm:col-span-2 print:col-span-2">
            <h3>Stack: {{ nozzles.join('; ') }}</h3>
            <ul class="columns-1 gap-5 sm:columns-2 print:columns-2 print:landscape:columns-3">
              <li v-for="p in parts" :key="p.id" class="flex break-inside-avoid gap-1">
                <span class="min-w-0 flex-1"
                  >{{ p.name }} <span class="text-ink2">({{ p.role }})</span></span
                ><span class="text-right"
                  >{{ p.limit }} <span class="text-ink2">{{ p.basis }}</span></span
                >
              </li>
            </ul>
          </section>
        </div>
        <footer class="mt-3 flex flex-wrap gap-x-6 gap-y-1 border-t border-ink pt-2 text-xs">
          <span>Made {{ when(new Date(now).toISOString(), shop.zone) }} by {{ person }}</span>
          <span class="flex-1">Signed ______________________</span>
          <span class="text-ink2">The maker’s manual, local codes and licensed practice come first.</span>
        </footer>
      </article>
      <section v-if="tests.length > 0" class="no-print mt-4 max-w-[820px]" aria-label="Tests of cut-outs">
        <h2>Tests of cut-outs</h2>
        <ul>
          <li
            v-for="t in tests"
            :key="t.id"
            class="flex flex-wrap items-center gap-x-3 border-t border-rule text-sm"
            :class="t.struck ? 'struck' : ''"
          >
            <span class="min-h-[40px] content-center"
              ><b>{{ t.guard }}</b
              >: {{ t.tripped ? 'tripped' : 'did not trip' }}{{ t.atC === null ? '' : ` at ${t.atC} °C` }},
              {{ when(t.at, shop.zone) }}, {{ t.person }}{{ t.note ? `; ${t.note}` : ''
              }}{{ t.struck ? `; struck out: ${t.struck.reason}` : '' }}</span
            >
            <button
              v-if="!t.struck"
              type="button"
              class="button plain ml-auto"
              :aria-label="`Strike out the test of the ${t.guard}`"
              @click="striking = { target: 'cut-out test', id: t.id, says: `Test of the ${t.guard}` }"
            >
              Strike out
            </button>
          </li>
        </ul>
      </section>
      <CutOutSheet v-if="testing.length > 0" :printer="printer" :guards="testing" @close="endTest" />
      <StrikeSheet :target="striking" @close="striking = null" />
    </template>
  </div>
</template>

<style scoped>
.certificate {
  font-size: 13px;
  line-height: 1.4;
}
.certificate h3 {
  font-weight: 700;
  border-bottom: 1px solid var(--color-rule);
  margin-bottom: 2px;
}
@media print {
  .certificate {
    max-width: none;
    border: 0;
    padding: 0;
    font-size: 12px;
    line-height: 1.3;
  }
}
@media print and (orientation: landscape) {
  .certificate {
    line-height: 1.2;
  }
}
</style>
