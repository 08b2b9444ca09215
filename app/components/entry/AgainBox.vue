<script setup lang="ts">
/** Says what the entry takes the place of, and asks why that is struck out. */
import type { Entered } from '#shared/answers/again'
import FieldText from '~/components/ui/FieldText.vue'
import { when } from '#shared/time'
import { useShop } from '~/state/shop'

defineProps<{ old: Entered; error?: string }>()
const reason = defineModel<string>({ required: true })
const shop = useShop()
const NAMES: Record<Entered['kind'], string> = {
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
      In place of the {{ NAMES[old.kind] }} of <b>{{ when(old.at, shop.zone) }}</b>, {{ old.person }}. That one is
      struck out when this is saved, and stays readable.
    </p>
    <FieldText
      id="again-reason"
      v-model="reason"
      label="Why the old one is struck out"
      placeholder="read wrong"
      :error="error"
    />
  </div>
</template>
