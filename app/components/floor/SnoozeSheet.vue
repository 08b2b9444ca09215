<script setup lang="ts">
/** Put off what is due: until when, and why it can wait. */
import type { DueItem } from '#shared/answers/due'
import { MOST_SNOOZE_DAYS } from '#shared/choices'
import { day } from '#shared/time'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { useShop } from '~/state/shop'

const props = defineProps<{ item: DueItem }>()
const emit = defineEmits<{ close: [] }>()
const shop = useShop()
const until = (days: number | null) => new Date(Date.now() + (days ?? NaN) * 86_400_000)
const untilIso = (days: number | null) => (Number.isNaN(until(days).getTime()) ? '' : until(days).toISOString())
const sheet = useEntrySheet('/api/snoozes', {
  on: () => props.item,
  name: i => i.key,
  start: () => ({ days: 1 as number | null, reason: '' }),
  body: (v, i) => ({
    key: i.key,
    until: untilIso(v.days),
    reason: v.reason,
    occurredAt: new Date().toISOString(),
  }),
  says: (_, i) => `Put off: ${i.action}`,
  saved: (_, v) => `Put off until ${day(untilIso(v.days), shop.zone)}: ${v.reason}.`,
  close: () => emit('close'),
})
</script>

<template>
  <EntrySheet :sheet="sheet" title="Put it off" action="Put it off" give-up="Keep it due" :shown="['until', 'reason']">
    <p>
      <b>{{ item.printer ? `${item.printer}: ` : '' }}{{ item.action }}.</b> {{ item.reason }}
    </p>
    <FieldNumber
      id="snooze-days"
      v-model="sheet.v.days"
      label="For how long"
      unit="days"
      :hint="`at most ${MOST_SNOOZE_DAYS}`"
      :error="sheet.errors.until"
    />
    <FieldText id="snooze-reason" v-model="sheet.v.reason" label="Why it can wait" :error="sheet.errors.reason" />
  </EntrySheet>
</template>
