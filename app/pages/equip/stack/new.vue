<script setup lang="ts">
/* eslint-disable max-lines -- one screen: a stack from its start to its save */
/** A new printer in minutes: the nearest starting stack, or a file, adapted part by part, drawn as it grows. */
import { computed, reactive, ref } from 'vue'
import {
  describedPrinter,
  HEAD_ROLES,
  isKind,
  kindOf,
  kindsOf,
  stackProblems,
  START_RULES,
  STARTING_STACKS,
  type DescribedPart,
} from '#core/limits'
import StackSection from '~/components/equip/StackSection.vue'
import EquipTabs from '~/components/equip/EquipTabs.vue'
import { BEARS_NO_LIMIT, KIND_GROUPS } from '~/components/equip/part-fields'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntryForm } from '~/composables/entry-form'
import { useEquip } from '~/composables/equip'
import { checks } from '~/lib/checks'
import { typedNumber } from '~/words/numbers'
import { RESTRICTIONS } from '~/components/stores/fields'
import { plain } from '~/lib/plain'
import { useUi } from '~/state/ui'

useHead({ title: 'Add a printer · Equip · Iron Nozzle' })
const ui = useUi()
const { data } = useEquip()
const form = useEntryForm('/api/printers')
const from = ref<string | null>(null)
const v = reactive({
  name: '',
  kind: '',
  note: '',
  restrictions: '',
  toCommission: false,
  heads: [{ name: 'head' }],
  parts: [] as (DescribedPart & { limitText: string })[],
})
const fileSays = ref('')
const newKind = ref('')
const newHead = ref(0)

/** What was typed, else what its kind starts with. */
function limitAsDescribed(p: DescribedPart): number | null {
  if (p.limitC !== undefined) return p.limitC
  return isKind(p.kind) ? kindOf(p.kind).limitC : null
}
const typed = (p: DescribedPart) => ({
  ...(JSON.parse(JSON.stringify(p)) as DescribedPart),
  limitText: String(limitAsDescribed(p) ?? ''),
})
function take(key: string): void {
  const s = STARTING_STACKS.find(x => x.key === key)!
  from.value = key
  form.reset()
  Object.assign(v, { kind: s.kind, heads: s.heads.map(h => ({ ...h })), parts: s.parts.map(typed) })
}
async function read(e: Event): Promise<void> {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  fileSays.value = ''
  let raw: unknown
  try {
    raw = JSON.parse(await file.text())
  } catch {
    fileSays.value = `${file.name} is not a stack file: it is not JSON.`
    return
  }
  const r = raw as Partial<Record<'name' | 'kind' | 'note', string>> & {
    restrictions?: string[]
    heads?: { name: string }[]
    parts?: DescribedPart[]
  }
  if (!Array.isArray(r.parts) || !Array.isArray(r.heads)) {
    fileSays.value = `${file.name} is not a stack file: it has no heads or no parts.`
    return
  }
  const wrong = (await checks()).entry('/api/printers', raw)
  from.value = file.name
  Object.assign(v, {
    name: r.name ?? '',
    kind: r.kind ?? '',
    note: r.note ?? '',
    restrictions: Array.isArray(r.restrictions) ? RESTRICTIONS.line(r.restrictions) : '',
    heads: r.heads,
    parts: r.parts.map(typed),
  })
  if (wrong.length > 0)
    fileSays.value =
      `${file.name} was read, but ` +
      `${wrong.length === 1 ? 'one thing is' : `${wrong.length} things are`} ` +
      `wrong with it; nothing is stored. ${wrong
        .slice(0, 3)
        .map(w => `${w.field}: ${w.message}`)
        .join('. ')}.`
}
function secondHead(): void {
  const at = v.heads.length
  v.heads.push({ name: `head ${at + 1}` })
  v.parts.push(...v.parts.filter(p => p.head === 0).map(p => ({ ...typed(p), head: at })))
}
function dropHead(i: number): void {
  v.heads.splice(i, 1)
  v.parts = v.parts.filter(p => p.head !== i).map(p => (p.head !== null && p.head > i ? { ...p, head: p.head - 1 } : p))
}
function exchange(p: DescribedPart & { limitText: string }, kind: string): void {
  const k = kindOf(kind)
  Object.assign(p, {
    kind,
    limitC: undefined,
    details: undefined,
    name: undefined,
    basis: undefined,
    note: undefined,
    place: undefined,
    limitText: String(k.limitC ?? ''),
  })
}
function add(): void {
  if (!isKind(newKind.value)) return
  v.parts.push(
    typed({
      kind: newKind.value,
      head: (HEAD_ROLES as readonly string[]).includes(kindOf(newKind.value).role) ? newHead.value : null,
    }),
  )
  newKind.value = ''
}
/** A limit other than the kind's own is the person's value, and says so by its basis. */
const body = computed(() => ({
  name: v.name,
  kind: v.kind,
  note: v.note,
  restrictions: RESTRICTIONS.listOf(v.restrictions),
  toCommission: v.toCommission,
  heads: v.heads,
  parts: v.parts.map(({ limitText, ...p }) => {
    const start = isKind(p.kind) ? kindOf(p.kind).limitC : null
    const limitC = typedNumber(limitText)
    return limitC === start && p.limitC === undefined ? p : { ...p, limitC }
  }),
}))
const preview = computed(() => {
  try {
    return describedPrinter(v.name || 'new printer', {
      ...body.value,
      parts: body.value.parts
        .filter(p => isKind(p.kind))
        .map(p => ({ ...p, limitC: Number.isNaN(p.limitC) ? null : p.limitC })) as DescribedPart[],
    })
  } catch {
    return null
  }
})
const problems = computed(() =>
  Object.fromEntries(
    stackProblems(
      { heads: v.heads, parts: body.value.parts as DescribedPart[] },
      data.value?.rules.roomC ?? START_RULES.roomC,
    ).map(p => [p.field, p.message]),
  ),
)
const restrictionsError = computed(
  () => Object.entries(form.errors.value).find(([field]) => field.startsWith('restrictions'))?.[1],
)
const errorAt = (field: string) => form.errors.value[field] ?? problems.value[field]
const groups = computed(() => {
  const head = v.heads.map((h, i) => ({
    title: v.heads.length > 1 ? `Hotend, ${h.name}` : 'Hotend',
    head: i as number | null,
    error: errorAt(`heads.${i}`),
    parts: v.parts.map((p, k) => ({ p, k })).filter(x => x.p.head === i),
  }))
  return [
    ...head,
    {
      title: 'Bed, chamber and around',
      head: null,
      error: undefined,
      parts: v.parts.map((p, k) => ({ p, k })).filter(x => x.p.head === null),
    },
  ]
})
const alike = (kind: string) => (isKind(kind) ? kindsOf(kindOf(kind).role) : [])
async function save(): Promise<void> {
  const done = await form.send(plain(body.value), `Printer ${v.name}`)
  if (done === null) return
  if (done !== 'queued') {
    ui.say(`Printer ${v.name}: saved`)
    await navigateTo(`/equip/stack/${done.id}`)
  } else await navigateTo('/equip/stack')
}
const bearsLimit = (kind: string) =>
  isKind(kind) &&
  !BEARS_NO_LIMIT.includes(kindOf(kind).role) &&
  kind !== 'no feed tube' &&
  kind !== 'no magnets, sheet clipped'
</script>

<template>
  <div>
    <EquipTabs />
    <h2 class="mb-1 text-[20px]!">Add a printer</h2>
    <p class="mb-3 text-[15px] font-[650]">
      {{
        from === null
          ? 'Choose the starting stack that is nearest, then change what differs.'
          : 'Change what differs: another part of the same role, or its limit from the data sheet.'
      }}
    </p>
    <div class="mb-4 grid gap-3 md:grid-cols-3">
      <button
        v-for="s in STARTING_STACKS"
        :key="s.key"
        type="button"
        class="sheet px-3 py-2 text-left hover:bg-white"
        :class="from === s.key ? '!bg-white border-l-[6px]' : ''"
        :aria-pressed="from === s.key"
        @click="take(s.key)"
      >
        <b class="block">{{ s.key[0]!.toUpperCase() + s.key.slice(1) }}</b><span class="text-sm">{{ s.words }}</span>
      </button>
    </div>
    <div class="mb-4 flex flex-wrap items-center gap-3">
      <label class="button cursor-pointer focus-within:outline-3 focus-within:outline-blue"
        >Read a stack file<input type="file" accept=".json,application/json" class="sr-only" @change="read" /></label
      ><span class="text-sm text-ink2">as saved from another printer</span>
    </div>
    <p v-if="fileSays" class="mb-3 font-semibold text-stop" role="alert">{{ fileSays }}</p>
    <form
      v-if="from !== null"
      class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] xl:grid-cols-[minmax(0,1fr)_minmax(0,600px)]"
      aria-label="Add a printer"
      @submit.prevent="save()"
    >
      <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
        <div class="grid gap-3 sm:grid-cols-2">
          <FieldText id="stack-name" v-model="v.name" label="Name" :error="form.errors.value.name" /><FieldText
            id="stack-kind"
            v-model="v.kind"
            label="Kind"
            :error="form.errors.value.kind"
          />
        </div>
        <FieldText id="stack-note" v-model="v.note" label="Note" />
        <FieldText
          id="stack-restrictions"
          v-model="v.restrictions"
          :label="RESTRICTIONS.label"
          :hint="RESTRICTIONS.hint"
          :error="restrictionsError"
        />
        <label class="check"
          ><input v-model="v.toCommission" type="checkbox" /> New or rebuilt: commission it before it runs</label
        >
        <section v-for="g in groups" :key="g.title" class="sheet" :aria-label="g.title">
          <div class="flex flex-wrap items-end gap-3 border-b border-rule px-3 py-2">
            <h3 class="font-bold">{{ g.title }}</h3>
            <FieldText
              v-if="g.head !== null"
              :id="`head-${g.head}`"
              v-model="v.heads[g.head]!.name"
              label="Name of the head"
              :error="form.errors.value[`heads.${g.head}.name`]"
            /><button v-if="g.head !== null && g.head > 0" type="button" class="button plain" @click="dropHead(g.head)">
              It has no {{ v.heads[g.head]!.name || 'such head' }}
            </button>
          </div>
          <p v-if="g.error" class="px-3 py-2 font-semibold text-stop" role="alert">{{ g.error }}</p>
          <ul>
            <li
              v-for="{ p, k } in g.parts"
              :key="k"
              class="grid grid-cols-[minmax(0,1fr)_110px_auto] items-end gap-2 border-b border-faint px-3 py-1 last:border-0"
            >
              <div class="field">
                <label :for="`part-${k}`"
                  >{{ isKind(p.kind) ? kindOf(p.kind).role : 'unknown' }}{{ p.name ? `: ${p.name}` : '' }}</label
                >
                <select
                  :id="`part-${k}`"
                  class="input"
                  :aria-invalid="!!errorAt(`parts.${k}.kind`)"
                  :value="p.kind"
                  @change="exchange(p, ($event.target as HTMLSelectElement).value)"
                >
                  <option v-if="!isKind(p.kind)" :value="p.kind">{{ p.kind }}</option>
                  <option
                    v-for="o in isKind(p.kind) ? alike(p.kind) : KIND_GROUPS.flatMap(x => x.kinds)"
                    :key="o.key"
                    :value="o.key"
                  >
                    {{ o.key }}
                  </option>
                </select>
                <span v-if="errorAt(`parts.${k}.kind`)" class="error">{{ errorAt(`parts.${k}.kind`) }}</span>
              </div>
              <div v-if="bearsLimit(p.kind)" class="field">
                <label :for="`limit-${k}`">Limit, °C</label
                ><input
                  :id="`limit-${k}`"
                  v-model="p.limitText"
                  class="input"
                  inputmode="decimal"
                  autocomplete="off"
                  placeholder="not known"
                  :aria-invalid="!!errorAt(`parts.${k}.limitC`)"
                />
              </div>
              <span v-else />
              <button type="button" class="button plain" @click="v.parts.splice(k, 1)">
                Without<span class="sr-only"> {{ p.kind }}</span>
              </button>
              <span v-if="errorAt(`parts.${k}.limitC`)" class="col-span-3 text-[13px] font-semibold text-stop">{{
                errorAt(`parts.${k}.limitC`)
              }}</span>
            </li>
          </ul>
        </section>
        <div class="flex flex-wrap items-end gap-2">
          <div class="field w-72">
            <label for="stack-add">Add a part</label
            ><select id="stack-add" v-model="newKind" class="input">
              <option value="">Choose a kind</option>
              <optgroup v-for="x in KIND_GROUPS" :key="x.role" :label="x.role">
                <option v-for="k in x.kinds" :key="k.key">{{ k.key }}</option>
              </optgroup>
            </select>
          </div>
          <div v-if="v.heads.length > 1" class="field w-40">
            <label for="stack-add-head">On head</label
            ><select id="stack-add-head" v-model="newHead" class="input">
              <option v-for="(h, i) in v.heads" :key="i" :value="i">{{ h.name }}</option>
            </select>
          </div>
          <button type="button" class="button" @click="add">Add it</button
          ><button type="button" class="button" @click="secondHead">It has another head</button>
        </div>
        <p v-if="form.problem.value && !form.problem.value.errors" class="font-semibold text-stop" role="alert">
          {{ form.problem.value.title }}
        </p>
        <div class="flex gap-2">
          <button type="submit" class="button first" :disabled="form.busy.value">Save</button
          ><NuxtLink class="button" to="/equip/stack">Cancel</NuxtLink>
        </div>
      </div>
      <StackSection
        v-if="preview"
        class="xl:sticky xl:top-2"
        :printer="preview"
        :head-id="0"
        :rules="data?.rules ?? START_RULES"
      />
    </form>
  </div>
</template>
