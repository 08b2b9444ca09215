<script setup lang="ts">
/**
 * One entry on its way. A refused one can be corrected at the fields that were refused (runs and gauges in their own
 * form), answered, sent again as it is, or withdrawn.
 */
import { computed, ref } from 'vue'
import FieldText from '~/components/ui/FieldText.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { correctable, corrected } from '~/lib/correct'
import { when } from '#shared/time'
import { useOutbox, type Queued } from '~/state/outbox'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const props = defineProps<{ entry: Queued }>()
const emit = defineEmits<{ leave: [] }>()
const outbox = useOutbox()
const shop = useShop()
const ui = useUi()
const busy = ref(false)
const typed = ref<Record<string, string>>({})

const hasForm = computed(() => props.entry.route === '/api/gauges' || props.entry.route === '/api/runs')
const fields = computed(() => (hasForm.value ? [] : correctable(props.entry.body, props.entry.problem?.errors ?? [])))
/** What the fields below do not say already. */
const reason = computed(() => {
  const p = props.entry.problem
  if (p === null || p.questions) return null
  const elsewhere = (p.errors ?? [])
    .filter(e => !fields.value.some(f => f.path === e.field))
    .map(e => `${e.field}: ${e.message}`)
  return p.errors ? elsewhere.join('. ') : [p.title, p.detail].filter(Boolean).join(': ')
})

async function once(work: () => Promise<boolean>): Promise<void> {
  busy.value = true
  if (!(await work())) ui.say(`${props.entry.says}: another tab has sent or withdrawn it.`, 'look')
  busy.value = false
}

async function edit(): Promise<void> {
  const e = props.entry
  const nozzle = shop.data?.nozzles.find(n => n.id === e.body.nozzleId)
  emit('leave')
  await navigateTo(
    e.route === '/api/gauges' && nozzle ? `/inspect/${nozzle.tag}?draft=${e.key}` : `/run?draft=${e.key}`,
  )
}
const send = () =>
  once(() =>
    fields.value.length > 0
      ? outbox.change(props.entry, corrected(props.entry.body, typed.value))
      : outbox.sendAgain(props.entry),
  )
const answer = (codes: string[]) => once(() => outbox.confirm(props.entry, codes))
</script>

<template>
  <li class="border-t border-rule pt-2">
    <p class="font-semibold">{{ entry.says }}</p>
    <p class="text-sm text-ink2">
      {{ when(entry.at, shop.zone)
      }}<template v-if="entry.fault"
        >, the server failed on it ({{ entry.fault.tries }} {{ entry.fault.tries === 1 ? 'try' : 'tries' }}); it is kept
        and sent again</template
      ><template v-else-if="!entry.problem">, waiting for the server</template>
    </p>
    <strong v-if="reason" class="block text-sm text-stop">{{ reason }}</strong>
    <form v-if="fields.length > 0" class="mt-2 grid gap-2 sm:grid-cols-2" @submit.prevent="send">
      <FieldText
        v-for="f in fields"
        :id="`${entry.key}-${f.path}`"
        :key="f.path"
        :model-value="typed[f.path] ?? f.text"
        :label="f.label"
        :error="f.message"
        @update:model-value="
          x => {
            typed[f.path] = x
          }
        "
      />
    </form>
    <QuestionBox
      v-if="entry.problem?.questions"
      class="mt-2"
      :problem="entry.problem"
      :busy="busy"
      @confirm="answer"
      @local="edit"
    />
    <p v-if="entry.problem || entry.fault" class="mt-2 flex flex-wrap gap-2">
      <button v-if="!entry.problem?.questions" type="button" class="button" :disabled="busy" @click="send">
        {{ fields.length > 0 ? 'Save and send' : 'Send again' }}
      </button>
      <button v-if="hasForm" type="button" class="button" @click="edit">Edit</button>
      <button type="button" class="button danger" @click="outbox.drop(entry.key)">Withdraw</button>
    </p>
  </li>
</template>
