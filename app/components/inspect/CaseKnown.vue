<script setup lang="ts">
/** All that is known of a case, with who says so; a person's word stands over the records'. */
import { computed, ref } from 'vue'
import { NOT_THERE, SIGNS, THERE, type Sign } from '#core/diagnosis'
import { capital } from '#core/words'
import type { CasePage } from '#shared/answers/diagnosis'
import { when } from '#shared/time'
import { piecesOf, type Piece } from '~/lib/case'
import { useShop } from '~/state/shop'
import SignState from '~/components/inspect/SignState.vue'
import { STATE_WORDS, testWords } from '~/words/case'

const props = defineProps<{ on: CasePage; canChange: boolean; busy: boolean }>()
const emit = defineEmits<{ found: [sign: Sign, state: string]; strike: [id: number, says: string] }>()
const shop = useShop()
const pieces = computed(() => piecesOf(props.on))
const tests = computed(() => pieces.value.filter(x => x.kind === 'test'))
const signs = computed(() => pieces.value.filter(x => x.kind === 'sign'))
/** What somebody said stands first; what the records alone tell stands in their words, once for each. */
const said = computed(() => signs.value.filter(x => x.found !== null))
const told = computed(() => {
  const by = new Map<string, Piece[]>()
  for (const x of signs.value) if (x.found === null) by.set(x.records!, [...(by.get(x.records!) ?? []), x])
  return [...by].map(([says, list]) => ({ says, list }))
})
/** The line of the records that is being put right. */
const notSo = ref<string | null>(null)
const struck = computed(() => props.on.findings.filter(f => f.struck !== null))
const by = (x: Piece) => {
  if (x.found === null) return ''
  const over = x.records === null ? '' : ', over the records'
  return `${x.found.person}, ${when(x.found.at, shop.zone)}${over}${x.found.note ? `: ${x.found.note}` : ''}`
}
/** Signs that can still be said: nobody asked, and no record tells. */
const adding = ref<Sign | null>(null)
const unasked = computed(() => (Object.keys(SIGNS) as Sign[]).filter(s => !pieces.value.some(x => x.key === s)))
function add(e: Event): void {
  const sign = (e.target as HTMLSelectElement).value as Sign | ''
  adding.value = sign === '' ? null : sign
}
function say(state: string): void {
  emit('found', adding.value!, state)
  adding.value = null
}
function pick(sign: string, state: string): void {
  notSo.value = null
  emit('found', sign as Sign, state)
}
</script>

<template>
  <section class="grid gap-3" aria-labelledby="case-known">
    <h3 id="case-known" class="font-[650]">What is known</h3>
    <div v-if="tests.length > 0">
      <p class="label">Tests</p>
      <ul>
        <li v-for="x in tests" :key="x.key" class="flex flex-wrap items-center gap-x-3 border-b border-faint py-1">
          <span class="min-w-0 flex-1"
            >{{ testWords(x.key) }}: <b>{{ x.state }}</b><span class="block text-sm text-ink2">{{
              by(x) || x.records
            }}</span></span
          ><button
            v-if="canChange && x.found !== null"
            type="button"
            class="button plain no-print"
            @click="emit('strike', x.found.id, `What the test found (${x.key})`)"
          >
            Strike out<span class="sr-only"> {{ x.key }}</span>
          </button>
        </li>
      </ul>
    </div>
    <div v-if="said.length > 0">
      <p class="label">Said by people</p>
      <ul>
        <li
          v-for="x in said"
          :key="x.key"
          class="grid gap-x-3 border-b border-faint py-1 sm:grid-cols-[minmax(0,1fr)_230px]"
        >
          <span class="self-center"
            >{{ capital(x.key) }}<span class="block text-sm text-ink2">{{ by(x) }}</span
            ><span v-if="x.records" class="block text-sm text-ink2">The records: {{ x.records }}</span></span
          >
          <SignState v-if="canChange" :sign="x.key" :state="x.state" :busy="busy" @found="pick" />
          <b v-else class="self-center">{{ STATE_WORDS[x.state] }}</b>
        </li>
      </ul>
    </div>
    <div v-if="told.length > 0">
      <p class="label">Told by the records</p>
      <ul>
        <li v-for="t in told" :key="t.says" class="border-b border-faint py-1">
          <div class="flex items-center gap-3">
            <span class="min-w-0 flex-1">{{ t.says }}</span><button
              v-if="canChange"
              type="button"
              class="button plain no-print"
              :aria-expanded="notSo === t.says"
              @click="notSo = notSo === t.says ? null : t.says"
            >
              Not so?<span class="sr-only"> {{ t.says }}</span>
            </button>
          </div>
          <div
            v-for="x in notSo === t.says ? t.list : []"
            :key="x.key"
            class="no-print grid items-center gap-x-3 py-1 sm:grid-cols-[minmax(0,1fr)_230px]"
          >
            <span class="text-sm">{{ capital(x.key) }}</span>
            <SignState :sign="x.key" :state="x.state" :busy="busy" @found="pick" />
          </div>
        </li>
      </ul>
    </div>
    <div v-if="canChange && unasked.length > 0" class="no-print flex flex-wrap items-end gap-2">
      <div class="field min-w-[240px] flex-1 sm:max-w-[420px]">
        <label for="case-add">Something else that was looked for</label
        ><select id="case-add" class="input" @change="add">
          <option value="">choose a sign</option>
          <option v-for="s in unasked" :key="s" :value="s" :selected="s === adding">{{ capital(s) }}</option>
        </select>
      </div>
      <template v-if="adding">
        <button type="button" class="button" :disabled="busy" @click="say(THERE)">There</button
        ><button type="button" class="button" :disabled="busy" @click="say(NOT_THERE)">Not there</button>
      </template>
    </div>
    <ul v-if="struck.length > 0" class="text-sm text-ink2">
      <li v-for="f in struck" :key="f.id">
        <s>{{ f.kind === 'test' ? testWords(f.key) : capital(f.key) }}: {{ f.state }}</s> struck out by
        {{ f.struck!.person }}: {{ f.struck!.reason }}
      </li>
    </ul>
  </section>
</template>
