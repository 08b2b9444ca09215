<script setup lang="ts">
/** The readings of a survey: one row for each time, the room and every probe read together. */
import { computed } from 'vue'
import { emptyRow, isEmpty, type SurveyForm } from '~/components/verify/survey-form'
import FieldNumber from '~/components/ui/FieldNumber.vue'

const props = defineProps<{
  /** Errors by `timesS.0`, `roomC.0`, `probes.1.readC.0`, counted over the rows in which something stands. */
  errors: Record<string, string | undefined>
}>()
const v = defineModel<SurveyForm>({ required: true })
/** So many can be put right by hand; of a long file the last are what it is judged by. */
const MOST_SHOWN = 60
const shown = computed(() => v.value.rows.map((r, i) => ({ r, i })).slice(-MOST_SHOWN))
function errorAt(row: number, field: (k: number) => string): string | undefined {
  if (isEmpty(v.value.rows[row]!)) return undefined
  return props.errors[field(v.value.rows.slice(0, row).filter(r => !isEmpty(r)).length)]
}
</script>

<template>
  <div class="overflow-x-auto" tabindex="0" role="group" aria-label="Readings">
    <table class="record w-auto">
      <thead>
        <tr>
          <th scope="col">minute</th>
          <th scope="col">room, °C</th>
          <th v-for="(p, k) in v.probes" :key="k" scope="col">{{ p.name || `probe ${k + 1}` }}, °C</th>
          <th scope="col"><span class="sr-only">take it out</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ r, i } in shown" :key="i" class="align-top">
          <td class="w-[96px]">
            <FieldNumber
              :id="`survey-min-${i}`"
              v-model="r.min"
              bare
              :label="`Row ${i + 1}: minute`"
              :error="errorAt(i, k => `timesS.${k}`)"
            />
          </td>
          <td class="w-[96px]">
            <FieldNumber
              :id="`survey-room-${i}`"
              v-model="r.roomC"
              bare
              :label="`Row ${i + 1}: room, °C`"
              :error="errorAt(i, k => `roomC.${k}`)"
            />
          </td>
          <td v-for="(p, j) in v.probes" :key="j" class="w-[96px]">
            <FieldNumber
              :id="`survey-read-${i}-${j}`"
              v-model="r.readC[j]!"
              bare
              :label="`Row ${i + 1}: ${p.name}, °C`"
              :error="errorAt(i, k => `probes.${j}.readC.${k}`)"
            />
          </td>
          <td>
            <button
              type="button"
              class="button plain"
              :aria-label="`Take row ${i + 1} out`"
              @click="v.rows.splice(i, 1)"
            >
              ×
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="v.rows.length > shown.length" class="text-sm">
      {{ v.rows.length - shown.length }} earlier rows are kept and not shown.
    </p>
    <p class="mt-1">
      <button type="button" class="button" @click="v.rows.push(emptyRow(v.probes.length))">Add a row</button>
    </p>
  </div>
</template>
