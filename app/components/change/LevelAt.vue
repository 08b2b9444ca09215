<script setup lang="ts">
/** How hot the bed was, how long, and when: of every measure of a bed. */
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'

defineProps<{ id: string; errors: Record<string, string> }>()
const v = defineModel<{ bedC: number | null; soakedMin: number | null; note: string; occurredAt: string }>({
  required: true,
})
</script>

<template>
  <FieldNumber :id="`${id}-bed`" v-model="v.bedC" label="Bed was at" unit="°C" :error="errors.bedC" />
  <FieldNumber
    :id="`${id}-soaked`"
    v-model="v.soakedMin"
    label="Soaked"
    unit="min"
    hint="empty: not known"
    :error="errors.soakedMin"
  />
  <FieldWhen :id="`${id}-when`" v-model="v.occurredAt" label="Measured" :error="errors.occurredAt" />
  <FieldText :id="`${id}-note`" v-model="v.note" label="Note" :error="errors.note" />
</template>
