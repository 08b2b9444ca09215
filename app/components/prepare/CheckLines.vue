<script setup lang="ts">
/**
 * The lines of a check. A line turns fine when its fact is changed: its button goes there. What only eyes can tell is
 * looked at; the rest can be waived with a reason, as far as it may be.
 */
import { nextTick, useTemplateRef } from 'vue'
import { settles, type Answer, type CheckLine, type CheckPlace } from '#core/precheck'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { PLACE_SAYS } from '~/lib/check-places'

const props = defineProps<{
  lines: readonly CheckLine[]
  answers: readonly Answer[]
  readonly?: boolean
  errors?: Record<string, string>
  /** Where a line's fact is changed; null for a field on this page. */
  urlOf?: (where: CheckPlace) => string | null
}>()
const emit = defineEmits<{
  answer: [index: number, how: 'looked' | 'waived' | null, reason: string]
  go: [where: CheckPlace]
}>()
const NAMES: Record<CheckLine['key'], string> = {
  'ready': 'Ready for work',
  'profile': 'Profile',
  'restrictions': 'Restrictions',
  'guards': 'Cut-outs',
  'what worked': 'What worked',
  'limits': "Printer's limits",
  'in the nozzle': 'In the nozzle',
  'flow': 'Flow',
  'wear': 'Nozzle',
  'spool': 'Spool',
  'dryness': 'Dryness',
  'surface': 'Build surface',
  'level': 'Z and level',
  'first layer': 'First layer',
  'fan': 'Part fan',
  'lid and vent': 'Lid and vent',
  'chamber': 'Chamber',
  'soak': 'Soak',
  'own': "The shop's own",
  'after': 'Afterwards',
}
const MARK = { ok: 'fine', look: 'look', stop: 'stop', unknown: 'look', confirm: 'look', note: 'look' } as const
const WORD = {
  ok: 'fine',
  look: 'look',
  stop: 'stop',
  unknown: 'not known',
  confirm: 'look at it',
  note: 'to know',
} as const
const TEXT = {
  ok: '',
  look: 'text-look',
  stop: 'font-semibold text-stop',
  unknown: 'text-look',
  confirm: '',
  note: '',
} as const
const list = useTemplateRef<HTMLElement>('list')
/** The button that was pressed goes; who works by keys stays at the line, at what comes next there. */
async function give(i: number, how: 'looked' | 'waived' | null, reason: string): Promise<void> {
  emit('answer', i, how, reason)
  await nextTick()
  const next = how === 'waived' ? 'input' : '[data-acts] :is(button, a)'
  list.value?.children[i]?.querySelector<HTMLElement>(next)?.focus()
}
const of = (i: number) => props.answers.find(a => a.index === i) ?? null
const looked = (l: CheckLine, i: number) => of(i)?.how === 'looked' && settles(l, of(i)!)
const waived = (i: number) => of(i)?.how === 'waived'
const errorOf = (i: number) => {
  const at = props.answers.findIndex(a => a.index === i)
  return props.errors?.[`answers.${at}.reason`]
}
/** A waived line is no tick: it stays as it is, with its reason. */
const mark = (l: CheckLine, i: number) => (l.status === 'ok' || looked(l, i) ? ('fine' as const) : MARK[l.status])
</script>

<template>
  <ol ref="list" class="sheet">
    <li
      v-for="(l, i) in lines"
      :key="`${l.key}-${i}`"
      class="grid grid-cols-[22px_minmax(0,1fr)] gap-x-3 gap-y-1 border-t border-rule px-3 py-2 first:border-t-0 md:grid-cols-[22px_112px_minmax(0,1fr)_auto]"
      :data-line="l.key"
      :data-status="looked(l, i) ? 'looked' : l.status"
    >
      <svg
        v-if="l.status === 'note'"
        width="18"
        height="18"
        viewBox="0 0 16 16"
        aria-hidden="true"
        class="mt-[2px] shrink-0"
      >
        <path d="M3 8h10" stroke="var(--color-ink2)" stroke-width="2" />
      </svg>
      <VerdictMark v-else :verdict="mark(l, i)" :size="18" class="mt-[2px]" />
      <b class="[font-stretch:90%]"
        >{{ NAMES[l.key] }}<span class="sr-only">: {{ WORD[l.status] }}</span></b
      >
      <div class="col-span-2 md:col-span-1">
        <p :class="looked(l, i) ? '' : TEXT[l.status]">{{ l.says }}</p>
        <p v-if="l.fix && l.status !== 'ok'" class="text-sm text-ink2">{{ l.fix }}.</p>
        <p v-if="looked(l, i)" class="text-sm">Looked at.</p>
        <p v-if="of(i)?.how === 'fixed'" class="text-sm">Ticked by hand, as checks could be then.</p>
        <p v-if="readonly && waived(i)" class="text-sm font-semibold text-look">Waived: {{ of(i)!.reason }}</p>
        <div v-if="!readonly && waived(i)" class="mt-1 text-sm">
          <label
            >Waived, because
            <input
              class="input mt-1"
              maxlength="300"
              :value="of(i)!.reason"
              :aria-invalid="!!errorOf(i)"
              @input="emit('answer', i, 'waived', ($event.target as HTMLInputElement).value)"
            /><span v-if="errorOf(i)" class="font-semibold text-stop">{{ errorOf(i) }}</span></label
          >
          <span v-if="l.reasons.length > 0 && of(i)!.reason === ''" class="mt-1 flex flex-wrap gap-2">
            <button v-for="r in l.reasons" :key="r" type="button" class="button plain" @click="give(i, 'waived', r)">
              {{ r }}
            </button>
          </span>
        </div>
        <p v-if="!l.waivable && l.status !== 'ok'" class="text-sm text-ink2">This is never waived.</p>
      </div>
      <div
        v-if="!readonly && l.status !== 'ok' && l.status !== 'note'"
        data-acts
        class="no-print col-span-2 flex flex-wrap content-start gap-2 md:col-span-1 md:max-w-[230px] md:justify-end"
      >
        <button v-if="looked(l, i) || waived(i)" type="button" class="button" @click="give(i, null, '')">
          Open again<span class="sr-only">: {{ NAMES[l.key] }}</span>
        </button>
        <template v-else>
          <template v-if="l.where !== null">
            <NuxtLink v-if="urlOf?.(l.where)" :to="urlOf(l.where)!" class="button"
              >{{ PLACE_SAYS[l.where] }}<span class="sr-only">: {{ NAMES[l.key] }}</span></NuxtLink
            >
            <button v-else type="button" class="button" @click="emit('go', l.where)">
              {{ PLACE_SAYS[l.where] }}<span class="sr-only">: {{ NAMES[l.key] }}</span>
            </button>
          </template>
          <button v-if="l.status === 'confirm'" type="button" class="button" @click="give(i, 'looked', '')">
            Looked at<span class="sr-only">: {{ NAMES[l.key] }}</span>
          </button>
          <button v-else-if="l.waivable" type="button" class="button plain" @click="give(i, 'waived', '')">
            Waive<span class="sr-only">: {{ NAMES[l.key] }}</span>
          </button>
        </template>
      </div>
    </li>
  </ol>
</template>
