<script setup lang="ts">
/** The lines of a check, each with what a person says to it: set right, waived with a reason, or open. */
import type { Answer, CheckLine } from '#core/precheck'
import VerdictMark from '~/components/ui/VerdictMark.vue'

const props = defineProps<{
  lines: readonly CheckLine[]
  answers: readonly Answer[]
  readonly?: boolean
  errors?: Record<string, string>
}>()
const emit = defineEmits<{ answer: [index: number, how: Answer['how'] | null, reason: string] }>()
const NAMES: Record<CheckLine['key'], string> = {
  'profile': 'Profile',
  'limits': "Printer's limits",
  'flow': 'Flow',
  'wear': 'Nozzle',
  'spool': 'Spool',
  'dryness': 'Dryness',
  'surface': 'Build surface',
  'first layer': 'First layer',
  'fan': 'Part fan',
  'lid and vent': 'Lid and vent',
  'soak': 'Soak',
}
const MARK = { ok: 'fine', look: 'look', stop: 'stop', unknown: 'look', confirm: 'look' } as const
const WORD = { ok: 'fine', look: 'look', stop: 'stop', unknown: 'not known', confirm: 'look at it' } as const
const TEXT = { ok: '', look: 'text-look', stop: 'font-semibold text-stop', unknown: 'text-look', confirm: '' } as const
const of = (i: number) => props.answers.find(a => a.index === i) ?? null
const errorOf = (i: number) => {
  const at = props.answers.findIndex(a => a.index === i)
  return props.errors?.[`answers.${at}.reason`]
}
</script>

<template>
  <ol class="sheet">
    <li
      v-for="(l, i) in lines"
      :key="`${l.key}-${i}`"
      class="grid grid-cols-[22px_minmax(0,1fr)] gap-x-3 gap-y-1 border-t border-rule px-3 py-2 first:border-t-0 md:grid-cols-[22px_120px_minmax(0,1fr)_auto]"
    >
      <VerdictMark :verdict="of(i) || l.status === 'ok' ? 'fine' : MARK[l.status]" :size="18" class="mt-[2px]" />
      <b class="[font-stretch:90%]"
        >{{ NAMES[l.key] }}<span class="sr-only">: {{ WORD[l.status] }}</span></b
      >
      <div class="col-span-2 md:col-span-1">
        <p :class="of(i) ? '' : TEXT[l.status]">
          {{ l.says }}
        </p>
        <p v-if="l.fix && !of(i)" class="text-sm text-ink2">{{ l.fix }}.</p>
        <p v-if="of(i)?.how === 'fixed'" class="text-sm">{{ l.status === 'confirm' ? 'Looked at.' : 'Set right.' }}</p>
        <p v-if="readonly && of(i)?.how === 'waived'" class="text-sm font-semibold text-look">
          Waived: {{ of(i)!.reason }}
        </p>
        <label v-if="!readonly && of(i)?.how === 'waived'" class="mt-1 block text-sm"
          >Reason
          <input
            class="input mt-1"
            :value="of(i)!.reason"
            :aria-invalid="!!errorOf(i)"
            @input="emit('answer', i, 'waived', ($event.target as HTMLInputElement).value)"
          /><span v-if="errorOf(i)" class="font-semibold text-stop">{{ errorOf(i) }}</span></label
        >
        <p v-if="l.status === 'stop' && !l.waivable" class="text-sm text-ink2">
          This is never waived: change the file, the parts or the printer.
        </p>
      </div>
      <div
        v-if="!readonly && l.status !== 'ok'"
        class="no-print col-span-2 flex flex-wrap gap-2 md:col-span-1 md:justify-end"
      >
        <template v-if="of(i)"
          ><button type="button" class="button" @click="emit('answer', i, null, '')">
            Open again<span class="sr-only">: {{ NAMES[l.key] }}</span>
          </button></template
        >
        <template v-else>
          <button v-if="l.status !== 'stop'" type="button" class="button" @click="emit('answer', i, 'fixed', '')">
            {{ l.status === 'confirm' ? 'Looked at' : 'Set right' }}<span class="sr-only">: {{ NAMES[l.key] }}</span>
          </button>
          <button v-if="l.waivable" type="button" class="button" @click="emit('answer', i, 'waived', '')">
            Waive<span class="sr-only">: {{ NAMES[l.key] }}</span>
          </button>
        </template>
      </div>
    </li>
  </ol>
</template>
