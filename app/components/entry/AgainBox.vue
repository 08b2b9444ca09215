<script setup lang="ts">
/** Says what the entry takes the place of, and asks why that is struck out. */
import type { Entered, EnteredKind } from '#shared/answers/again'
import FieldText from '~/components/ui/FieldText.vue'
import { when } from '#shared/time'
import { useShop } from '~/state/shop'

/** `old` is null of an entry that waited here to be sent: which one it was is not read again. */
defineProps<{ kind: EnteredKind; old: Entered | null; error?: string; canBeNew?: boolean }>()
/** The old one is gone already: this is a new one by itself. */
defineEmits<{ new: [] }>()
const reason = defineModel<string>({ required: true })
const shop = useShop()
const NAMES: Record<EnteredKind, string> = {
  'run': 'run',
  'gauge': 'gauge',
  'spool event': 'entry',
  'sensor check': 'check',
  'fitting': 'fitting',
}
</script>

<template>
  <div class="grid gap-2 border-l-4 border-ink pl-3">
    <p>
      In place of the {{ NAMES[kind] }}
      <template v-if="old"
        >of <b>{{ when(old.at, shop.zone) }}</b>, {{ old.person }}</template
      ><template v-else>that was entered before</template>. That one is struck out when this is saved, and stays
      readable.
    </p>
    <FieldText
      id="again-reason"
      v-model="reason"
      label="Why the old one is struck out"
      placeholder="read wrong"
      :error="error"
    />
    <div v-if="error && canBeNew">
      <button type="button" class="button" @click="$emit('new')">Enter it as a new one</button>
    </div>
  </div>
</template>
