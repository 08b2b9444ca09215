<script setup lang="ts">
/* eslint-disable max-lines -- one screen: the seven shelves */
/** Stores: what the shop has. Add and edit each thing, fit and retire nozzles. */
import { FIRST_TAG, nextTags, startNozzle, tagsFrom } from '#core/intake'
import { counted } from '#core/words'
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/vue'
import { computed, ref, shallowRef, watch } from 'vue'
import type { EditableKind } from '#shared/entries/edits'
import { shareWords } from '#shared/share'
import {
  MATERIAL_FIELDS,
  nozzleFieldsOf,
  PERSON_EDIT_FIELDS,
  PERSON_FIELDS,
  printerRecord,
  RULES_FIELDS,
  SETTINGS_FIELDS,
  SPOOL_EVENT_FIELDS,
  SPOOL_ORDERS,
  spoolFieldsOf,
  TYPE_FIELDS,
  type FormField,
} from '~/components/stores/fields'
import EditButtons from '~/components/stores/EditButtons.vue'
import HotendShelf from '~/components/stores/HotendShelf.vue'
import NozzleRack from '~/components/stores/NozzleRack.vue'
import PrinterLimits from '~/components/stores/PrinterLimits.vue'
import type { OpenRecord } from '~/components/stores/form-field'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import ChoiceButtons from '~/components/ui/ChoiceButtons.vue'
import SortTable, { type SortColumn } from '~/components/ui/SortTable.vue'
import StoresTabs from '~/components/stores/StoresTabs.vue'
import SpoolShelf from '~/components/stores/SpoolShelf.vue'
import { useAnswer } from '~/composables/answer'
import { useInAddress } from '~/composables/in-address'
import { later } from '~/lib/later'
import { useShop, type ShopData } from '~/state/shop'
import { fillerWords } from '~/words/material'

const FitSheet = later(() => import('~/components/entry/FitSheet.vue'))

useHead({ title: 'Stores · Iron Nozzle' })
const shop = useShop()
const route = useRoute()
const s = computed(() => shop.data)

const open = shallowRef<OpenRecord | null>(null)
const fitHead = ref<number | null>(null)
/** What there is to choose from follows what is saved while the sheet is open. */
const CHOICES: Partial<Record<string, (d: ShopData) => FormField[]>> = {
  '/api/nozzles': nozzleFieldsOf,
  '/api/spools': spoolFieldsOf,
}
const shown = computed<OpenRecord | null>(() => {
  const o = open.value
  const fields = o && 'route' in o ? CHOICES[o.route] : undefined
  return o && fields && s.value ? { ...o, fields: fields(s.value) } : o
})

const { data: tags } = useAnswer('/api/known-tags')
/** Where the sequence of each begins in a shop that has none. */
const nextTag = (of: keyof typeof FIRST_TAG, saved: string[] = []) =>
  nextTags([...s.value![of].map(x => x.tag), ...(tags.value?.[of] ?? []), ...saved], FIRST_TAG[of], 1)[0]!
/** What the next one does not have of the one before. */
const OF_ONE = ['note', 'receipt', 'howMany']
/** The next of the same: all but its tag, its note and what was measured of it. */
function another(v: Record<string, unknown>): void {
  const o = open.value
  if (o === null || !('route' in o) || o.another === undefined) return
  const { start } = o
  const same = Object.fromEntries(Object.entries(v).filter(([k]) => !OF_ONE.includes(k)))
  const saved = tagsFrom(String(v.tag), Number(v.howMany ?? 1)) ?? []
  open.value = { ...o, start: { ...start, ...same, tag: nextTag(o.another, saved) } }
}
const alikeWords = (what: string, v: Record<string, unknown>) =>
  Number(v.howMany) > 1
    ? `${String(v.howMany)} ${what.toLowerCase()}s from ${String(v.tag)}`
    : `${what} ${String(v.tag)}`
const oneUnlessSaid = (v: Record<string, unknown>) => ({ ...v, howMany: v.howMany ?? 1 })
function add(kind: 'nozzle' | 'spool' | 'type'): void {
  const d = s.value!
  const forms: Record<typeof kind, () => OpenRecord> = {
    nozzle: () => ({
      title: 'Add a nozzle',
      fields: nozzleFieldsOf(d),
      route: '/api/nozzles',
      says: v => alikeWords('Nozzle', v),
      body: oneUnlessSaid,
      another: 'nozzles',
      start: {
        tag: nextTag('nozzles'),
        howMany: 1,
        typeId: null,
        wasUsed: false,
        receivedAt: new Date().toISOString(),
        receipt: { valueMm: null, uMm: null, goMm: null, noGoMm: null, tipMm: null },
        note: '',
      },
    }),
    spool: () => ({
      title: 'Add a spool',
      fields: spoolFieldsOf(d),
      route: '/api/spools',
      says: v => alikeWords('Spool', v),
      body: oneUnlessSaid,
      another: 'spools',
      start: {
        tag: nextTag('spools'),
        howMany: 1,
        materialId: null,
        diameterMm: 1.75,
        netG: 1000,
        tareG: null,
        hub: '',
        densityGCm3: null,
        fillerFraction: null,
        note: '',
      },
    }),
    type: () => ({
      title: 'Add a nozzle type',
      fields: TYPE_FIELDS,
      route: '/api/nozzle-types',
      says: (v: Record<string, unknown>) => `Nozzle type ${String(v.name)}`,
      start: {
        name: '',
        material: 'hardened steel',
        nominalBoreMm: 0.4,
        // to start from, and said to be; its sheet says them
        ...startNozzle(0.4),
        insertMm: null,
        boreGrowthLimit: 0.1,
        tipLossLimitMm: 0.15,
        massLimitKg: null,
        torqueNm: null,
        basis: 'practice',
        note: '',
      },
    }),
  }
  open.value = forms[kind]()
}
function edit(
  title: string,
  kind: EditableKind,
  record: { id: number; version: number },
  fields: FormField[],
  start: Record<string, unknown>,
): void {
  open.value = {
    title,
    fields,
    start,
    says: () => title.replace('Edit ', '').replace(/^./, c => c.toUpperCase()),
    edit: { kind, id: record.id, version: record.version },
  }
}
function logSpool(x: ShopData['spools'][number]): void {
  open.value = {
    title: `Spool ${x.tag}`,
    fields: SPOOL_EVENT_FIELDS,
    route: '/api/spool-events',
    says: v => `Spool ${x.tag} ${String(v.kind)}`,
    start: { spoolId: x.id, kind: 'weighed', grossG: null, occurredAt: new Date().toISOString(), note: '' },
  }
}
function addPerson(): void {
  open.value = {
    title: 'Add a person',
    fields: PERSON_FIELDS,
    route: '/api/people',
    says: v => `Person ${String(v.name)}`,
    start: { name: '', role: 'technician' },
  }
}
const pick = (r: Record<string, unknown>, fields: FormField[]) =>
  Object.fromEntries(fields.map(f => [f.key, r[f.key] ?? (f.kind === 'text' ? '' : null)]))
const editSpool = (x: ShopData['spools'][number]) =>
  edit(`Edit spool ${x.tag}`, 'spools', x, spoolFieldsOf(s.value!), {
    tag: x.tag,
    materialId: x.materialId,
    diameterMm: x.diameterMm,
    netG: x.netG,
    tareG: x.tareG,
    hub: x.hub,
    densityGCm3: x.ownDensityGCm3,
    fillerFraction: x.ownFillerFraction,
    note: x.note,
  })
const editMaterial = (m: ShopData['materials'][number]) =>
  edit(`Edit material ${m.name}`, 'materials', m, MATERIAL_FIELDS, pick(m as never, MATERIAL_FIELDS))
const editType = (t: ShopData['types'][number]) =>
  edit(`Edit nozzle type ${t.name}`, 'nozzle-types', t, TYPE_FIELDS, pick(t as never, TYPE_FIELDS))
function editPrinter(p: ShopData['printers'][number]): void {
  open.value = printerRecord(p)
}
const editPerson = (p: ShopData['people'][number]) =>
  edit(`Edit person ${p.name}`, 'people', p, PERSON_EDIT_FIELDS, { name: p.name, role: p.role, outOfUse: p.outOfUse })
const editSettings = () =>
  edit('Edit the shop', 'settings', s.value!.settings, SETTINGS_FIELDS, {
    shopName: s.value!.settings.shopName,
    timeZone: s.value!.settings.timeZone,
    acceptedRisk: s.value!.settings.acceptedRisk,
    labelAddress: s.value!.settings.labelAddress,
  })

const editRules = () =>
  edit(
    'Edit guard bands and rates',
    'rules',
    s.value!.settings,
    RULES_FIELDS,
    pick(s.value!.settings as never, RULES_FIELDS),
  )

const tabs = ['Nozzles', 'Hotends', 'Spools', 'Printers', 'Materials', 'Nozzle types', 'Shop']
/** By its name, as the address says it. */
const tabName = useInAddress('tab', { none: tabs[0]! })
const tab = computed({
  get: () => Math.max(0, tabs.indexOf(tabName.value)),
  set: i => (tabName.value = tabs[i]!),
})
watch(
  s,
  (d, was) => {
    // an empty shop begins with its printers
    if (d && !was && d.printers.length === 0 && tab.value === 0) tab.value = tabs.indexOf('Printers')
  },
  { immediate: true },
)
/** What is looked for on a shelf, and how spools stand on theirs. */
const find = useInAddress('find', { typed: true })
const wanted = computed(() => find.value.trim().toLowerCase())
const sort = useInAddress('sort', { none: SPOOL_ORDERS[0] })
const by = computed({
  get: () => SPOOL_ORDERS.find(o => o === sort.value) ?? SPOOL_ORDERS[0],
  set: order => (sort.value = order),
})
const FINDS_IN = ['Nozzles', 'Spools', 'Materials', 'Nozzle types']
const named = <T extends { name: string }>(rows: T[]) => rows.filter(r => r.name.toLowerCase().includes(wanted.value))
const building = ref(false)
// a link here may open a sheet; it is no part of the address once it is open
watch(
  () => [route.query.fit, route.query.add, route.query.show, s.value !== null],
  async ([fit, kind, show, ready]) => {
    if (!ready || (fit === undefined && kind === undefined && show === undefined)) return
    // the shelf is in the address before a sheet takes its step in the history
    const shelf = kind === 'hotend' || show === 'hotends' ? 'Hotends' : route.query.tab
    await navigateTo({ query: shelf === undefined ? {} : { tab: shelf } }, { replace: true })
    if (fit !== undefined) fitHead.value = Number(fit)
    if (kind === 'hotend') building.value = true
    if (kind === 'person') addPerson()
    else if (['nozzle', 'spool', 'type'].includes(String(kind))) add(String(kind) as 'nozzle')
  },
  { immediate: true },
)

const sentence = computed(() => {
  const d = s.value
  if (!d) return ''
  if (d.printers.length === 0) return 'Start with a printer and its parts, then a material, a nozzle type and a nozzle.'
  if (d.types.length === 0) return 'Next: a nozzle type, then a nozzle of it, and fit it.'
  if (d.nozzles.length === 0) return 'Next: add a nozzle and fit it to a printer.'
  const shelf = d.nozzles.filter(n => !n.place && !n.hotend && !n.retired).length
  const low = d.spools.filter(x => x.inUse && x.leftG < 150)
  return (
    `${counted(shelf, 'nozzle')} on the shelf, ${d.nozzles.filter(n => n.place).length} ` +
    `fitted.${
      low.length > 0
        ? ` Nearly empty: ${low
            .slice(0, 4)
            .map(x => `${x.tag} (${x.leftG.toFixed(0)} g)`)
            .join(', ')}.`
        : ''
    }`
  )
})
type NozzleType = ShopData['types'][number]
type Material = ShopData['materials'][number]
const retireWords = (t: NozzleType) =>
  [
    t.boreGrowthLimit === null ? '' : `bore + ${shareWords('boreGrowthLimit', t.boreGrowthLimit)}`,
    t.tipLossLimitMm === null ? '' : `tip − ${t.tipLossLimitMm} mm`,
    t.massLimitKg === null ? '' : `${t.massLimitKg} kg`,
  ]
    .filter(Boolean)
    .join(', ')
const MATERIAL_COLUMNS: SortColumn<Material>[] = [
  { key: 'name', label: 'material', by: m => m.name },
  { key: 'filler', label: 'filler', by: m => (m.filler === 'none' ? '' : m.filler) },
  { key: 'density', label: 'density', num: true, by: m => m.densityGCm3 },
  { key: 'abrasivity', label: 'abrasivity', num: true, by: m => m.abrasivity },
  { key: 'basis', label: 'basis', by: m => m.basis },
  { key: 'edit', label: 'edit', num: true, hidden: true },
]
const TYPE_COLUMNS: SortColumn<NozzleType>[] = [
  { key: 'name', label: 'type', by: t => t.name },
  { key: 'bore', label: 'bore', num: true, by: t => t.nominalBoreMm },
  { key: 'length', label: 'length', num: true, by: t => t.lengthMm },
  { key: 'insert', label: 'insert', num: true, by: t => t.insertMm },
  { key: 'retire', label: 'retire at' },
  { key: 'basis', label: 'basis', by: t => t.basis },
  { key: 'edit', label: 'edit', num: true, hidden: true },
]
</script>

<template>
  <div>
    <StoresTabs />
    <header class="mb-1 flex flex-wrap items-baseline gap-x-4">
      <NuxtLink to="/stores/table" class="act">Paste a whole table</NuxtLink>
      <NuxtLink to="/stores/out" class="act">Take it out</NuxtLink>
    </header>
    <p class="mb-3 text-[15px] font-[650]">{{ sentence }}</p>
    <TabGroup v-if="s" :selected-index="tab" @change="i => (tab = i)">
      <TabList class="mb-3 flex flex-wrap gap-x-1 border-b-2 border-ink">
        <Tab
          v-for="t in tabs"
          :key="t"
          class="ui-selected:bg-ink ui-selected:text-white px-3 font-[650]"
          as="template"
          v-slot="{ selected }"
          ><button type="button" :class="selected ? 'bg-ink text-white' : ''">{{ t }}</button></Tab
        >
      </TabList>
      <div v-if="FINDS_IN.includes(tabs[tab]!)" class="mb-3 flex flex-wrap items-end gap-3">
        <div class="field w-64">
          <label for="stores-find">Find</label
          ><input
            id="stores-find"
            v-model="find"
            class="input"
            type="search"
            :placeholder="tabs[tab] === 'Nozzles' ? 'tag, type or printer' : 'tag or name'"
          />
        </div>
        <div v-if="tabs[tab] === 'Spools'">
          <span class="label">In order of</span>
          <ChoiceButtons
            v-model="by"
            label="In order of"
            :options="SPOOL_ORDERS.map(value => ({ value, text: value }))"
          />
        </div>
      </div>
      <TabPanels>
        <TabPanel>
          <p class="mb-2 flex flex-wrap items-center gap-3">
            <button type="button" class="button first" @click="add('nozzle')">Add a nozzle</button
            ><span class="text-sm text-ink2"
              >Filled: fitted. Open: on the shelf. Crossed: retired. What is left: 80 % range. Open a tag to fit, gauge,
              edit or retire it.</span
            >
          </p>
          <NozzleRack :shop="s" :find="wanted" />
        </TabPanel>
        <TabPanel><HotendShelf v-model:adding="building" /></TabPanel>
        <TabPanel>
          <p class="mb-2"><button type="button" class="button first" @click="add('spool')">Add a spool</button></p>
          <SpoolShelf :shop="s" :find="wanted" :by="by" @edit="editSpool" @log="logSpool" />
        </TabPanel>
        <TabPanel>
          <p class="mb-2"><NuxtLink to="/equip/stack/new" class="button first">Add a printer</NuxtLink></p>
          <PrinterLimits :shop="s" @fit="id => (fitHead = id)" @edit="editPrinter" />
          <p v-if="s.outOfUse.printers.length > 0" class="mt-3 text-sm">
            Out of use, off every screen; what they printed still counts:
            <EditButtons :records="s.outOfUse.printers" @edit="editPrinter" />
          </p>
        </TabPanel>
        <TabPanel>
          <p class="mb-2 flex flex-wrap items-center gap-3">
            <NuxtLink to="/equip/materials?add=1" class="button first">Add a material</NuxtLink
            ><NuxtLink to="/equip/materials" class="act">Windows and practices</NuxtLink>
          </p>
          <SortTable :rows="named(s.materials)" :columns="MATERIAL_COLUMNS" label="Materials" :min-width="640">
            <template #cell-name="{ row }"
              ><b>{{ row.name }}</b></template
            >
            <template #cell-filler="{ row }">{{ fillerWords(row) }}</template>
            <template #cell-density="{ row }">{{
              row.densityGCm3 === null ? 'not entered' : `${row.densityGCm3} g/cm³`
            }}</template>
            <template #cell-basis="{ row }">{{ row.basis }}{{ row.note ? `, ${row.note}` : '' }}</template>
            <template #cell-edit="{ row }">
              <button type="button" class="button plain" @click="editMaterial(row)">
                Edit<span class="sr-only"> {{ row.name }}</span>
              </button>
            </template>
          </SortTable>
        </TabPanel>
        <TabPanel>
          <p class="mb-2"><button type="button" class="button first" @click="add('type')">Add a nozzle type</button></p>
          <SortTable :rows="named(s.types)" :columns="TYPE_COLUMNS" label="Nozzle types" :min-width="640">
            <template #cell-name="{ row }"
              ><b>{{ row.name }}</b></template
            >
            <template #cell-bore="{ row }">{{ row.nominalBoreMm }} mm</template>
            <template #cell-length="{ row }">{{ row.lengthMm }} mm</template>
            <template #cell-insert="{ row }">{{ row.insertMm === null ? 'solid' : `${row.insertMm} mm` }}</template>
            <template #cell-retire="{ row }">{{ retireWords(row) }}</template>
            <template #cell-edit="{ row }">
              <button type="button" class="button plain" @click="editType(row)">
                Edit<span class="sr-only"> {{ row.name }}</span>
              </button>
            </template>
          </SortTable>
        </TabPanel>
        <TabPanel>
          <dl class="title-block max-w-[520px] grid-cols-2">
            <div class="!border-t-0">
              <dt>Shop</dt>
              <dd>{{ s.settings.shopName }}</dd>
            </div>
            <div class="!border-t-0 border-l">
              <dt>Time zone</dt>
              <dd>{{ s.settings.timeZone }}</dd>
            </div>
            <div>
              <dt>A gauge is due at</dt>
              <dd>{{ shareWords('acceptedRisk', s.settings.acceptedRisk) }} chance of being past the limit</dd>
            </div>
            <div class="border-l">
              <dt>People</dt>
              <dd>
                <EditButtons :records="s.people" @edit="editPerson" />
                <template v-if="s.outOfUse.people.length > 0">
                  <span class="block text-xs text-ink2">no longer here</span>
                  <EditButtons :records="s.outOfUse.people" @edit="editPerson" />
                </template>
              </dd>
            </div>
          </dl>
          <dl class="title-block mt-3 max-w-[520px] grid-cols-2">
            <div class="!border-t-0">
              <dt>Guard bands</dt>
              <dd>
                hotend {{ s.settings.guardHotendC }}, bed {{ s.settings.guardBedC }}, chamber
                {{ s.settings.guardChamberC }} °C; sensor checked {{ s.settings.guardHotendCheckedC }},
                {{ s.settings.guardBedCheckedC }}, {{ s.settings.guardChamberCheckedC }} °C
              </dd>
            </div>
            <div class="!border-t-0 border-l">
              <dt>Room</dt>
              <dd>{{ s.settings.roomC }} °C</dd>
            </div>
            <div>
              <dt>Labour, standing printer</dt>
              <dd>
                {{ s.settings.labourPerHour }} and {{ s.settings.downtimePerHour }} {{ s.settings.currency }} an hour
              </dd>
            </div>
            <div class="border-l">
              <dt>A nozzle swap</dt>
              <dd>
                stands {{ s.settings.downtimeHours }} h, scrap {{ s.settings.scrapPerSwap }} {{ s.settings.currency }}
              </dd>
            </div>
          </dl>
          <p class="mt-2 flex flex-wrap gap-2">
            <button type="button" class="button" @click="editRules">Edit guard bands and rates</button
            ><button type="button" class="button" @click="editSettings">Edit the shop</button
            ><button type="button" class="button" @click="addPerson">Add a person</button>
          </p>
        </TabPanel>
      </TabPanels>
    </TabGroup>
    <div v-else class="sheet h-[480px] animate-pulse opacity-60" role="status" aria-label="Reading the stores" />
    <RecordSheet :open="shown" wide @close="open = null" @another="another" />
    <FitSheet :head-id="fitHead" @close="fitHead = null" />
  </div>
</template>
