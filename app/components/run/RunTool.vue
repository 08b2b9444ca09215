<script setup lang="ts">
/** One tool of a run: its head, nozzle and filament, how much went through, and what that does to the nozzle. */
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import LifeBar from '~/components/ui/LifeBar.vue'
import type { ToolForm } from '~/components/run/tool-form'

interface Option {
  value: number | null
  text: string
}
const props = defineProps<{
  index: number
  /** The amounts come from a job file. */
  byFile: boolean
  /** The file sets the nozzle's temperature: it is not asked for. */
  fileSets?: boolean
  heads: Option[]
  nozzles: Option[]
  spools: Option[]
  materials: Option[]
  /** Errors of the whole form, by path. */
  errors: Record<string, string>
  effect: string
  life: { left: { median: number; low80: number; high80: number }; after: number; label: string } | null
}>()
const t = defineModel<ToolForm>({ required: true })
const emit = defineEmits<{ head: [id: number | null]; spool: [id: number | null] }>()
const err = (field: string) => props.errors[`tools.${props.index}.${field}`]
</script>

<template>
  <fieldset class="grid gap-3 border-t border-rule pt-2">
    <legend class="float-left w-full font-semibold">{{ byFile ? `Tool ${t.tool}` : 'What went through' }}</legend>
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldSelect
        v-if="heads.length > 1"
        :id="`run-head-${index}`"
        :model-value="t.headId"
        label="Head"
        :options="heads"
        :error="err('headId')"
        @update:model-value="id => emit('head', id)"
      />
      <FieldSelect
        :id="`run-nozzle-${index}`"
        v-model="t.nozzleId"
        label="Nozzle"
        :options="nozzles"
        :error="err('nozzleId') ?? err('headId')"
      />
      <FieldSelect
        :id="`run-spool-${index}`"
        :model-value="t.spoolId"
        label="Spool"
        :options="spools"
        :error="err('spoolId')"
        @update:model-value="id => emit('spool', id)"
      />
      <FieldSelect
        v-if="t.spoolId === null"
        :id="`run-material-${index}`"
        v-model="t.materialId"
        label="Material"
        :options="materials"
        :error="err('materialId')"
      />
    </div>
    <div v-if="!byFile || !fileSets" class="grid gap-3 sm:grid-cols-3">
      <template v-if="!byFile">
        <FieldSelect
          :id="`run-way-${index}`"
          v-model="t.way"
          label="Known by"
          :options="[
            { value: 'grams', text: 'grams' },
            { value: 'metres', text: 'metres' },
            { value: 'weights', text: 'spool before and after' },
          ]"
        />
        <FieldNumber
          v-if="t.way === 'grams'"
          :id="`run-grams-${index}`"
          v-model="t.grams"
          label="Extruded"
          unit="g"
          placeholder="312"
          :error="err('amount.grams') ?? err('amount')"
        />
        <FieldNumber
          v-else-if="t.way === 'metres'"
          :id="`run-metres-${index}`"
          v-model="t.metres"
          label="Extruded"
          unit="m"
          placeholder="104"
          :error="err('amount.metres') ?? err('amount')"
        />
        <template v-else>
          <FieldNumber
            :id="`run-before-${index}`"
            v-model="t.beforeG"
            label="Spool before"
            unit="g"
            :error="err('amount.beforeG')"
          />
          <FieldNumber
            :id="`run-after-${index}`"
            v-model="t.afterG"
            label="Spool after"
            unit="g"
            :error="err('amount.afterG') ?? err('amount')"
          />
        </template>
      </template>
      <FieldNumber
        :id="`run-set-${index}`"
        v-model="t.setC"
        label="Nozzle set to"
        unit="°C"
        placeholder="if known"
        :error="err('setC')"
      />
    </div>
    <p v-if="effect" class="font-semibold" role="status">{{ effect }}</p>
    <p v-if="life" class="flex flex-wrap items-center gap-2 text-sm text-ink2">
      <LifeBar v-bind="life" :width="220" /> fibre left, 1 g to 100 kg; dashed: after this run
    </p>
  </fieldset>
</template>
