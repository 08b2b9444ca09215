<script setup lang="ts">
/** Begin a gauge study: with what, by whom, which nozzles, how often. Its list is drawn when it is saved. */
import { computed, ref } from 'vue'
import { MOST_LINES, STUDY_NOZZLES, STUDY_PEOPLE, STUDY_REPEATS, type StudyMethod } from '#core/study'
import { counted } from '#core/words'
import type { SetupLine } from '#shared/answers/pictures'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { useShop } from '~/state/shop'

const props = defineProps<{ open: boolean; setups: readonly SetupLine[] }>()
const emit = defineEmits<{ close: [begun: number | null] }>()
const shop = useShop()
const people = computed(() => shop.data?.people ?? [])
const find = ref('')
let begun: number | null = null
const linesOf = (v: { personIds: number[]; nozzleIds: number[]; repeats: number | null }) =>
  v.personIds.length * v.nozzleIds.length * (v.repeats ?? 0)
const sheet = useEntrySheet('/api/studies', {
  on: () => (props.open ? {} : null),
  name: () => 'new',
  start: () => ({
    name: '',
    by: 'pins',
    personIds: people.value.slice(0, 2).map(p => p.id),
    nozzleIds: [] as number[],
    repeats: 3 as number | null,
    note: '',
  }),
  body: v => ({
    name: v.name,
    method: (v.by === 'pins' ? 'pins' : 'picture') satisfies StudyMethod,
    setupId: v.by === 'pins' ? null : Number(v.by),
    personIds: v.personIds,
    nozzleIds: v.nozzleIds,
    repeats: v.repeats,
    note: v.note,
    occurredAt: new Date().toISOString(),
  }),
  says: v => `Begin the study ${v.name}`,
  saved: (done, v) => {
    begun = done.id
    return `${v.name} is begun: its list of ${counted(linesOf(v), 'line')} is drawn.`
  },
  close: () => {
    emit('close', begun)
    begun = null
  },
})
const lines = computed(() => linesOf(sheet.v))
const ways = computed(() => [
  { value: 'pins', text: 'pins' },
  ...props.setups.filter(s => !s.withdrawn).map(s => ({ value: String(s.id), text: `pictures by ${s.name}` })),
])
/** Chosen ones first, so that a search never hides them. */
const nozzles = computed(() => {
  const chosen = new Set(sheet.v.nozzleIds)
  const wanted = find.value.trim().toLowerCase()
  return [...(shop.data?.nozzles ?? [])]
    .filter(n => chosen.has(n.id) || `${n.tag} ${n.typeName} ${n.place ?? ''}`.toLowerCase().includes(wanted))
    .sort((a, b) => Number(chosen.has(b.id)) - Number(chosen.has(a.id)) || a.tag.localeCompare(b.tag))
})
function toggle(list: 'personIds' | 'nozzleIds', id: number): void {
  const now = sheet.v[list]
  sheet.v[list] = now.includes(id) ? now.filter(x => x !== id) : [...now, id]
}
const SHOWN = ['name', 'setupId', 'personIds', 'nozzleIds', 'repeats', 'note']
</script>

<template>
  <EntrySheet :sheet="sheet" title="Begin a gauge study" action="Draw the list" :shown="SHOWN" wide>
    <p class="text-sm text-ink2">
      Every person gauges every nozzle in every round, in an order drawn by chance. Take nozzles whose bores differ, and
      at least two people: one person’s repeats do not show how far people differ.
    </p>
    <div class="grid gap-3 sm:grid-cols-3">
      <FieldText id="study-name" v-model="sheet.v.name" label="Name" :error="sheet.errors.name" />
      <FieldSelect
        id="study-by"
        v-model="sheet.v.by"
        label="Gauged with"
        :options="ways"
        :error="sheet.errors.setupId"
      />
      <FieldNumber
        id="study-repeats"
        v-model="sheet.v.repeats"
        label="Rounds"
        unit=""
        :hint="`${STUDY_REPEATS[0]} to ${STUDY_REPEATS[1]}`"
        :error="sheet.errors.repeats"
      />
    </div>
    <fieldset class="grid gap-1">
      <legend class="label">People, {{ STUDY_PEOPLE[0] }} to {{ STUDY_PEOPLE[1] }}</legend>
      <div class="flex flex-wrap gap-x-5">
        <label v-for="p in people" :key="p.id" class="check"
          ><input type="checkbox" :checked="sheet.v.personIds.includes(p.id)" @change="toggle('personIds', p.id)" />
          {{ p.name }}</label
        >
      </div>
      <p v-if="sheet.errors.personIds" class="text-sm font-semibold text-stop" role="alert">
        {{ sheet.errors.personIds }}
      </p>
    </fieldset>
    <fieldset class="grid gap-1">
      <legend class="label">Nozzles, {{ STUDY_NOZZLES[0] }} to {{ STUDY_NOZZLES[1] }}</legend>
      <div class="field max-w-64">
        <label for="study-find">Find</label
        ><input id="study-find" v-model="find" class="input" type="search" placeholder="tag, type or printer" />
      </div>
      <div class="grid max-h-52 gap-x-5 overflow-y-auto border border-rule px-2 py-1 sm:grid-cols-2" tabindex="0">
        <label v-for="n in nozzles" :key="n.id" class="check"
          ><input type="checkbox" :checked="sheet.v.nozzleIds.includes(n.id)" @change="toggle('nozzleIds', n.id)" />
          <span
            ><b>{{ n.tag }}</b> {{ n.typeName }}{{ n.place ? `, on ${n.place}` : ''
            }}{{ n.retired ? ', retired' : '' }}</span
          ></label
        >
        <p v-if="nozzles.length === 0" class="text-sm text-ink2">No nozzle matches.</p>
      </div>
      <p v-if="sheet.errors.nozzleIds" class="text-sm font-semibold text-stop" role="alert">
        {{ sheet.errors.nozzleIds }}
      </p>
    </fieldset>
    <FieldText
      id="study-note"
      v-model="sheet.v.note"
      label="Note"
      placeholder="which pins, how the nozzles were cleaned"
      :error="sheet.errors.note"
    />
    <p role="status" class="font-semibold" :class="lines > MOST_LINES ? 'text-stop' : ''">
      {{ sheet.v.personIds.length }} × {{ sheet.v.nozzleIds.length }} × {{ sheet.v.repeats ?? 0 }} =
      {{ counted(lines, 'line') }}{{ lines > MOST_LINES ? `, at most ${MOST_LINES}` : '' }}
    </p>
  </EntrySheet>
</template>
