<script setup lang="ts">
/** Who changed a record, when, and what stood there before. Empty while nobody did. */
import type { EditableKind } from '#shared/entries/edits'
import type { FormField } from '~/components/stores/form-field'
import { useAnswer } from '~/composables/answer'
import { useShop } from '~/state/shop'
import { saidValue } from '#shared/share'
import { when } from '#shared/time'

const props = defineProps<{ kind: EditableKind; id: number; fields: readonly FormField[] }>()
const shop = useShop()
const { data: edits } = useAnswer('/api/edits/{kind}/{id}', { params: () => ({ kind: props.kind, id: props.id }) })

const labelOf = (key: string) => props.fields.find(f => f.key === key)?.label ?? key
</script>

<template>
  <section v-if="edits && edits.length > 0" aria-label="Edits" class="mt-4 border-t border-rule pt-2 text-sm">
    <h3 class="font-semibold">Edited</h3>
    <ul>
      <li v-for="e in edits" :key="e.version">
        {{ when(e.at, shop.zone) }}, {{ e.person }}: before
        <span v-for="(value, key, i) in e.before" :key="key"
          >{{ i > 0 ? '; ' : '' }}{{ labelOf(String(key)) }} <b>{{ saidValue(String(key), value) }}</b></span
        ><span v-if="Object.keys(e.before).length === 0">the same</span>
      </li>
    </ul>
  </section>
</template>
