<script setup lang="ts">
/**
 * A filament from its data sheet: pasted, typed, or started from the window of its polymer; every value keeps its
 * basis.
 */
import { offBy } from '#core/words'
import { computed, reactive, ref, watch } from 'vue'
import {
  startWindow,
  START_WINDOWS,
  VALUE_KEYS,
  VALUES,
  VENTILATION,
  type Basis,
  type SheetRead,
  type ValueKey,
} from '#core/limits'
import { polymerWater } from '#core/drying'
import { checkDensity, MOST_FILLER } from '#core/materials'
import { FILLERS, START_ABRASIVITY, type Filler } from '#core/wear'
import { ENTERED_BASES as BASES } from '#shared/choices'
import { keptNumber, percentOf, shareOf } from '#shared/share'
import { emptySet, SET_FIELDS, setOfForm, setToForm } from '~/components/equip/set-fields'
import SheetLines from '~/components/equip/SheetLines.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntryForm } from '~/composables/entry-form'
import { plain } from '~/lib/plain'
import { useUi } from '~/state/ui'

const emit = defineEmits<{ saved: [id: number | null]; cancel: [] }>()
const ui = useUi()
const form = useEntryForm('/api/materials')
const v = reactive({
  name: '',
  polymer: '',
  filler: 'carbon fibre' as Filler,
  wt: null as number | null,
  densityGCm3: null as number | null,
  ventilation: null as string | null,
  note: '',
})
const facts = reactive(
  Object.fromEntries(VALUE_KEYS.map(k => [k, { value: null, basis: 'data sheet', note: '' }])) as Record<
    ValueKey,
    { value: number | null; basis: Basis; note: string }
  >,
)
const sets = ref<Record<string, unknown>[]>([{ ...emptySet(), name: 'by the data sheet' }])

function take(r: SheetRead): void {
  sheetWater = r.waterAt50
  for (const [k, value] of Object.entries(r.facts)) Object.assign(facts[k as ValueKey], { value, basis: 'data sheet' })
  if (r.densityGCm3 !== null) v.densityGCm3 = r.densityGCm3
  if (r.filler) Object.assign(v, { wt: percentOf(r.filler.fraction), filler: r.filler.kind ?? v.filler })
  takeWater()
  const s = sets.value[0]!
  if (r.bed) Object.assign(s, { bedMinC: r.bed[0], bedMaxC: r.bed[1] })
  if (r.chamber)
    Object.assign(s, {
      chamberMinC: r.chamber[0],
      chamberMaxC: r.chamber[1],
      chamber: s.chamber === 'indifferent' ? 'helps' : s.chamber,
    })
  if (r.dry) Object.assign(s, { dryMinC: r.dry[0], dryMaxC: r.dry[1] })
  if (r.dryHours) Object.assign(s, { dryHoursMin: r.dryHours[0], dryHoursMax: r.dryHours[1] })
}
/** The sheet is of the filament, the fact of its polymer alone: between them stands the filler's share. */
let sheetWater: number | null = null
let waterRead: number | null = null
function takeWater(): void {
  const share = v.wt === null ? NaN : shareOf(v.wt)
  // another value was typed over it
  if (facts.waterAt50.value !== waterRead) return
  if (sheetWater === null || !(share >= 0 && share <= MOST_FILLER)) return
  const note = share > 0 ? `the sheet: ${sheetWater} wt% of the filament, filler and all` : ''
  waterRead = Number(polymerWater(sheetWater, share).toPrecision(4))
  Object.assign(facts.waterAt50, { value: waterRead, basis: 'data sheet', note })
}
watch(() => v.wt, takeWater)
/** What checks rest on: asked for by name while it is empty after a sheet was read. */
const asked = computed(() => {
  const s = sets.value[0]!
  const all: [string, string, unknown][] = [
    ['polymer', 'm-polymer', v.polymer],
    ['filler share', 'm-wt', v.wt],
    ['density', 'm-density', v.densityGCm3],
    ['nozzle temperature', 'fact-nozzleMinC', facts.nozzleMinC.value],
    ['smallest bore', 'fact-boreMinMm', facts.boreMinMm.value],
    ['bed temperature', 'set-0-bedMinC', s.bedMinC],
    ...(s.dry === true ? ([['drying', 'set-0-dryMinC', s.dryMinC]] as [string, string, unknown][]) : []),
    ['highest safe drying temperature', 'fact-dryHighestC', facts.dryHighestC.value],
    ['moisture it prints with', 'fact-cleanWater', facts.cleanWater.value],
    ['glass transition', 'fact-glassC', facts.glassC.value],
  ]
  return all.filter(([, , value]) => value === null || value === '')
})
const start = computed(() => startWindow(v.polymer, v.filler))
/** Fills what is still empty; what was typed stays. */
function fromStart(): void {
  const w = start.value!
  for (const [k, f] of Object.entries(w.facts))
    if (facts[k as ValueKey].value === null) Object.assign(facts[k as ValueKey], f)
  v.ventilation ??= w.ventilation
  const first = sets.value[0]!
  const empty = SET_FIELDS.every(f => ['name', 'chamber', 'dry', 'basis'].includes(f.key) || !first[f.key])
  sets.value = empty
    ? w.sets.map(setToForm)
    : [...sets.value, ...w.sets.map(setToForm).filter(s => !sets.value.some(o => o.name === s.name))]
}
watch(
  () => v.filler,
  f => {
    if (f === 'none') v.wt = 0
  },
)
const density = computed(() => {
  const matrix = facts.matrixGCm3.value
  if (v.densityGCm3 === null || matrix === null || v.wt === null) return null
  try {
    return checkDensity(v.densityGCm3, matrix, v.filler, shareOf(v.wt))
  } catch {
    return null
  }
})
async function save(): Promise<void> {
  const done = await form.send(
    {
      name: v.name,
      polymer: v.polymer,
      filler: v.filler,
      fillerFraction: keptNumber('fillerFraction', v.wt),
      densityGCm3: v.densityGCm3,
      abrasivity: START_ABRASIVITY[v.filler],
      ventilation: v.ventilation,
      basis: 'data sheet',
      note: v.note,
      facts: Object.fromEntries(
        Object.entries(facts)
          .filter(([, f]) => f.value !== null)
          .map(([k, f]) => [k, { ...f }]),
      ),
      sets: sets.value.map(s => setOfForm(plain(s))),
    } as never,
    `Material ${v.name}`,
  )
  if (done === null) return
  if (done !== 'queued')
    ui.say(`Material ${v.name}: saved with ${Object.values(facts).filter(f => f.value !== null).length} facts.`)
  emit('saved', done === 'queued' ? null : done.id)
}
const err = (f: string) => form.errors.value[f]
const choices = (a: readonly string[]) => a.map(value => ({ value, text: value }))
const agreement = computed(() => {
  const d = density.value
  if (!d?.disagrees) return 'The sheet agrees to 1 %.'
  return `The sheet's density is ${offBy(d.offShare)}: voids and a different grade are the usual reasons.`
})
</script>

<template>
  <form class="grid gap-4" aria-label="Add a material" @submit.prevent="save()">
    <SheetLines :asked="asked" :wants-share="v.wt === null" @read="take" />
    <div class="grid grid-cols-2 gap-3 lg:grid-cols-4">
      <FieldText id="m-name" v-model="v.name" label="Name" hint="generic, like PA6-CF20" :error="err('name')" />
      <FieldText
        id="m-polymer"
        v-model="v.polymer"
        label="Polymer"
        :list="[...new Set(START_WINDOWS.map(w => w.polymer))]"
        :error="err('polymer')"
      />
      <FieldSelect
        id="m-filler"
        v-model="v.filler"
        label="Filler"
        :options="FILLERS.map(f => ({ value: f, text: f }))"
        :error="err('filler')"
      />
      <FieldNumber id="m-wt" v-model="v.wt" label="Filler" unit="wt%" :error="err('fillerFraction')" />
      <FieldNumber id="m-density" v-model="v.densityGCm3" label="Density" unit="g/cm³" :error="err('densityGCm3')" />
      <FieldSelect
        id="m-vent"
        v-model="v.ventilation"
        label="Ventilation it needs"
        :options="[
          { value: null as string | null, text: 'not known' },
          ...VENTILATION.map(x => ({ value: x as string | null, text: x })),
        ]"
      />
      <FieldText id="m-note" v-model="v.note" label="Note" />
      <div class="self-end">
        <button type="button" class="button" :disabled="!start" @click="fromStart">
          Start from {{ start ? start.polymer : 'its polymer' }}
        </button>
      </div>
    </div>
    <p v-if="density" class="text-sm" :class="density.disagrees ? 'font-semibold text-look' : ''" role="status">
      By the mixture rule this filler share makes {{ density.expectedGCm3.toFixed(3) }} g/cm³.
      {{ agreement }}
    </p>
    <fieldset class="grid grid-cols-2 gap-3 border-t border-rule pt-2 md:grid-cols-3 xl:grid-cols-4">
      <legend class="float-left col-span-full mb-1 w-full font-semibold">Facts, each with its basis</legend>
      <div v-for="k in VALUE_KEYS" :key="k" class="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] items-end gap-1">
        <FieldNumber
          :id="`fact-${k}`"
          v-model="facts[k].value"
          :label="VALUES[k].label"
          :unit="VALUES[k].unit"
          :error="err(`facts.${k}.value`)"
        />
        <FieldSelect
          :id="`basis-${k}`"
          v-model="facts[k].basis"
          label="Basis"
          :options="choices(BASES) as { value: Basis; text: string }[]"
        />
      </div>
    </fieldset>
    <fieldset v-for="(s, i) in sets" :key="i" class="border-t border-rule pt-2">
      <legend class="float-left mb-1 flex w-full items-center gap-3 font-semibold">
        Practice: {{ s.name || 'unnamed' }}
        <button v-if="sets.length > 1" type="button" class="button plain" @click="sets.splice(i, 1)">Without it</button>
      </legend>
      <div class="clear-both grid grid-cols-2 gap-3 md:grid-cols-4">
        <template v-for="f in SET_FIELDS.filter(x => x.key !== 'withdrawn')" :key="f.key">
          <FieldNumber
            v-if="f.kind === 'number'"
            :id="`set-${i}-${f.key}`"
            v-model="s[f.key] as number | null"
            :label="f.label"
            :unit="f.unit"
            :error="err(`sets.${i}.${f.key}`)"
          />
          <FieldSelect
            v-else-if="f.kind === 'select'"
            :id="`set-${i}-${f.key}`"
            v-model="s[f.key] as string"
            :label="f.label"
            :options="f.options as { value: string; text: string }[]"
            :error="err(`sets.${i}.${f.key}`)"
          />
          <label v-else-if="f.kind === 'check'" class="check self-end"
            ><input v-model="s[f.key]" type="checkbox" /> {{ f.label }}</label
          >
          <FieldText
            v-else
            :id="`set-${i}-${f.key}`"
            :model-value="String(s[f.key] ?? '')"
            :label="f.label"
            :list="f.list"
            :error="err(`sets.${i}.${f.key}`)"
            @update:model-value="t => (s[f.key] = t)"
          />
        </template>
      </div>
    </fieldset>
    <div class="flex flex-wrap gap-2">
      <button type="submit" class="button first" :disabled="form.busy.value">Save</button
      ><button type="button" class="button" @click="sets.push({ ...emptySet(), name: `practice ${sets.length + 1}` })">
        Another practice</button
      ><button type="button" class="button" @click="emit('cancel')">Cancel</button>
    </div>
  </form>
</template>
