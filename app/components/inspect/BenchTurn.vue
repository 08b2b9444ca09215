<script setup lang="ts">
/**
 * The blob whose turn it is: off the nozzle, on the balance, saved, and on to the next. What is typed outlasts a
 * reload.
 */
import { computed, nextTick, reactive, ref, watch } from 'vue'
import type { BenchPage } from '#shared/answers/flow'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { useBalance } from '~/composables/balance'
import { useDraft } from '~/composables/draft'
import { useEntryForm } from '~/composables/entry-form'
import { useLive } from '~/state/live'
import { useUi } from '~/state/ui'
import { blobWords, shareWords } from '~/words/flow'

const props = defineProps<{ bench: BenchPage; line: number }>()
const ui = useUi()
const live = useLive()
const form = useEntryForm('/api/blobs')
/** The pan as it was read last, here or in what is weighed already. */
const lastPan = computed(() => {
  const weighed = props.bench.lines.flatMap(l => l.blob ?? [])
  return weighed.reduce<BenchPage['struckBlobs'][number] | (typeof weighed)[number] | null>(
    (a, b) => (a === null || b.id > a.id ? b : a),
    null,
  )?.panG
})
/** As it was saved here last: the page is read anew a moment later. */
const panHere = ref<number | null>(null)
const v = reactive({ grossG: null as number | null, panG: null as number | null })
const draft = useDraft(v)
const line = ref(props.line)
const sending = ref(false)
watch([() => props.line, sending], () => {
  if (!sending.value) line.value = props.line
})
watch(
  () => `bench ${props.bench.id} ${line.value}`,
  name => {
    form.reset()
    draft.begin(name, { grossG: null, panG: panHere.value ?? lastPan.value ?? 0 })
  },
  { immediate: true },
)
const balance = useBalance()
const { busy: reading, failure } = balance
async function readBalance(what: 'pan' | 'blob'): Promise<void> {
  const at = what === 'pan' ? -1 : line.value
  const g = await balance.weigh({ bench: String(props.bench.id), line: String(at) })
  if (g === null) return
  if (what === 'pan') v.panG = g
  else v.grossG = g
}
const hasBalance = computed(() => live.links.fineBalance || live.links.balance)
const elsewhere = computed(() =>
  Object.entries(form.errors.value).flatMap(([f, e]) => (f === 'grossG' || f === 'panG' ? [] : [e])),
)
async function save(confirmed: string[] = []): Promise<void> {
  if (sending.value) return
  const at = line.value
  const body = { benchId: props.bench.id, line: at, ...v, occurredAt: new Date().toISOString() }
  sending.value = true
  const { panG } = v
  const done = await form.send(body, `Blob ${at + 1} of the flow bench of ${props.bench.nozzle}`, confirmed)
  if (done !== null) {
    panHere.value = panG
    draft.drop()
  }
  sending.value = false
  if (done === null) return
  if (done !== 'queued') ui.say(`Blob ${at + 1}: ${done.massG.toFixed(3)} g, ${shareWords(done.share)} delivered.`)
  // the same field again for the next blob; after the last one what ends the bench
  void nextTick(() => (document.getElementById('blob-gross') ?? document.getElementById('bench-end'))?.focus())
}
</script>

<template>
  <form class="sheet no-print grid gap-3 p-4" :aria-label="`Blob ${line + 1}`" @submit.prevent="save()">
    <p class="text-[22px] leading-tight font-bold [font-stretch:88%]" role="status">{{ blobWords(bench, line) }}</p>
    <div class="flex items-center gap-3 text-sm text-ink2">
      <progress
        class="h-2 flex-1"
        :max="bench.lines.length"
        :value="line"
        :aria-label="`${line} of ${bench.lines.length} weighed`"
      />
      round {{ bench.lines[line]!.round + 1 }}
    </div>
    <div class="grid max-w-[560px] grid-cols-2 gap-3">
      <div class="grid content-start gap-1">
        <FieldNumber
          id="blob-gross"
          v-model="v.grossG"
          label="Pan and blob"
          unit="g"
          :error="form.errors.value.grossG"
        /><button v-if="hasBalance" type="button" class="button" :disabled="reading" @click="readBalance('blob')">
          Read the balance
        </button>
      </div>
      <div class="grid content-start gap-1">
        <FieldNumber
          id="blob-pan"
          v-model="v.panG"
          label="Empty pan, read last"
          unit="g"
          :error="form.errors.value.panG"
        /><button v-if="hasBalance" type="button" class="button plain" :disabled="reading" @click="readBalance('pan')">
          Read the empty pan
        </button>
      </div>
    </div>
    <p v-if="failure" class="text-sm font-semibold text-look" role="status">{{ failure }}</p>
    <p v-for="e in elsewhere" :key="e" class="text-sm font-semibold text-stop" role="alert">{{ e }}</p>
    <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" @local="form.reset()" />
    <div>
      <button type="submit" class="button first" :disabled="form.busy.value">Save blob {{ line + 1 }}</button>
    </div>
  </form>
</template>
