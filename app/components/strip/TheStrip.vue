<script setup lang="ts">
/** One line at the top of every screen: says what it understood, completes tags, names the word it could not read. */
import type { GaugeEffect } from '#shared/answers/nozzles'
import type { RunEffect } from '#shared/answers/runs'
import type { ReadingEffect } from '#shared/answers/studies'
import { QrCode } from '@lucide/vue'
import { until } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import type { Choice, Problem } from '#shared/problem'
import { gaugeEffectWords, readingEffectWords, runEffectWords } from '~/words/effects'
import { completions } from '~/strip/complete'
import { understand } from '~/strip/parse'
import { useStripNames } from '~/composables/strip-names'
import LabelSheet from '~/components/strip/LabelSheet.vue'
import { newKey } from '~/lib/api'
import { checks, type Checks } from '~/lib/checks'
import { queuedWords, useOutbox } from '~/state/outbox'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const shop = useShop()
const outbox = useOutbox()
const ui = useUi()
const line = ref('')
const focused = ref(false)
const chosen = ref(-1)
const busy = ref(false)
const problem = ref<Problem | null>(null)
const input = ref<HTMLInputElement | null>(null)
let key = newKey()

/** A label without a scanner; what it says stands in the strip as if it had been scanned. */
const reading = ref(false)
async function readLabel(tag: string): Promise<void> {
  reading.value = false
  asked.value = true
  line.value = tag
  onInput()
  await nextTick()
  input.value?.focus()
}
const asked = ref(false)
const { names, isRead } = useStripNames(asked)
/** What an entry is checked by, once it is there. */
const known = shallowRef<Checks | null>(null)
const learn = async () => (known.value = await checks())
watch(asked, () => void learn())
const understood = computed(() => understand(line.value, names.value, new Date().toISOString(), known.value))
const offers = computed(() => (focused.value ? completions(line.value, names.value) : []))
const withChoices = computed(() => problem.value?.questions?.some(q => q.choices) ?? false)
const open = computed(() => focused.value && (line.value !== '' || problem.value !== null))

/** Two fields that are wrong in the same way are said once. */
function reasonOf(p: Problem): string {
  if (p.questions) return p.questions.map(q => q.message).join(' ')
  return p.errors ? [...new Set(p.errors.map(e => e.message))].join('. ') : p.title
}

function complete(word: string): void {
  line.value = line.value.replace(/\S*$/, word) + ' '
  chosen.value = -1
  input.value?.focus()
}

async function enter(codes: string[] = []): Promise<void> {
  if (chosen.value >= 0 && offers.value[chosen.value]) {
    complete(offers.value[chosen.value]!)
    return
  }
  // on a screen that is still coming the line is read once what it is read by is there, or cannot come
  if (understood.value.kind !== 'open') await learn()
  if (!['open', 'entry'].includes(understood.value.kind)) await until(isRead).toBe(true)
  const u = understood.value
  if (u.kind === 'open') {
    await navigateTo(u.path)
    clear()
    return
  }
  if (u.kind !== 'entry' || busy.value) return
  const questions = problem.value?.questions ?? []
  if (codes.length === 0 && questions.some(q => q.choices)) return // Enter alone is no answer to a choice
  const confirmed = codes.length > 0 ? codes : questions.map(q => q.code)
  busy.value = true
  const outcome = await outbox.submit(u.route, { ...u.body, ...(confirmed.length ? { confirmed } : {}) }, u.says, key)
  busy.value = false
  if (outcome.kind === 'refused') {
    problem.value = outcome.problem
    key = newKey()
    await nextTick(() => input.value?.focus())
    return
  }
  if (outcome.kind === 'queued') ui.say(`${u.says}. ${queuedWords(outcome)}`, 'look')
  else if (u.route === '/api/runs') ui.say(runEffectWords(outcome.answer as RunEffect))
  else if (u.route === '/api/gauges') ui.say(gaugeEffectWords(outcome.answer as GaugeEffect))
  else if (u.route === '/api/study-readings') ui.say(`${u.says}. ${studyWords(outcome.answer as ReadingEffect)}`)
  else ui.say(`${u.says}: saved`)
  clear()
}

/** The strip knows the method of the study whose turn it was, and not the name of its set-up. */
function studyWords(effect: ReadingEffect): string {
  return readingEffectWords(effect, { method: shop.data?.studyTurn?.method ?? 'pins', setup: null })
}

/** One choice answers its question; the others of the same refusal are confirmed with it. */
async function choose(question: string, choice: Choice): Promise<void> {
  if (choice.local) {
    problem.value = null
    if (choice.code.endsWith(':other-nozzle')) line.value = line.value.trim().replace(/^\S+\s*/, '')
    await nextTick(() => {
      input.value?.focus()
      input.value?.setSelectionRange(0, 0)
    })
    return
  }
  await enter((problem.value?.questions ?? []).map(q => (q.code === question ? choice.code : q.code)))
}

function clear(): void {
  line.value = ''
  problem.value = null
  chosen.value = -1
  key = newKey()
}

function onKey(e: KeyboardEvent): void {
  if (e.key === 'Escape') {
    clear()
    input.value?.blur()
  } else if (e.key === 'Enter') {
    e.preventDefault()
    void enter()
  } else if (e.key === 'Tab' && !e.shiftKey && offers.value.length > 0) {
    e.preventDefault()
    complete(offers.value[Math.max(0, chosen.value)]!)
  } else if (e.key === 'ArrowDown' && offers.value.length > 0) {
    e.preventDefault()
    chosen.value = (chosen.value + 1) % offers.value.length
  } else if (e.key === 'ArrowUp' && offers.value.length > 0) {
    e.preventDefault()
    chosen.value = chosen.value <= 0 ? offers.value.length - 1 : chosen.value - 1
  }
}

function onInput(): void {
  chosen.value = -1
  problem.value = null
  key = newKey()
}

defineExpose({
  focus(text = '') {
    input.value?.focus()
    if (text) {
      line.value += text
      onInput()
    }
  },
})
</script>

<template>
  <div class="relative min-w-0 flex-1">
    <div
      class="flex items-center gap-2 border-[1.5px] border-ink bg-white px-2 rounded-[3px] focus-within:outline-3 focus-within:outline-blue focus-within:outline-offset-2"
    >
      <span class="kbd hidden sm:inline-block" aria-hidden="true">/</span>
      <input
        ref="input"
        v-model="line"
        class="h-[40px] w-full min-w-0 bg-transparent text-[15px] outline-none"
        type="text"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        role="combobox"
        aria-label="Log or find: scan a tag or type an entry"
        aria-controls="strip-panel"
        :aria-expanded="open"
        aria-autocomplete="list"
        :aria-activedescendant="chosen >= 0 ? `strip-offer-${chosen}` : undefined"
        placeholder="Scan a tag, or type: N-014 bore 0.43-0.44"
        @keydown="onKey"
        @input="onInput"
        @focus="focused = asked = true"
        @blur="focused = false"
      />
      <span
        v-if="understood.kind === 'entry' || understood.kind === 'open'"
        class="hidden shrink-0 text-sm text-ink2 md:inline"
        >Enter to {{ understood.kind === 'open' ? 'open' : 'log' }}</span
      >
      <button
        type="button"
        class="-mr-2 flex h-[40px] w-[40px] shrink-0 items-center justify-center"
        aria-label="Read a label by photo or camera"
        @click="reading = true"
      >
        <QrCode :size="20" aria-hidden="true" />
      </button>
    </div>
    <LabelSheet v-if="reading" @close="reading = false" @read="readLabel" />
    <div v-show="open" id="strip-panel" class="sheet absolute inset-x-0 top-full z-40 mt-1 p-3" @mousedown.prevent>
      <p role="status" class="text-[15px]">
        <template v-if="problem">
          <strong :class="problem.questions ? 'text-look' : 'text-stop'">{{ reasonOf(problem) }}</strong>
          <span v-if="problem.questions">{{
            withChoices ? ' Choose below, Esc leaves it.' : ' Enter confirms, Esc leaves it.'
          }}</span>
        </template>
        <template v-else-if="understood.kind === 'unread'">
          <span>{{ line.slice(0, understood.from) }}</span><mark
            class="bg-transparent font-bold text-stop underline decoration-wavy"
            >{{ understood.word }}</mark
          ><span>{{ line.slice(understood.from + understood.word.length) }}</span>
          <span class="block text-sm"
            ><strong class="text-stop">Cannot read “{{ understood.word }}”:</strong> {{ understood.why }}</span
          >
        </template>
        <template v-else-if="understood.kind !== 'empty'">{{ understood.says }}</template>
      </p>
      <ul v-if="offers.length" role="listbox" aria-label="Completions" class="mt-2 flex flex-wrap gap-2">
        <li
          v-for="(o, i) in offers"
          :id="`strip-offer-${i}`"
          :key="o"
          role="option"
          :aria-selected="i === chosen"
          class="flex min-h-[40px] cursor-pointer items-center rounded-[3px] border px-3 font-semibold"
          :class="i === chosen ? 'border-ink bg-ink text-white' : 'border-ink2 bg-white'"
          @click="complete(o)"
        >
          {{ o }}
        </li>
      </ul>
      <template v-for="q in problem?.questions ?? []" :key="q.code">
        <ul v-if="q.choices" class="mt-2 grid gap-1" aria-label="What it may mean">
          <li v-for="c in q.choices" :key="c.code">
            <button type="button" class="button w-full !justify-start text-left" @click="choose(q.code, c)">
              {{ c.label }}
            </button>
          </li>
        </ul>
      </template>
      <p v-if="problem?.questions" class="mt-2 flex gap-2">
        <button v-if="!withChoices" type="button" class="button first" @click="enter()">Confirm and save</button
        ><button type="button" class="button" @click="clear">Leave it</button>
      </p>
      <p v-else class="mt-2 text-xs text-ink2">Tab completes · Enter saves · Esc clears</p>
    </div>
  </div>
</template>
