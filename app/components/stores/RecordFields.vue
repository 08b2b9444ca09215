<script setup lang="ts">
/** The fields of a record, from their list. */
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldPhoto from '~/components/ui/FieldPhoto.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { getPath, setPath } from '~/components/stores/fields'
import type { FormField } from '~/components/stores/form-field'
import { keptNumber, shareUnit, shownNumber } from '#shared/share'

const props = defineProps<{
  fields: readonly FormField[]
  /** What is typed; it is changed here. */
  v: Record<string, unknown>
  errors: Record<string, string>
}>()
/** Error at a field, also when the entry keeps the record inside `set`. */
const errorAt = (key: string) => props.errors[key] ?? props.errors[`set.${key}`]
const number = (f: FormField) => shownNumber(f.key, getPath(props.v, f.key) as number | null)
const hint = (f: FormField) => (typeof f.hint === 'function' ? f.hint(props.v) : f.hint)
const shownFields = () => props.fields.filter(f => !f.when || f.when(props.v))
const id = (key: string) => `record-${key.replaceAll('.', '-')}`
</script>

<template>
  <div class="grid gap-3 sm:grid-cols-2">
    <template v-for="f in shownFields()" :key="f.key">
      <FieldNumber
        v-if="f.kind === 'number'"
        :id="id(f.key)"
        :model-value="number(f)"
        :label="f.label"
        :unit="f.unit ?? shareUnit(f.key) ?? undefined"
        :hint="hint(f)"
        :error="errorAt(f.key)"
        @update:model-value="x => setPath(v, f.key, keptNumber(f.key, x))"
      />
      <FieldSelect
        v-else-if="f.kind === 'select'"
        :id="id(f.key)"
        :model-value="getPath(v, f.key) as string"
        :label="f.label"
        :options="f.options ?? []"
        :hint="hint(f)"
        :error="errorAt(f.key)"
        @update:model-value="
          x => {
            setPath(v, f.key, x)
            f.then?.(v)
          }
        "
      />
      <FieldWhen
        v-else-if="f.kind === 'when'"
        :id="id(f.key)"
        :model-value="getPath(v, f.key) as string"
        :label="f.label"
        :error="errorAt(f.key)"
        @update:model-value="x => setPath(v, f.key, x)"
      />
      <FieldPhoto
        v-else-if="f.kind === 'photo'"
        :id="id(f.key)"
        :model-value="(getPath(v, f.key) as string | null) ?? null"
        :label="f.label"
        :hint="hint(f)"
        :error="errorAt(f.key)"
        @update:model-value="x => setPath(v, f.key, x)"
      />
      <label v-else-if="f.kind === 'check'" class="check self-end"
        ><input
          type="checkbox"
          :checked="getPath(v, f.key) as boolean"
          @change="setPath(v, f.key, ($event.target as HTMLInputElement).checked)"
        />
        {{ f.label }}</label
      >
      <FieldText
        v-else
        :id="id(f.key)"
        :model-value="(getPath(v, f.key) as string) ?? ''"
        :label="f.label"
        :hint="hint(f)"
        :list="f.list"
        :error="errorAt(f.key)"
        @update:model-value="x => setPath(v, f.key, x)"
      />
    </template>
  </div>
</template>
