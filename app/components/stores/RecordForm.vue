<script setup lang="ts">
/**
 * Add or edit a record of Stores from a list of fields. Adding is an entry (queued, exactly once); editing sends the
 * version that was seen, and when someone else was faster shows both versions.
 */
import { reactive, ref, watch } from 'vue'
import type { z } from 'zod'
import { EDITS } from '#shared/entries/edits'
import type { Problem } from '#shared/problem'
import EditHistory from '~/components/stores/EditHistory.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { ProblemError } from '~/lib/api'
import { useEntryForm } from '~/composables/entry-form'
import { editFailure, useRecordEdit } from '~/composables/record-edit'
import { getPath, setPath } from '~/components/stores/fields'
import type { FormField, OpenRecord } from '~/components/stores/form-field'
import { plain } from '~/lib/plain'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const props = defineProps<{ record: OpenRecord }>()
const emit = defineEmits<{ saved: []; cancel: [] }>()
const shop = useShop()
const ui = useUi()
const form = useEntryForm(props.record.route ?? null)
const v = reactive(JSON.parse(JSON.stringify(props.record.start)) as Record<string, unknown>)
const version = ref(props.record.edit?.version ?? 0)
watch(
  () => props.record.edit?.version,
  n => {
    if (n && n > version.value && !form.problem.value) version.value = n
  },
)
const edits = useRecordEdit()
const theirs = ref<Record<string, unknown> | null>(null)

/** Error at a field, also when the entry keeps the record inside `set`. */
const errorAt = (key: string) => form.errors.value[key] ?? form.errors.value[`set.${key}`]
const number = (f: FormField) => getPath(v, f.key) as number | null
const shownFields = () => props.record.fields.filter(f => !f.when || f.when(v))
/** What is sent: what the form holds, as the entry has it. */
const typed = () => (props.record.body ?? (x => x))(plain(v))
async function save(confirmed: string[] = []): Promise<void> {
  if (props.record.edit) {
    await saveEdit()
    return
  }
  const done = await form.send(typed(), props.record.says(v), confirmed)
  if (done === null) return
  if (done !== 'queued') ui.say(`${props.record.says(v)}: saved`)
  emit('saved')
}
async function saveEdit(): Promise<void> {
  const result = (EDITS[props.record.edit!.kind].shape.values as z.ZodType).safeParse(typed())
  if (!result.success) {
    form.problem.value = {
      type: 'urn:iron-nozzle:field',
      status: 422,
      title: '',
      errors: result.error.issues.map(i => ({ field: i.path.join('.'), message: i.message })),
    }
    return
  }
  try {
    await edits.save(
      props.record.edit!.kind,
      props.record.edit!.id,
      version.value,
      result.data as Record<string, unknown>,
    )
    ui.say(`${props.record.says(v)}: changed. Runs logged before keep what they were logged with.`)
    await shop.refresh()
    emit('saved')
  } catch (error) {
    const problem: Problem =
      error instanceof ProblemError && error.problem.status < 500
        ? error.problem
        : { type: 'about:blank', status: 0, title: editFailure(error) }
    if (problem.type === 'urn:iron-nozzle:stale') theirs.value = problem.current as Record<string, unknown>
    else
      form.problem.value = {
        ...problem,
        errors: problem.errors?.map(e => ({ ...e, field: e.field.replace(/^values\./, '') })),
      }
  }
}
function takeTheirs(): void {
  for (const f of props.record.fields) if (theirs.value && f.key in theirs.value) v[f.key] = theirs.value[f.key]
  keepMine()
}
function keepMine(): void {
  version.value = theirs.value!.version as number
  theirs.value = null
}
const id = (key: string) => `record-${key.replaceAll('.', '-')}`
const shown = (value: unknown) => (value === null || value === undefined || value === '' ? 'empty' : String(value))
</script>

<template>
  <form class="grid gap-3" @submit.prevent="save()">
    <div class="grid gap-3 sm:grid-cols-2">
      <template v-for="f in shownFields()" :key="f.key">
        <FieldNumber
          v-if="f.kind === 'number'"
          :id="id(f.key)"
          :model-value="number(f)"
          :label="f.label"
          :unit="f.unit"
          :hint="f.hint"
          :error="errorAt(f.key)"
          @update:model-value="x => setPath(v, f.key, x)"
        />
        <FieldSelect
          v-else-if="f.kind === 'select'"
          :id="id(f.key)"
          :model-value="getPath(v, f.key) as string"
          :label="f.label"
          :options="f.options ?? []"
          :hint="f.hint"
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
          :hint="f.hint"
          :list="f.list"
          :error="errorAt(f.key)"
          @update:model-value="x => setPath(v, f.key, x)"
        />
      </template>
    </div>
    <div v-if="theirs" role="alert" class="border-2 border-look p-3">
      <p class="font-semibold text-look">Someone changed this meanwhile. Nothing was overwritten.</p>
      <table class="record my-2">
        <thead>
          <tr>
            <th>field</th>
            <th>stored now</th>
            <th>yours</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="f in record.fields.filter(
              x => theirs && x.key in theirs && shown(theirs[x.key]) !== shown(v[x.key]),
            )"
            :key="f.key"
          >
            <td>{{ f.label }}</td>
            <td>{{ shown(theirs[f.key]) }}</td>
            <td>{{ shown(v[f.key]) }}</td>
          </tr>
        </tbody>
      </table>
      <div class="flex flex-wrap gap-2">
        <button type="button" class="button" @click="keepMine">Keep mine, then save</button
        ><button type="button" class="button" @click="takeTheirs">Take what is stored</button>
      </div>
    </div>
    <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" @local="form.reset()" />
    <div class="flex gap-2">
      <button type="submit" class="button first" :disabled="form.busy.value || theirs !== null">Save</button
      ><button type="button" class="button" @click="emit('cancel')">Cancel</button>
    </div>
    <EditHistory v-if="record.edit" :id="record.edit.id" :kind="record.edit.kind" :fields="record.fields" />
  </form>
</template>
