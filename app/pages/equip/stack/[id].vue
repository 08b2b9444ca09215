<script setup lang="ts">
/** One printer's stack: drawn, its parts with limit and basis, what was changed, and its file. */
import type { StoredPart } from '#shared/answers/printers'
import { computed, ref, shallowRef, watch } from 'vue'
import { HEAD_ROLES, stackOf } from '#core/limits'
import StackSection from '~/components/equip/StackSection.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import EquipTabs from '~/components/equip/EquipTabs.vue'
import { editOf, KIND_GROUPS, PLACE_WORDS } from '~/components/equip/part-fields'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import { useEquip } from '~/composables/equip'
import { saveFile } from '~/lib/files'
import { later } from '~/lib/later'
import { day, when } from '#shared/time'
import { useShop } from '~/state/shop'

const PartChangeSheet = later(() => import('~/components/equip/PartChangeSheet.vue'))
const HotendLogSheet = later(() => import('~/components/equip/HotendLogSheet.vue'))

const route = useRoute()
const shop = useShop()
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
const opened = computed(() => (editing.value ? editOf(editing.value) : null))

/** Which hotend sits on each head. */
const hotends = computed(() => {
  const p = printer.value
  return (shop.data?.printers.find(x => x.id === p?.id)?.heads ?? []).map(h => ({
    printerId: p!.id,
    headId: h.id,
    name: h.name,
    place: `${p!.name}${p!.heads.length > 1 ? ` · ${h.name}` : ''}`,
    tag: h.hotend,
  }))
})
const logging = shallowRef<(typeof hotends.value)[number] | null>(null)

const changing = shallowRef<{ off: StoredPart | null; add: boolean } | null>(null)

function exportJson(): void {
  const p = printer.value!
  const stack = {
    name: p.name,
    kind: p.kind,
    note: p.note,
    restrictions: shop.data?.printers.find(x => x.id === p.id)?.restrictions ?? [],
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
/** What is taken for the air in it, and on what that rests. */
const airWords = computed(() => {
  const head = printer.value?.heads[0]
  const map = printer.value && head ? stackOf(printer.value, head.id).air.map : null
  if (!map) return ''
  const heated = printer.value!.parts.some(p => p.role === 'chamber heater')
  const at = (place: 'low' | 'high') => {
    const a = heated ? map.heater[place] : map.bed[place]
    const value = heated ? `${Number(a.value.toFixed(1))} °C over the heater’s setpoint` : a.value.toFixed(2)
    return `${PLACE_WORDS[place]} ${value} (${a.from})`
  }
  return `air ${at('low')}, ${at('high')}${heated ? '' : ', of the way from room to bed'}`
})
const details = (p: StoredPart) =>
  [
    p.details.reachC === undefined ? '' : `reaches ${p.details.reachC} °C`,
    p.details.bendMm === undefined ? '' : `bend ${p.details.bendMm} mm`,
    p.details.surface ?? '',
    p.details.level ?? '',
    p.details.hardened === true ? 'hardened' : '',
    p.details.hardened === false ? 'not hardened' : '',
    p.details.bits === undefined ? '' : `${p.details.bits} bit`,
    p.role === 'enclosure' ? airWords.value : '',
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
          <button type="button" class="button first no-print" @click="changing = { off: null, add: true }">
            Fit another part
          </button>
        </div>
        <div v-for="g in groups" :key="g.title" class="mb-3">
          <h3 class="label mb-1">{{ g.title }}</h3>
          <p v-for="h in g.title === 'Hotend' ? hotends : []" :key="h.headId" class="no-print mb-1 text-sm">
            <span v-if="hotends.length > 1">{{ h.name }}: </span><b>{{ h.tag ?? 'no hotend' }}</b>
            {{ h.tag ? 'is on it, with the parts below from heater to sock.' : 'is on it.' }}
            <NuxtLink :to="`/change/hotend?head=${h.headId}`" class="act">Change it, step by step</NuxtLink>
            <button type="button" class="button plain" @click="logging = h">
              It is done already<span class="sr-only">: hotend of {{ h.place }}</span>
            </button>
          </p>
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
                    ><button type="button" class="button plain" @click="changing = { off: p, add: true }">
                      Replace<span class="sr-only"> {{ p.name }}</span></button
                    ><button type="button" class="button plain" @click="changing = { off: p, add: false }">
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
      <PartChangeSheet
        :change="changing"
        :printer="printer"
        :head-id="headId"
        :shelf="data?.shelf ?? []"
        @close="changing = null"
      />
      <HotendLogSheet :on="logging" :shelf="data?.hotends ?? []" @close="logging = null" />
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
