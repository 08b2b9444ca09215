<script setup lang="ts">
/** Pin gauges: what each measures by its certificates, until when, and how many gauges rest on it. */
import { computed, ref } from 'vue'
import { byWeight } from '#core/schedule'
import { counted, mmNumber } from '#core/words'
import type { PinLine } from '#shared/answers/pins'
import EntryLine from '~/components/entry/EntryLine.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import CertificateSheet from '~/components/stores/CertificateSheet.vue'
import type { FormField, OpenRecord } from '~/components/stores/form-field'
import PinStrip from '~/components/stores/PinStrip.vue'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import StoresTabs from '~/components/stores/StoresTabs.vue'
import LeadSentence from '~/components/ui/LeadSentence.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useKeptFocus } from '~/composables/kept-focus'
import { useShownLine } from '~/composables/shown-line'
import { useShop } from '~/state/shop'
import { certificateWords, heldWords, holding, offUm, offWords } from '~/words/pin'
import { VERDICT_TEXT } from '~/words/verdict'

useHead({ title: 'Pin gauges · Stores · Iron Nozzle' })
const shop = useShop()
const { data, failure } = useAnswer('/api/pins')
useKeptFocus()
const pins = computed(() => data.value ?? [])
/** Off by more than its certificate may be wrong by. */
const isOff = (p: PinLine) => {
  const c = holding(p)
  return c !== null && Math.abs(offUm(p, c)) > c.uMm * 2000
}
/** What is due of it, or that it is off: both are looked at. */
const markOf = (p: PinLine) => (p.withdrawn ? null : (p.due?.mark ?? (isOff(p) ? ('look' as const) : null)))
const lead = computed(() => {
  const inUse = pins.value.filter(p => !p.withdrawn)
  if (inUse.length === 0)
    return { mark: 'look' as const, text: 'No pin is entered: gauges count by the sizes that are typed.' }
  const due = inUse.flatMap(p => (p.due ? [p.due] : [])).sort(byWeight)[0]
  if (due && due.mark !== 'fine') return { mark: due.mark, text: `${due.reason} ${due.action}.` }
  const [worst] = inUse.filter(isOff).sort((a, b) => Math.abs(offUm(b, holding(b)!)) - Math.abs(offUm(a, holding(a)!)))
  if (worst)
    return {
      mark: 'look' as const,
      text: `Pin ${worst.mark} is ${offWords(worst, holding(worst)!)}: ${usedWords(worst)}.`,
    }
  const without = inUse.filter(p => holding(p) === null).length
  return without > 0
    ? { mark: 'look' as const, text: `${counted(without, 'pin')} without a certificate: counted as marked.` }
    : { mark: 'fine' as const, text: 'Every pin is as marked, within what its certificate tells.' }
})
const usedWords = (p: PinLine) =>
  p.gauges === 0
    ? 'no gauge was made with it'
    : `${counted(p.gauges, 'gauge')} of ${counted(p.nozzles, 'nozzle')} ${p.gauges === 1 ? 'counts' : 'count'} by it`

const FIELDS: FormField[] = [
  { key: 'mark', label: 'Mark', kind: 'text', hint: 'as it is written on the pin or its case, and typed in a gauge' },
  { key: 'nominalMm', label: 'Marked size', kind: 'number', unit: 'mm' },
  { key: 'note', label: 'Note', kind: 'text' },
]
const editing = ref<OpenRecord | null>(null)
const certifying = ref<PinLine | null>(null)
const striking = ref<{ target: 'pin certificate'; id: number; says: string } | null>(null)
const says = (v: Record<string, unknown>) => `Pin ${String(v.mark)}`
function add(): void {
  const start = { mark: '', nominalMm: null, note: '' }
  editing.value = { title: 'Add a pin', fields: FIELDS, start, says, route: '/api/pins' }
}
function edit({ id, version, mark, nominalMm, note, withdrawn }: PinLine): void {
  editing.value = {
    title: `Edit pin ${mark}`,
    fields: [...FIELDS, { key: 'withdrawn', label: 'Out of use', kind: 'check' }],
    start: { mark, nominalMm, note, withdrawn },
    says,
    edit: { kind: 'pins', id, version },
  }
}
useShownLine(
  () => data.value !== null,
  mark => `pin-${mark}`,
)
</script>

<template>
  <div>
    <StoresTabs :failure="failure" />
    <template v-if="data">
      <LeadSentence :lead="lead" />
      <p class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1">
        <button type="button" class="button first" @click="add">Add a pin</button>
        <span class="max-w-[70ch] text-sm text-ink2"
          >A pin's error is the error of every gauge made with it. Gauges that name its mark count by its certificates,
          earlier ones too.</span
        >
      </p>
      <ul v-if="pins.length > 0" class="sheet" data-list>
        <li
          v-for="p in pins"
          :id="`pin-${p.mark}`"
          :key="p.id"
          class="border-t border-rule px-3 py-2 first:border-t-0 md:px-4"
          :class="p.withdrawn ? 'text-ink2' : ''"
        >
          <div class="grid items-start gap-x-4 gap-y-1 md:grid-cols-[150px_260px_minmax(0,1fr)_210px]">
            <div>
              <p class="flex items-start gap-2 font-[650]" :class="markOf(p) ? VERDICT_TEXT[markOf(p)!] : ''">
                <VerdictMark v-if="markOf(p)" :verdict="markOf(p)!" :size="16" class="mt-[3px]" />{{ p.mark
                }}{{ p.withdrawn ? ' (out of use)' : '' }}
              </p>
              <p class="text-sm text-ink2">marked {{ mmNumber(p.nominalMm, 4) }} mm</p>
            </div>
            <PinStrip v-if="holding(p)" :pin="p" />
            <p v-else class="text-sm text-ink2">no certificate: counts as marked</p>
            <div class="text-sm">
              <template v-if="holding(p)">
                <p class="font-[650]">{{ certificateWords(p, holding(p)!) }}</p>
                <p class="text-ink2">{{ heldWords(holding(p)!, shop.zone) }}</p>
              </template>
              <p class="text-ink2">{{ usedWords(p) }}</p>
              <p v-if="p.due" :class="VERDICT_TEXT[p.due.mark]">{{ p.due.reason }}</p>
              <details v-if="p.certificates.length > 0" class="mt-1">
                <summary class="min-h-[40px] cursor-pointer py-2 text-sm font-[650]">
                  {{ counted(p.certificates.length, 'certificate') }}
                </summary>
                <ul>
                  <EntryLine
                    v-for="c in p.certificates"
                    :key="c.id"
                    :struck="c.struck"
                    :entered="`${heldWords(c, shop.zone)}, ${c.by}`"
                    :name="`the certificate of ${p.mark}`"
                    @strike="
                      striking = {
                        target: 'pin certificate',
                        id: c.id,
                        says: `the certificate of ${p.mark}, ${certificateWords(p, c)}`,
                      }
                    "
                  >
                    <span class="font-semibold">{{ certificateWords(p, c) }}</span>
                    <span v-if="c.note">{{ c.note }}</span>
                  </EntryLine>
                </ul>
              </details>
            </div>
            <div class="flex flex-wrap gap-1 md:justify-end">
              <button v-if="!p.withdrawn" type="button" class="button" @click="certifying = p">
                New certificate<span class="sr-only"> of {{ p.mark }}</span>
              </button>
              <button type="button" class="button plain" @click="edit(p)">
                Edit<span class="sr-only"> pin {{ p.mark }}</span>
              </button>
            </div>
          </div>
        </li>
      </ul>
      <RecordSheet :open="editing" @close="editing = null" />
      <CertificateSheet v-if="certifying" :pin="certifying" @close="certifying = null" />
      <StrikeSheet :target="striking" @close="striking = null" />
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the pins"
    />
  </div>
</template>
