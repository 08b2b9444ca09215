<script setup lang="ts">
/** The test that settles most per minute, done in place; the others behind a click. What it finds is saved at once. */
import { computed, nextTick, ref, watch } from 'vue'
import { resultsOf, TESTS, type NextTest, type TestName } from '#core/diagnosis'
import { capital, chance } from '#core/words'
import type { CasePage } from '#shared/answers/diagnosis'
import CautionList from '~/components/equip/CautionList.vue'
import GaugeForm from '~/components/inspect/GaugeForm.vue'
import { useEntryForm } from '~/composables/entry-form'
import { foretold } from '~/lib/case'
import { useUi } from '~/state/ui'
import { minutesWords } from '~/words/case'

const props = defineProps<{
  on: CasePage
  tests: readonly NextTest[]
  /** A test speaks for the likeliest cause already. */
  isSettled: boolean
}>()
/** A test is being done: it takes the room. */
const emit = defineEmits<{ testing: [is: boolean] }>()
const ui = useUi()
const form = useEntryForm('/api/findings')
const doing = ref<TestName | null>(null)
const more = ref(false)
const gauging = ref(false)
const note = ref('')
watch(doing, is => emit('testing', is !== null))
const first = computed(() => (props.tests[0]?.name as TestName | undefined) ?? null)
const name = computed(() => doing.value ?? first.value)
watch(
  () => props.on.id,
  () => {
    doing.value = null
    more.value = false
    gauging.value = false
    form.reset()
  },
)
const test = computed(() => (name.value === null ? null : TESTS[name.value]))
const others = computed(() => props.tests.filter(t => t.name !== name.value))
/** What each result would make it. */
const would = computed(() => (name.value === null ? [] : foretold(props.on, name.value)))
const wouldWords = computed(() => would.value.map(w => `If ${w.result}: ${w.cause} ${chance(w.chance)}.`).join(' '))
const printer = computed(() => encodeURIComponent(props.on.place.split(' · ')[0]!))
/** Where a test has a record of its own. */
const elsewhere = computed(() => {
  if (name.value === 'bench')
    return {
      to: `/inspect/bench?head=${props.on.headId}`,
      says: 'Plan the flow bench',
      then: 'It is read here when it has ended.',
    }
  if (name.value === 'sensor')
    return {
      to: `/verify?printer=${printer.value}`,
      says: 'Check it in Verify',
      then: 'It is read here when it is saved.',
    }
  return null
})
/** The button that was pressed is gone: the focus goes to what comes next. */
const toFocus = (id: string) => void nextTick(() => document.getElementById(id)?.focus())
function open(t: TestName): void {
  doing.value = t
  more.value = false
  gauging.value = false
  toFocus('case-next')
}
function notNow(): void {
  doing.value = null
  toFocus('case-next')
}
async function found(result: string): Promise<void> {
  const test = name.value!
  const body = {
    caseId: props.on.id,
    kind: 'test',
    key: test,
    state: result,
    note: note.value,
    occurredAt: new Date().toISOString(),
  }
  const done = await form.send(body, `${capital(test)}: ${result}`)
  if (done === null) return
  note.value = ''
  doing.value = null
  toFocus('case-verdict')
  if (done !== 'queued') ui.say(`${capital(test)}: ${result}. The list is worked out anew.`)
}
function gauged(): void {
  gauging.value = false
  doing.value = null
  toFocus('case-verdict')
  ui.say(`${props.on.nozzle} is gauged. The list is worked out anew.`)
}
</script>

<template>
  <section class="sheet no-print grid gap-3 p-4" aria-labelledby="case-next">
    <p id="case-next" class="label" tabindex="-1">{{ doing === null ? 'Settles most per minute' : 'The test' }}</p>
    <template v-if="test && name">
      <div class="flex flex-wrap items-baseline gap-x-3">
        <p class="text-[20px] leading-tight font-bold [font-stretch:88%]">{{ test.what }}</p>
        <span class="text-ink2">about {{ minutesWords(test.minutes) }}</span>
      </div>
      <template v-if="doing === null">
        <p class="text-sm">{{ test.reason }} {{ wouldWords }}</p>
        <div class="flex flex-wrap gap-2">
          <button type="button" class="button" :class="isSettled ? '' : 'first'" @click="open(name)">Do it now</button
          ><button
            v-if="others.length > 0"
            type="button"
            class="button"
            :aria-expanded="more"
            aria-controls="case-tests"
            @click="more = !more"
          >
            Another test
          </button>
        </div>
      </template>
      <template v-else>
        <CautionList :cautions="on.cautions[name] ?? []" title="Here it can hurt" />
        <div v-if="name === 'gauge' && on.nozzleId !== null && on.nozzle !== null" class="grid gap-2">
          <GaugeForm
            v-if="gauging"
            :nozzle-id="on.nozzleId"
            :tag="on.nozzle"
            :draft="null"
            @saved="gauged"
            @cancel="gauging = false"
            @leave="gauging = false"
          />
          <div v-else>
            <button type="button" class="button first" @click="gauging = true">
              Enter the gauge of {{ on.nozzle }}
            </button>
          </div>
        </div>
        <p v-if="elsewhere" class="flex flex-wrap items-center gap-2">
          <NuxtLink :to="elsewhere.to" class="act">{{ elsewhere.says }}</NuxtLink>
          <span class="text-sm text-ink2">{{ elsewhere.then }}</span>
        </p>
        <template v-if="!gauging">
          <p id="case-found" class="font-[650]">
            {{ name === 'gauge' || elsewhere ? 'Or say only what it found' : 'What did it find?' }}
          </p>
          <div class="flex flex-wrap gap-2" role="group" aria-labelledby="case-found">
            <button
              v-for="r in resultsOf(test)"
              :key="r"
              type="button"
              class="button !min-h-[48px]"
              :disabled="form.busy.value"
              @click="found(r)"
            >
              {{ capital(r) }}
            </button>
          </div>
          <div class="field max-w-[420px]">
            <label for="case-test-note">Note (if you like)</label
            ><input id="case-test-note" v-model="note" class="input" maxlength="2000" autocomplete="off" />
          </div>
        </template>
        <p v-for="e in Object.values(form.errors.value)" :key="e" class="font-semibold text-stop" role="alert">
          {{ e }}
        </p>
        <div><button type="button" class="button plain" @click="notNow">Not now</button></div>
      </template>
      <ul v-if="more" id="case-tests" class="grid gap-1">
        <li v-for="t in others" :key="t.name">
          <button type="button" class="button w-full !justify-start text-left" @click="open(t.name as TestName)">
            {{ TESTS[t.name as TestName].what }}, about {{ minutesWords(t.minutes) }}
          </button>
        </li>
      </ul>
    </template>
    <p v-else>No test that is left would tell more. Say what it was, or open the case to somebody else’s eyes.</p>
  </section>
</template>
