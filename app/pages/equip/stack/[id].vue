<script setup lang="ts">
/* eslint-disable max-lines -- one screen: parts, changes and edits of one stack */
/** One printer's stack: drawn, its parts with limit and basis, what was changed, and its file. */
import type { StoredPart } from '#shared/answers/printers'
import { computed, ref, shallowRef, watch } from 'vue'
import { cautionsFor } from '#core/cautions'
import { HEAD_ROLES, isKind, kindOf, type Role } from '#core/limits'
import StackSection from '~/components/equip/StackSection.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import EquipTabs from '~/components/equip/EquipTabs.vue'
import { KIND_GROUPS, partFieldsOf, PLACE_WORDS } from '~/components/equip/part-fields'
import type { OpenRecord } from '~/components/stores/form-field'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import { useEntryForm } from '~/composables/entry-form'
import { useEquip } from '~/composables/equip'
import { saveFile } from '~/lib/files'
import { day, when } from '#shared/time'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const route = useRoute()
const shop = useShop()
const ui = useUi()
const { data, failure } = useEquip()
const printer = computed(() => data.value?.printers.find(p => p.id === Number(route.params.id)) ?? null)
useHead({ title: () => `${printer.value?.name ?? 'Stack'} · Equip · Iron Nozzle` })
const headId = ref<number | null>(null)
watch(
  printer,
  p => {
    if (p && !p.heads.some(h => h.id === headId.value)) headId.value = p.heads[0]?.id ?? null
  },
  { immediate: true },
)

const GROUPS = [
  ['Hotend', HEAD_ROLES as readonly string[]],
  ['Bed', KIND_GROUPS.map(g => g.role).filter(r => r.includes('bed') || ['magnets', 'glue line', 'sheet'].includes(r))],
  ['Chamber and around', null],
] as const
const groups = computed(() => {
  const p = printer.value
  if (!p) return []
  const left = new Set(p.parts)
  return GROUPS.map(([title, roles]) => {
    const parts = [...left].filter(x => roles === null || (roles as readonly string[]).includes(x.role))
    for (const x of parts) left.delete(x)
    const order = (x: StoredPart) => KIND_GROUPS.findIndex(g => g.role === x.role)
    return { title, parts: parts.sort((a, b) => (a.headId ?? 0) - (b.headId ?? 0) || order(a) - order(b)) }
  })
})
const headName = (id: number | null) =>
  id !== null && printer.value && printer.value.heads.length > 1
    ? (printer.value.heads.find(h => h.id === id)?.name ?? '')
    : ''
const changes = computed(() => data.value?.changes.filter(c => c.printerId === printer.value?.id) ?? [])
const striking = ref<{ target: 'stack change'; id: number; says: string } | null>(null)

const editing = shallowRef<StoredPart | null>(null)
const plainDetails = (p: StoredPart) => ({
  name: p.name,
  place: p.place,
  limitC: p.limitC,
  shortC: p.shortC,
  basis: p.basis,
  note: p.note,
  details: { ...p.details },
})
/** Fields left empty are no details, rather than empty ones. */
const withoutEmpty = (v: Record<string, unknown>) => ({
  ...v,
  details: Object.fromEntries(Object.entries(v.details as object).filter(([, x]) => x !== null && x !== '')),
})

const opened = computed<OpenRecord | null>(() => {
  const p = editing.value
  if (!p) return null
  return {
    title: `Edit ${p.name}`,
    fields: partFieldsOf(p.role as Role),
    start: plainDetails(p),
    says: v => String(v.name),
    body: withoutEmpty,
    edit: { kind: 'parts', id: p.id, version: p.version },
  }
})

// fit or replace a part, or take one off: one change with its date
const form = useEntryForm('/api/changes')
const changing = shallowRef<{ off: StoredPart | null; add: boolean } | null>(null)
const kind = ref('')
const onHead = ref<number | null>(null)
const text = ref('')
const at = ref(new Date().toISOString())
function start(off: StoredPart | null, add: boolean): void {
  form.reset()
  kind.value = ''
  onHead.value = off?.headId ?? headId.value
  text.value = off ? `${off.name} ${add ? 'replaced' : 'taken off'}` : ''
  at.value = new Date().toISOString()
  changing.value = { off, add }
}
const needsHead = computed(
  () => isKind(kind.value) && (HEAD_ROLES as readonly string[]).includes(kindOf(kind.value).role),
)
const spare = computed(() => data.value?.shelf.find(s => `shelf ${s.id}` === kind.value) ?? null)
const roleNow = computed<Role | null>(() => {
  if (spare.value) return spare.value.role as Role
  return isKind(kind.value) ? kindOf(kind.value).role : null
})
const offered = computed(() => {
  const role = changing.value?.off?.role
  return KIND_GROUPS.filter(g => role === undefined || g.role === role)
})
const offeredSpares = computed(() =>
  (data.value?.shelf ?? []).filter(s => changing.value?.off === null || s.role === changing.value?.off?.role),
)
async function saveChange(): Promise<void> {
  const c = changing.value!
  const head = roleNow.value && (HEAD_ROLES as readonly string[]).includes(roleNow.value) ? onHead.value : null
  const done = await form.send(
    {
      printerId: printer.value!.id,
      text: text.value || `${spare.value?.name ?? kind.value} fitted`,
      occurredAt: at.value,
      remove: c.off ? [c.off.id] : [],
      fit: c.add && spare.value ? [{ partId: spare.value.id, headId: head }] : [],
      add: c.add && !spare.value ? [{ kind: kind.value, headId: head }] : [],
    },
    `Change on ${printer.value!.name}`,
  )
  if (done === null) return
  if (done !== 'queued') ui.say(`${done.printer}: ${text.value || kind.value}. What came off is on the shelf.`)
  changing.value = null
}
const errors = computed(() =>
  Object.entries(form.errors.value)
    .filter(([k]) => k !== 'text' && k !== 'occurredAt')
    .map(([k, v]) => (k.startsWith('add') ? 'Choose the part' : v)),
)
const cautions = computed(() =>
  cautionsFor({ action: 'fit a part', roles: [changing.value?.off?.role ?? '', roleNow.value ?? ''] }).concat(
    (isKind(kind.value) && kindOf(kind.value).who === 'electrician') || changing.value?.off?.details.mains
      ? cautionsFor({ action: 'wire' })
      : [],
  ),
)

function exportJson(): void {
  const p = printer.value!
  const stack = {
    name: p.name,
    kind: p.kind,
    note: p.note,
    heads: p.heads.map(h => ({ name: h.name })),
    parts: p.parts.map(x => ({
      kind: x.kind,
      head: x.headId === null ? null : p.heads.findIndex(h => h.id === x.headId),
      name: x.name,
      place: x.place,
      limitC: x.limitC,
      shortC: x.shortC,
      basis: x.basis,
      note: x.note,
      details: x.details,
    })),
  }
  saveFile(
    `${p.name.replaceAll(/\W+/g, '-').toLowerCase()}-stack.json`,
    'application/json',
    JSON.stringify(stack, null, 2),
  )
}
const details = (p: StoredPart) =>
  [
    p.details.reachC === undefined ? '' : `reaches ${p.details.reachC} °C`,
    p.details.bendMm === undefined ? '' : `bend ${p.details.bendMm} mm`,
    p.details.surface ?? '',
    p.details.level ?? '',
    p.details.hardened === true ? 'hardened' : '',
    p.details.hardened === false ? 'not hardened' : '',
    p.details.bits === undefined ? '' : `${p.details.bits} bit`,
    p.details.thetaHigh === undefined
      ? ''
      : `air near the top ${p.details.thetaHigh}, near the bed ${p.details.thetaLow ?? 'not known'} of the way ` +
        `from room to bed`,
    p.details.offsetHigh === undefined
      ? ''
      : `heated: ${p.details.offsetHigh} °C near the top, ${p.details.offsetLow ?? 'not known'} °C near the ` +
        `bed, against the setpoint`,
  ]
    .filter(Boolean)
    .join('; ')
</script>

<template>
  <div>
    <EquipTabs :failure="failure" />
    <p v-if="data && !printer" class="font-semibold">
      There is no such printer. <NuxtLink class="underline" to="/equip/stack">All stacks</NuxtLink>
    </p>
    <template v-if="data && printer && headId !== null">
      <div class="mb-3 flex flex-wrap items-end gap-3">
        <div class="mr-auto">
          <h2 class="text-[20px]!">{{ printer.name }}</h2>
          <p class="text-sm text-ink2">{{ printer.kind }}{{ printer.note ? `. ${printer.note}` : '' }}</p>
        </div>
        <FieldSelect
          v-if="printer.heads.length > 1"
          id="stack-head"
          v-model="headId"
          label="Head drawn"
          class="no-print"
          :options="printer.heads.map(h => ({ value: h.id as number | null, text: h.name }))"
        />
        <NuxtLink class="button no-print" :to="{ path: '/equip', query: { printer: printer.id } }"
          >Ask for a job</NuxtLink
        >
        <button type="button" class="button no-print" @click="exportJson">Save as a file</button>
      </div>
      <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] xl:grid-cols-[minmax(0,620px)_minmax(0,1fr)]">
        <StackSection :printer="printer" :head-id="headId" :rules="data.rules" />
        <section aria-labelledby="history">
          <h2 id="history" class="mb-1">What was changed</h2>
          <ul class="sheet">
            <li
              v-for="c in changes"
              :key="c.id"
              class="border-b border-faint px-3 py-2 text-sm last:border-0"
              :class="c.struck ? 'text-ink2' : ''"
            >
              <p :class="c.struck ? 'line-through' : 'font-semibold'">{{ c.text }}</p>
              <p class="text-xs text-ink2">
                {{ when(c.at, shop.zone) }}, {{ c.person
                }}<span v-if="c.struck">. Struck out by {{ c.struck.person }}: {{ c.struck.reason }}</span>
              </p>
              <button
                v-if="!c.struck && c.kind === 'changed'"
                type="button"
                class="button plain"
                @click="striking = { target: 'stack change', id: c.id, says: `“${c.text.slice(0, 60)}”` }"
              >
                Strike out<span class="sr-only"> {{ c.text }}</span>
              </button>
            </li>
          </ul>
        </section>
      </div>
      <section class="mt-4" aria-labelledby="parts">
        <div class="mb-2 flex flex-wrap items-center gap-3">
          <h2 id="parts">Parts</h2>
          <button type="button" class="button first no-print" @click="start(null, true)">Fit another part</button>
        </div>
        <div v-for="g in groups" :key="g.title" class="mb-3">
          <h3 class="label mb-1">{{ g.title }}</h3>
          <div
            class="relative overflow-x-auto"
            tabindex="0"
            role="group"
            :aria-label="`${g.title} parts, pans sideways`"
          >
            <table class="record sheet min-w-[720px]">
              <thead>
                <tr>
                  <th>role</th>
                  <th>part</th>
                  <th class="num">limit as rated</th>
                  <th>where</th>
                  <th>basis</th>
                  <th class="no-print"><span class="sr-only">edit</span></th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="p in g.parts" :key="p.id">
                  <td>
                    {{ p.role
                    }}<span v-if="headName(p.headId)" class="block text-xs text-ink2">{{ headName(p.headId) }}</span>
                  </td>
                  <td>
                    <b>{{ p.name }}</b><span v-if="details(p)" class="block text-xs text-ink2">{{ details(p) }}</span>
                  </td>
                  <td class="num">
                    {{ p.limitC === null ? '' : `${p.limitC} °C`
                    }}<span v-if="p.shortC !== null" class="block text-xs text-ink2">short {{ p.shortC }} °C</span>
                  </td>
                  <td>{{ g.title === 'Chamber and around' && p.limitC !== null ? PLACE_WORDS[p.place] : '' }}</td>
                  <td>
                    {{ p.basis }}{{ p.note ? `, ${p.note}` : ''
                    }}<span class="block text-xs text-ink2">{{ p.enteredBy }}, {{ day(p.enteredAt, shop.zone) }}</span>
                  </td>
                  <td class="num no-print">
                    <button type="button" class="button plain" @click="editing = p">
                      Edit<span class="sr-only"> {{ p.name }}</span></button
                    ><button type="button" class="button plain" @click="start(p, true)">
                      Replace<span class="sr-only"> {{ p.name }}</span></button
                    ><button type="button" class="button plain" @click="start(p, false)">
                      Take off<span class="sr-only"> {{ p.name }}</span>
                    </button>
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
        </div>
      </section>
      <RecordSheet :open="opened" wide @close="editing = null" />
      <ModalSheet
        :open="changing !== null"
        :title="
          changing?.off
            ? `${changing.add ? 'Replace' : 'Take off'} ${changing.off.name}`
            : `Fit a part to ${printer.name}`
        "
        @close="changing = null"
      >
        <form v-if="changing" class="grid gap-3" @submit.prevent="saveChange()">
          <template v-if="changing.add">
            <div class="field">
              <label for="change-kind">{{ changing.off ? 'By' : 'Part' }}</label><select
                id="change-kind"
                v-model="kind"
                class="input"
                :aria-invalid="errors.length > 0"
              >
                <option value="">Choose a part</option>
                <optgroup v-if="offeredSpares.length" label="on the shelf">
                  <option v-for="s in offeredSpares" :key="s.id" :value="`shelf ${s.id}`">
                    {{ s.name }}{{ s.note ? `, ${s.note}` : '' }}
                  </option>
                </optgroup>
                <optgroup v-for="g in offered" :key="g.role" :label="g.role">
                  <option v-for="k in g.kinds" :key="k.key">{{ k.key }}</option>
                </optgroup>
              </select>
              <span v-if="isKind(kind)" class="text-xs text-ink2"
                >{{ kindOf(kind).limitC === null ? '' : `start limit ${kindOf(kind).limitC} °C; `
                }}{{ kindOf(kind).note }}. {{ kindOf(kind).after ?? '' }} Enter the data sheet's value afterwards.</span
              >
            </div>
            <FieldSelect
              v-if="needsHead && printer.heads.length > 1"
              id="change-head"
              v-model="onHead"
              label="Head"
              :options="printer.heads.map(h => ({ value: h.id as number | null, text: h.name }))"
            />
          </template>
          <FieldText
            id="change-text"
            v-model="text"
            label="What was done"
            :placeholder="kind ? `${kind} fitted` : ''"
            :error="form.errors.value.text"
          />
          <FieldWhen id="change-when" v-model="at" label="When" :error="form.errors.value.occurredAt" />
          <p v-for="e in errors" :key="e" class="font-semibold text-stop" role="alert">{{ e }}</p>
          <CautionList :cautions="cautions" title="While you do it" />
          <div class="flex gap-2">
            <button type="submit" class="button first" :disabled="form.busy.value">Save</button
            ><button type="button" class="button" @click="changing = null">Cancel</button>
          </div>
        </form>
      </ModalSheet>
      <StrikeSheet :target="striking" @close="striking = null" />
    </template>
    <div
      v-else-if="!data && !failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the stack"
    />
  </div>
</template>
