<script setup lang="ts">
/** What a sensor may be off by: nothing better than the guard band, its data sheet, or a class. */
import { PLATINUM_BUILDS, PLATINUM_CLASSES, THERMOCOUPLE_CLASSES, THERMOCOUPLES } from '#core/thermometry'
import { ALLOWED_BY, options, type CheckForm } from '~/components/verify/check-form'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import { BUILD_WORDS } from '~/words/sensor'

defineProps<{ guardPartC: number; error?: string }>()
/** What is typed. */
const v = defineModel<CheckForm>({ required: true })
</script>

<template>
  <div class="grid gap-3 sm:grid-cols-3">
    <FieldSelect
      id="check-by"
      v-model="v.by"
      label="It may be off by"
      :options="ALLOWED_BY"
      :hint="v.by === 'guard band' ? `± ${guardPartC} °C: nothing better is known of it` : undefined"
    />
    <FieldNumber
      v-if="v.by === 'data sheet'"
      id="check-allowed"
      v-model="v.plusMinusC"
      label="± by its data sheet"
      unit="°C"
      :error="error"
    />
    <template v-if="v.by === 'platinum'">
      <FieldSelect id="check-class" v-model="v.platinumClass" label="Class" :options="options(PLATINUM_CLASSES)" />
      <FieldSelect
        id="check-build"
        v-model="v.build"
        label="Made as"
        :options="options(PLATINUM_BUILDS, b => BUILD_WORDS[b])"
      />
    </template>
    <template v-if="v.by === 'thermocouple'">
      <FieldSelect id="check-type" v-model="v.type" label="Type" :options="options(THERMOCOUPLES)" />
      <FieldSelect
        id="check-couple-class"
        v-model="v.coupleClass"
        label="Class"
        :options="options(THERMOCOUPLE_CLASSES)"
      />
    </template>
  </div>
</template>
