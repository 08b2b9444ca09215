<script setup lang="ts">
/* eslint-disable max-lines -- one screen: facts and practices of one material */
/** Materials: what each filament asks, value by value with its basis, and the practices that disagree, side by side. */
import { offBy } from '#core/words'
import type { MaterialRow, SetRow } from '#shared/answers/materials'
import { computed, ref, shallowRef, watch } from 'vue'
import { VALUE_KEYS, VALUES, type ValueKey } from '#core/limits'
import { checkDensity } from '#core/materials'
import WorkedCards from '~/components/equip/WorkedCards.vue'
import EquipTabs from '~/components/equip/EquipTabs.vue'
import { emptySet, factFields, SET_FIELDS, setOfForm, setToForm } from '~/components/equip/set-fields'
import type { OpenRecord } from '~/components/stores/form-field'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useEquip } from '~/composables/equip'
import { later } from '~/lib/later'
import { day } from '#shared/time'
import { useShop } from '~/state/shop'
import { fillerWords } from '~/words/material'

const AddMaterial = later(() => import('~/components/equip/AddMaterial.vue'))

useHead({ title: 'Materials · Equip · Iron Nozzle' })
const route = useRoute()
const shop = useShop()
const { data, failure } = useEquip()
const adding = computed(() => route.query.add !== undefined)
const chosen = ref<number | null>(null)
watch(
  () => [data.value, route.query.m] as const,
  ([d, m]) => {
    if (!d) return
    chosen.value =
      d.materials.find(x => x.id === (m === undefined ? chosen.value : Number(m)))?.id ??
      d.materials.find(x => x.id === d.mix[0]?.materialId)?.id ??
      d.materials[0]?.id ??
      null
  },
  { immediate: true },
)
const material = computed<MaterialRow | null>(() => data.value?.materials.find(m => m.id === chosen.value) ?? null)
const sets = computed(() => material.value?.sets.filter(s => !s.withdrawn) ?? [])
const withdrawn = computed(() => material.value?.sets.filter(s => s.withdrawn) ?? [])
const missing = computed(() =>
  material.value ? VALUE_KEYS.filter(k => !material.value!.values.some(v => v.key === k)) : [],
)
const density = computed(() => {
  const m = material.value,
    matrix = m?.values.find(v => v.key === 'matrixGCm3')?.value
  if (!m || m.densityGCm3 === null || matrix === undefined) return null
  try {
    return checkDensity(m.densityGCm3, matrix, m.filler, m.fillerFraction)
  } catch {
    return null
  }
})

const span = (a: number | null, b: number | null, unit: string) => {
  if (a === null && b === null) return 'not entered'
  if (a === b || b === null) return `${a} ${unit}`
  return a === null ? `up to ${b} ${unit}` : `${a} to ${b} ${unit}`
}
const LEVEL = { needs: 'needed', helps: 'helps', indifferent: 'makes no difference' } as const
/** One row per question; where the practices answer differently the row is marked. */
const rows = computed(() => {
  const of = (label: string, f: (s: SetRow) => string) => {
    const cells = sets.value.map(f)
    return { label, cells, differs: new Set(cells).size > 1 }
  }
  return [
    of('Works when', s => s.conditions),
    of('Bed', s => span(s.bedMinC, s.bedMaxC, '°C')),
    of(
      'Warm chamber',
      s =>
        LEVEL[s.chamber] +
        (s.chamberMinC !== null || s.chamberMaxC !== null ? `: ${span(s.chamberMinC, s.chamberMaxC, '°C')}` : ''),
    ),
    of('Enclosure', s => (s.enclosed ? 'only inside one' : 'not needed')),
    of('Drying', s =>
      s.dry ? `${span(s.dryMinC, s.dryMaxC, '°C')}, ${span(s.dryHoursMin, s.dryHoursMax, 'h')}` : 'as it comes',
    ),
    of('Holds on', s => s.surfaces.join(', ') || 'not entered'),
    of('Basis', s => `${s.basis}${s.note ? `: ${s.note}` : ''}`),
  ]
})

const open = shallowRef<OpenRecord | null>(null)
function editFact(key: ValueKey): void {
  const m = material.value!,
    v = m.values.find(x => x.key === key)
  open.value = {
    title: `${VALUES[key].label} of ${m.name}`,
    fields: factFields(key),
    says: x => `${VALUES[key].label} ${String(x.value)} ${VALUES[key].unit}`,
    start: v
      ? { key, value: v.value, basis: v.basis, note: v.note }
      : { materialId: m.id, key, value: null, basis: 'data sheet', note: '' },
    ...(v ? { edit: { kind: 'material-values', id: v.id, version: v.version } } : { route: '/api/material-values' }),
  }
}
function editSet(s: SetRow | null): void {
  const m = material.value!
  open.value = s
    ? {
        title: `Practice “${s.name}” of ${m.name}`,
        fields: SET_FIELDS,
        body: setOfForm,
        start: setToForm(s),
        says: () => `Practice “${s.name}”`,
        edit: { kind: 'practice-sets', id: s.id, version: s.version },
      }
    : {
        title: `Another practice for ${m.name}`,
        fields: SET_FIELDS,
        body: bodyOfSet,
        start: { materialId: m.id, ...emptySet() },
        says: x => `Practice “${String(x.name)}”`,
        route: '/api/practice-sets',
      }
}
/** The form is flat; the entry has the set inside it. */
const bodyOfSet = ({ materialId, ...set }: Record<string, unknown>) => ({ materialId, set: setOfForm(set) })
const addKey = ref<ValueKey | null>(null)
watch(addKey, k => {
  if (k) editFact(k)
  addKey.value = null
})
function done(id: number | null): void {
  chosen.value = id ?? chosen.value
  void navigateTo({ query: id === null ? {} : { m: id } }, { replace: true })
}
const practicesWords = computed(() => {
  if (sets.value.length === 0) return 'No practice is entered, so no printer can be judged for it.'
  if (sets.value.length === 1) return 'One practice.'
  const differ = rows.value
    .filter(r => r.differs && r.label !== 'Works when' && r.label !== 'Basis')
    .map(r => r.label.toLowerCase())
  return `${sets.value.length} practices: they differ in ${differ.join(', ') || 'nothing but their conditions'}.`
})
const agreement = computed(() => {
  const d = density.value
  if (!d?.disagrees) return '; the entered density agrees to 1 %.'
  return `; the entered density is ${offBy(d.offShare)}. Voids and a different grade are the usual reasons.`
})
</script>

<template>
  <div>
    <EquipTabs :failure="failure" />
    <template v-if="data && adding"
      ><h2 class="mb-2 text-[20px]!">Add a material</h2>
      <AddMaterial @saved="done" @cancel="done(null)"
    /></template>
    <template v-else-if="data">
      <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] lg:grid-cols-[200px_minmax(0,1fr)]">
        <div>
          <NuxtLink to="/equip/materials?add=1" class="button first mb-2 w-full">Add a material</NuxtLink>
          <div class="lg:hidden">
            <FieldSelect
              id="materials-pick"
              :model-value="chosen"
              label="Material"
              :options="data.materials.map(m => ({ value: m.id as number | null, text: m.name }))"
              @update:model-value="id => navigateTo({ query: { m: id } }, { replace: true })"
            />
          </div>
          <ul class="sheet hidden lg:block" aria-label="Materials" data-list>
            <li v-for="m in data.materials" :key="m.id" class="border-b border-faint last:border-0">
              <NuxtLink
                :to="{ query: { m: m.id } }"
                class="flex min-h-[40px] items-center px-3"
                :class="m.id === chosen ? 'bg-ink text-white font-bold' : 'hover:bg-white'"
                :aria-current="m.id === chosen ? 'true' : undefined"
                >{{ m.name }}</NuxtLink
              >
            </li>
          </ul>
        </div>
        <div v-if="material" class="grid grid-cols-[minmax(0,1fr)] gap-4">
          <div>
            <h2 class="text-[20px]!">{{ material.name }}</h2>
            <p class="text-[15px] font-[650]">
              {{ practicesWords }}
            </p>
          </div>
          <dl class="title-block grid-cols-2 md:grid-cols-4">
            <div class="!border-t-0">
              <dt>Polymer</dt>
              <dd class="font-semibold">{{ material.polymer }}</dd>
            </div>
            <div class="!border-t-0 border-l">
              <dt>Filler</dt>
              <dd class="font-semibold">
                {{ fillerWords(material) }}
              </dd>
            </div>
            <div class="md:!border-t-0 md:border-l">
              <dt>Density, {{ material.basis }}</dt>
              <dd class="font-semibold">
                {{ material.densityGCm3 === null ? 'not entered' : `${material.densityGCm3} g/cm³` }}
              </dd>
            </div>
            <div class="border-l md:!border-t-0">
              <dt>Ventilation</dt>
              <dd class="font-semibold">{{ material.ventilation ?? 'not entered' }}</dd>
            </div>
          </dl>
          <p
            v-if="density"
            class="flex items-start gap-2 text-sm"
            :class="density.disagrees ? 'font-semibold text-look' : ''"
          >
            <VerdictMark :verdict="density.disagrees ? 'look' : 'fine'" :size="16" />{{
              material.filler === 'none' ? 'The polymer alone is' : 'By the mixture rule this filler share makes'
            }}
            {{ density.expectedGCm3.toFixed(3) }} g/cm³{{ agreement }}
          </p>
          <section aria-labelledby="practices">
            <div class="mb-1 flex flex-wrap items-center gap-3">
              <h2 id="practices">Practices, side by side</h2>
              <button type="button" class="button no-print" @click="editSet(null)">Add a practice</button>
            </div>
            <div
              v-if="sets.length"
              class="relative overflow-x-auto"
              tabindex="0"
              role="group"
              aria-label="Practices, pans sideways"
            >
              <table class="record sheet" :style="{ minWidth: `${140 + 220 * sets.length}px` }">
                <thead>
                  <tr>
                    <th class="sticky left-0 bg-sheet"><span class="sr-only">question</span></th>
                    <th v-for="s in sets" :key="s.id" class="text-[14px]! text-ink!">
                      {{ s.name }}
                      <button type="button" class="button plain no-print" @click="editSet(s)">
                        Edit<span class="sr-only"> practice {{ s.name }}</span>
                      </button>
                    </th>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="r in rows" :key="r.label">
                    <th scope="row" class="sticky left-0 bg-sheet">
                      {{ r.label
                      }}<span v-if="r.differs && r.label !== 'Works when' && r.label !== 'Basis'" class="ml-1 text-look"
                        >differs</span
                      >
                    </th>
                    <td
                      v-for="(c, i) in r.cells"
                      :key="i"
                      class="align-top!"
                      :class="r.differs && r.label !== 'Works when' && r.label !== 'Basis' ? 'font-[650]' : ''"
                    >
                      {{ c }}
                    </td>
                  </tr>
                </tbody>
              </table>
            </div>
            <p v-if="withdrawn.length" class="mt-1 text-sm text-ink2">
              Withdrawn:
              <button v-for="s in withdrawn" :key="s.id" type="button" class="button plain" @click="editSet(s)">
                <s>{{ s.name }}</s>
              </button>
            </p>
          </section>
          <WorkedCards :material-id="material.id" :material="material.name" />
          <section aria-labelledby="facts">
            <div class="mb-1 flex flex-wrap items-end gap-3">
              <h2 id="facts">Facts, each with its basis</h2>
              <FieldSelect
                v-if="missing.length"
                id="fact-add"
                v-model="addKey"
                label="Not entered yet"
                class="no-print w-64"
                :options="[
                  { value: null as ValueKey | null, text: 'Choose one to enter it' },
                  ...missing.map(k => ({ value: k as ValueKey | null, text: VALUES[k].label })),
                ]"
              />
            </div>
            <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Facts, pans sideways">
              <table class="record sheet min-w-[560px]">
                <thead>
                  <tr>
                    <th>fact</th>
                    <th class="num">value</th>
                    <th>basis</th>
                    <th>entered</th>
                    <th class="no-print"><span class="sr-only">edit</span></th>
                  </tr>
                </thead>
                <tbody>
                  <tr
                    v-for="f in [...material.values].sort(
                      (a, b) => VALUE_KEYS.indexOf(a.key) - VALUE_KEYS.indexOf(b.key),
                    )"
                    :key="f.id"
                  >
                    <td>{{ VALUES[f.key].label }}</td>
                    <td class="num">
                      <b>{{ f.value }} {{ VALUES[f.key].unit }}</b>
                    </td>
                    <td>{{ f.basis }}{{ f.note ? `: ${f.note}` : '' }}</td>
                    <td class="text-ink2">{{ f.enteredBy }}, {{ day(f.enteredAt, shop.zone) }}</td>
                    <td class="num no-print">
                      <button type="button" class="button plain" @click="editFact(f.key)">
                        Edit<span class="sr-only"> {{ VALUES[f.key].label }}</span>
                      </button>
                    </td>
                  </tr>
                </tbody>
              </table>
            </div>
          </section>
        </div>
        <p v-else class="font-semibold">No material yet: add the first one from its data sheet.</p>
      </div>
      <RecordSheet :open="open" wide @close="open = null" />
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the materials"
    />
  </div>
</template>
